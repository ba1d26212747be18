// Leads before they are joined: cut, spliced, sleeved, led through their holes.
#include "core/base/by_id.h"
#include "core/links/mating.h"
#include "core/sequence/operation_book.h"
#include "core/wiring/routing.h"
#include "core/wiring/way_points.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <map>

namespace waxis {

namespace {

// Common practice, no source.
constexpr double kLeadMinutes = 0.8, kSlipMinutes = 0.3, kSpliceMinutes = 3, kThreadMinutes = 0.3,
                 kFingerAcross_mm = 12, kFingerLength_mm = 40, kOffTheHole_mm = 2;

class Leads {
public:
    explicit Leads(OperationBook &book) : book_(book), build_(book.build) {
        for (std::size_t i = 0; i < book.operations.size(); ++i)
            for (const auto &joint : book.operations[i].joints)
                if (book.operations[i].kind != OperationKind::insulate) jointsOf_[joint.wire].push_back(i);
    }

    void make() {
        for (std::size_t w = 0; w < build_.wires.size(); ++w) {
            if (!isJoined(book_, build_.wires[w])) continue;
            const bool cut = book_.derived.wiring->wires[w].verdict == LeadVerdict::cut;
            if (cut) cut_.push_back(w);
            slipAndSplice(w);
            leadThrough(w);
            tooBigForItsHole(w);
        }
        prepare();
    }

private:
    Operation inTheHand(std::string id, OperationKind kind, double minutes) const {
        Operation op;
        op.id = std::move(id);
        op.kind = kind;
        op.minutes = minutes;
        op.place = "hand";
        op.inHand = true;
        op.sort = std::to_string(int(kind));
        return op;
    }
    /// Of a wire: what is done in the hand comes before both its joints.
    void beforeItsJoints(std::size_t op, const std::string &wire) {
        for (const std::size_t joint : jointsOf_[wire])
            book_.before(op, joint, BeforeReason::joint, wire, book_.operations[joint].joints.front().part);
    }
    void slipAndSplice(std::size_t w) {
        const Wire &wire = build_.wires[w];
        const bool shrunk = wire.splices > 0 || !wire.inserts.empty();
        if (!wire.sleeved && !shrunk) return;
        Operation slip = inTheHand("slip:" + wire.id, OperationKind::slip, kSlipMinutes * (1 + wire.splices));
        slip.joints.push_back({wire.id, "", ""});
        const std::size_t slipped = book_.add(std::move(slip));
        early_[wire.id].push_back(slipped);
        beforeItsJoints(slipped, wire.id);
        if (!shrunk) return;
        Operation splice = inTheHand("splice:" + wire.id, OperationKind::splice,
                                     kSpliceMinutes * double(wire.splices + int(wire.inserts.size())));
        splice.joints.push_back({wire.id, "", ""});
        splice.tool = Tool::iron;
        const std::size_t spliced = book_.add(std::move(splice));
        early_[wire.id].push_back(spliced);
        book_.before(slipped, spliced, BeforeReason::process, wire.id, wire.id);
        beforeItsJoints(spliced, wire.id);
    }
    const PassThrough *passOf(const std::string &id) const { return byId(build_.frame->passThroughs, id); }
    const Plate *plateOf(const PassThrough &pass) const { return byId(build_.frame->plates, pass.plate); }
    /// A rim is pressed in before the plate carries anything.
    void rim(const PassThrough &pass, std::size_t led) {
        if (pass.edge != HoleEdge::grommet) return;
        const std::string id = "slip:" + pass.id;
        auto at = book_.find(id);
        if (!at) {
            Operation op = inTheHand(id, OperationKind::slip, kSlipMinutes);
            op.onto = {pass.plate};
            op.sort += "rim";
            at = book_.add(std::move(op));
            if (const auto plate = book_.fitOf(pass.plate))
                book_.before(*at, *plate, BeforeReason::process, pass.plate, pass.plate);
        }
        book_.before(*at, led, BeforeReason::process, pass.plate, book_.operations[led].joints.front().wire);
    }
    void leadThrough(std::size_t w) {
        const Wire &wire = build_.wires[w];
        if (w >= book_.derived.routes->size()) return;
        std::vector<const PassThrough *> passes;
        for (const auto &support : (*book_.derived.routes)[w].supports)
            if (const PassThrough *pass = support.kind == SupportKind::passThrough ? passOf(support.id) : nullptr;
                pass && plateOf(*pass) && std::find(passes.begin(), passes.end(), pass) == passes.end())
                passes.push_back(pass);
        if (passes.empty()) return;
        Operation op;
        op.id = "lead:" + wire.id;
        op.kind = OperationKind::lead;
        op.joints.push_back({wire.id, "", ""});
        for (const PassThrough *pass : passes) op.onto.push_back(pass->plate);
        op.minutes = kThreadMinutes * double(passes.size());
        op.place = passes.front()->plate;
        op.sort = "lead " + op.place;
        const std::size_t led = book_.add(std::move(op));
        for (const PassThrough *pass : passes) {
            if (const auto plate = book_.fitOf(pass->plate))
                book_.before(*plate, led, BeforeReason::rests, pass->plate, wire.id);
            rim(*pass, led);
        }
        for (const std::size_t joint : jointsOf_[wire.id]) {
            const std::string part = book_.operations[joint].joints.front().part;
            if (book_.operations[joint].inHand)
                book_.before(joint, led, BeforeReason::joint, part, wire.id);
            else
                book_.before(led, joint, BeforeReason::joint, wire.id, part);
        }
        for (const std::size_t early : early_[wire.id])
            book_.before(early, led, BeforeReason::process, wire.id, wire.id);
        // Fingers push on one side and pull on the other.
        for (const PassThrough *pass : passes) {
            const Vec3 middle = middleOf(*pass, *plateOf(*pass));
            const double off_mm = plateOf(*pass)->thickness_mm / 2 + kOffTheHole_mm + kFingerAcross_mm / 2;
            for (const double side : {1.0, -1.0})
                book_.beforeWhatCovers(led, wire.id,
                                       book_.graph.beforeTool(middle + Vec3(0, 0, side * off_mm),
                                                              Vec3(0, 0, side * kFingerLength_mm), kFingerAcross_mm,
                                                              book_.graph.find(pass->plate)));
        }
    }
    /// A supplied lead is led through with its plug on, and its other end sits on its part.
    void tooBigForItsHole(std::size_t w) {
        const Wire &wire = build_.wires[w];
        const WireReport &report = book_.derived.wiring->wires[w];
        if (report.leadOf.empty()) return;
        const auto plug = plugBodyOn(build_, wire, wire.to.part == report.leadOf);
        if (!plug) return;
        for (const auto &use : book_.derived.wiring->holes) {
            const PassThrough *pass = passOf(use.pass);
            if (!pass || std::find(use.wires.begin(), use.wires.end(), int(w)) == use.wires.end()) continue;
            if (!passes(*plug, sidesOf_mm(*pass), use.hole_mm)) book_.remark(RemarkKind::hole, {wire.id, use.pass});
        }
    }
    void prepare() {
        if (cut_.empty()) return;
        Operation prepare = inTheHand("prepare:leads", OperationKind::prepare, 0);
        prepare.inHand = false; // there is no part that they go in before
        prepare.tool = Tool::cutters;
        prepare.sort.clear();
        for (const std::size_t w : cut_) {
            prepare.joints.push_back({build_.wires[w].id, "", ""});
            prepare.minutes += kLeadMinutes * double(build_.wires[w].cores.size());
        }
        const std::size_t first = book_.add(std::move(prepare));
        for (const std::size_t w : cut_) {
            const std::string &wire = build_.wires[w].id;
            for (const std::size_t early : early_[wire]) book_.before(first, early, BeforeReason::joint, wire, wire);
            for (const std::size_t joint : jointsOf_[wire]) book_.before(first, joint, BeforeReason::joint, wire, wire);
            if (const auto led = book_.find("lead:" + wire)) book_.before(first, *led, BeforeReason::joint, wire, wire);
        }
    }
    OperationBook &book_;
    const Build &build_;
    std::map<std::string, std::vector<std::size_t>> jointsOf_; ///< by wire
    std::map<std::string, std::vector<std::size_t>> early_;    ///< by wire: what is done in the hand
    std::vector<std::size_t> cut_;
};

} // namespace

void addLeads(OperationBook &book) { Leads(book).make(); }

void addLeadsAfterTheirParts(OperationBook &book) {
    for (std::size_t i = 0; i < book.operations.size(); ++i) {
        if (book.operations[i].kind != OperationKind::lead) continue;
        const Wire *wire = findWire(book.build, book.operations[i].joints.front().wire);
        for (const auto *end : {&wire->from, &wire->to})
            if (const auto fit = book.fitOf(end->part); fit && !book.comesAfterAFlight(end->part))
                book.before(*fit, i, BeforeReason::joint, end->part, wire->id);
    }
}

} // namespace waxis
