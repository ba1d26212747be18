// What is soldered and plugged: where the iron or the plug gets to it, before what covers it, away from what heat
// harms.
#include "core/access/corridor.h"
#include "core/build/chain.h"
#include "core/catalog/part_bounds.h"
#include "core/sequence/operation_book.h"
#include "core/wiring/pad_joints.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace waxis {

namespace {

// Common practice, no source.
constexpr double kIronAcross_mm = 5, kIronLength_mm = 60, kOffThePad_mm = 2;
constexpr double kPlugMinutes = 0.3, kSnapMinutes = 0.5, kInsulateMinutes = 1;

double minutesOf(SolderHeat heat) {
    switch (heat) {
    case SolderHeat::light: return 0.7;
    case SolderHeat::middle: return 1;
    case SolderHeat::heavy: return 2.5;
    }
    return 1;
}

/// Who stands before the iron or the plug, by the way that leaves least to be kept free.
struct Reach {
    Vec3 from = Vec3::UnitZ();
    std::vector<int> blockers;
    bool after = true; ///< all of them come later than the part
};

class Joints {
public:
    explicit Joints(OperationBook &book) : book_(book), build_(book.build), graph_(book.graph) {}

    void make() {
        std::map<std::pair<std::string, std::string>, std::vector<std::size_t>> soldered; ///< by part and port
        for (std::size_t w = 0; w < build_.wires.size(); ++w) {
            const Wire &wire = build_.wires[w];
            if (!isJoined(book_, wire)) continue;
            for (const bool atFrom : {true, false}) {
                const WireEnd &end = atFrom ? wire.from : wire.to;
                const Port *port = portOf(build_, end);
                // Not the end that came with its part.
                if (!port || end.part == book_.derived.wiring->wires[w].leadOf) continue;
                if (port->kind == PortKind::pads)
                    soldered[{end.part, end.port}].push_back(w);
                else
                    join(port->kind == PortKind::coax ? OperationKind::snap : OperationKind::plug, end, {w});
            }
        }
        const auto joints = padJoints(build_);
        for (const auto &[end, wires] : soldered) {
            double minutes = 0;
            for (const auto &joint : joints)
                if (joint.part == end.first && joint.port == end.second) minutes += minutesOf(joint.heat());
            join(OperationKind::solder, {end.first, end.second}, wires, minutes);
        }
    }

private:
    std::vector<Reach> waysOfIron(const Port &port, const Pose &X_FramePart, int part) const {
        const Vec3 out = (X_FramePart.rotation * port.direction).normalized(), at = X_FramePart * port.position_mm;
        std::vector<Vec3> from{out};
        constexpr double kFlat = 0.7;
        if (std::abs(out.z()) < kFlat)
            from = {(out + Vec3::UnitZ()).normalized(), (out - Vec3::UnitZ()).normalized(), Vec3::UnitZ(),
                    -Vec3::UnitZ()};
        std::vector<Reach> ways;
        for (const Vec3 &way : from)
            ways.push_back({way,
                            graph_.beforeTool(at + way * (kOffThePad_mm + kIronAcross_mm / 2), way * kIronLength_mm,
                                              kIronAcross_mm, part),
                            true});
        return ways;
    }
    Reach reachOf(OperationKind kind, const Port &port, const Pose &X_FramePart, int part) const {
        std::vector<Reach> ways;
        if (kind == OperationKind::solder) {
            ways = waysOfIron(port, X_FramePart, part);
        } else {
            const Vec3 out = (X_FramePart.rotation * port.direction).normalized();
            constexpr double kSlack_mm = 0.6; // as FIT-7
            Corridor corridor = corridorOf(port, X_FramePart, false, book_.practice);
            if (!(corridor.fullSize_mm.minCoeff() > 0)) return {out, {}, true};
            corridor.body.shape = Box{(corridor.fullSize_mm - Vec3::Constant(2 * kSlack_mm)).cwiseMax(0.1)};
            ways.push_back({out, graph_.within(corridor.body, part), true});
        }
        const std::size_t own = book_.opOf[std::size_t(part)];
        for (auto &way : ways)
            for (const int blocker : way.blockers) {
                const std::size_t other = book_.opOf[std::size_t(blocker)];
                if (other == own || book_.keeper.isBefore(other, own)) way.after = false;
            }
        // Rather before one or two others than with the craft turned over.
        constexpr std::size_t kTurnOver = 2;
        auto cost = [](const Reach &way) {
            return std::pair(!way.after, way.blockers.size() + (way.from.z() < -0.5 ? kTurnOver : 0));
        };
        return *std::min_element(ways.begin(), ways.end(),
                                 [&](const Reach &a, const Reach &b) { return cost(a) < cost(b); });
    }
    /// How far a port lies from the nearest edge of its part, in the part's plane.
    static double inwards_mm(const PartType &type, const Port &port) {
        const Aabb box = firmBounds(type);
        if (box.empty()) return 0;
        const Vec3 low = port.position_mm - box.min_mm, high = box.max_mm - port.position_mm;
        return std::max(0.0, std::min({low.x(), low.y(), high.x(), high.y()}));
    }
    bool isSolderedOutside(const Part &part, const std::vector<std::size_t> &wires) const {
        return book_.practice.follows("board-soldering", "outside") && stackPlaceOf(build_, part) &&
               std::all_of(wires.begin(), wires.end(),
                           [&](std::size_t w) { return book_.derived.wiring->wires[w].leadOf.empty(); });
    }
    void join(OperationKind kind, const WireEnd &end, const std::vector<std::size_t> &wires, double minutes = 0) {
        const Part *part = findPart(build_, end.part);
        const Port *port = portOf(build_, end);
        const int thing = graph_.find(end.part);
        if (!part || !port || thing < 0) return;
        const Pose X_FramePart = framePose(build_, *part);
        const Reach reach = reachOf(kind, *port, X_FramePart, thing);
        Operation op;
        op.kind = kind;
        const bool soldering = kind == OperationKind::solder;
        op.id = soldering ? fmt::format("solder:{}.{}", end.part, end.port)
                          : fmt::format("{}:{}.{}.{}", kind == OperationKind::snap ? "snap" : "plug",
                                        build_.wires[wires.front()].id, end.part, end.port);
        for (const std::size_t w : wires) op.joints.push_back({build_.wires[w].id, end.part, end.port});
        op.tool = soldering ? Tool::iron : Tool::hand;
        op.minutes = soldering ? minutes : kind == OperationKind::snap ? kSnapMinutes : kPlugMinutes;
        op.from = reach.from;
        op.place = book_.operations[book_.opOf[std::size_t(thing)]].place;
        op.sort = fmt::format("{} {}", int(kind), end.part);
        op.inwards_mm = soldering ? inwards_mm(*typeOf(build_, *part), *port) : 0;
        // What is stuck down is soldered before, in the hand; boards of a stack with leads of their own where that is
        // the school.
        const bool outside = soldering && isSolderedOutside(*part, wires);
        op.inHand = !reach.after || outside || (soldering && isStuckDown(part->fastening.method));
        // Like parts in one go, where the next one is not under another board.
        if (op.inHand || op.place == "arms") op.sort = fmt::format("{} {} {}", int(kind), part->type, op.inHand);
        op.side = op.inHand ? 0 : sideFor(reach.from);
        const std::size_t own = book_.opOf[std::size_t(thing)], at = book_.add(std::move(op));
        if (book_.operations[at].inHand) {
            const BeforeReason reason = !reach.after ? BeforeReason::tool
                                        : outside    ? BeforeReason::process
                                                     : BeforeReason::heat;
            book_.before(at, own, reason, end.part, end.part);
            if (!reach.after && kind != OperationKind::solder)
                book_.remark(RemarkKind::covered, {end.part, build_.wires[wires.front()].id});
        } else {
            book_.before(own, at, BeforeReason::joint, end.part, end.part);
            book_.beforeWhatCovers(at, end.part, reach.blockers);
        }
        if (!soldering) return;
        insulate(at, reach.blockers, wires);
    }
    /// What stands at the pack's voltage is looked at for bridges and covered before anything comes over it.
    void insulate(std::size_t joint, const std::vector<int> &blockers, const std::vector<std::size_t> &wires) {
        const Operation soldered = book_.operations[joint];
        Operation op;
        for (std::size_t i = 0; i < wires.size(); ++i)
            if (book_.derived.wiring->wires[wires[i]].role == WireRole::power && isOfTrain(book_, wires[i]))
                op.joints.push_back(soldered.joints[i]);
        if (op.joints.empty()) return;
        const std::string part = op.joints.front().part, port = op.joints.front().port;
        op.id = fmt::format("insulate:{}.{}", part, port);
        op.kind = OperationKind::insulate;
        op.tool = Tool::tape;
        op.minutes = kInsulateMinutes;
        op.from = soldered.from;
        op.side = soldered.side;
        op.place = soldered.place;
        op.inHand = soldered.inHand;
        op.sort = "insulate " + soldered.sort;
        const std::size_t at = book_.add(std::move(op));
        book_.before(joint, at, BeforeReason::joint, part, part);
        if (soldered.inHand) {
            if (const auto own = book_.fitOf(part)) book_.before(at, *own, BeforeReason::tool, part, part);
        } else {
            book_.beforeWhatCovers(at, part, blockers);
        }
    }
    OperationBook &book_;
    const Build &build_;
    BlockingGraph &graph_;
};

} // namespace

bool isJoined(const OperationBook &book, const Wire &wire) {
    auto there = [&](const std::string &part) {
        return book.graph.find(part) >= 0 && !book.isKind(part, PartKind::battery);
    };
    return there(wire.from.part) && there(wire.to.part);
}

bool isOfTrain(const OperationBook &book, std::size_t wire) {
    const WireRole role = book.derived.wiring->wires[wire].role;
    if (role == WireRole::phase) return true;
    if (role != WireRole::power) return false;
    auto inTrain = [&](const std::string &id) {
        const PartType *type = book.typeOfPart(id);
        if (!type) return false;
        switch (type->kind) {
        case PartKind::esc:
        case PartKind::fourInOneEsc:
        case PartKind::powerPlug:
        case PartKind::distributionBoard:
        case PartKind::capacitor:
        case PartKind::currentSensor:
        case PartKind::powerSwitch: return true;
        default: return false;
        }
    };
    const Wire &led = book.build.wires[wire];
    return inTrain(led.from.part) && inTrain(led.to.part);
}

void addJoints(OperationBook &book) { Joints(book).make(); }

/// Of one joint: what is stuck down near it and cannot wait is said, the nearest.
static void keepFromHeat(OperationBook &book, std::size_t joint) {
    const std::string part = book.operations[joint].joints.front().part;
    const Part *soldered = findPart(book.build, part);
    const Port *port = portOf(book.build, {part, book.operations[joint].joints.front().port});
    if (!soldered || !port) return;
    const Vec3 at_mm = framePose(book.build, *soldered) * port->position_mm;
    std::optional<std::pair<double, int>> harmed;
    const auto &things = book.graph.things();
    for (std::size_t t = 0; t < things.size(); ++t) {
        const Part *other = findPart(book.build, things[t].id);
        if (!other || other->id == part || !isStuckDown(other->fastening.method) ||
            book.isKind(other->id, PartKind::battery))
            continue;
        const double away_mm = book.graph.distanceTo(int(t), at_mm);
        if (away_mm >= book.practice[Limit::solderClear]) continue;
        if (!book.before(joint, book.opOf[t], BeforeReason::heat, part, other->id) &&
            (!harmed || away_mm < harmed->first))
            harmed = {away_mm, int(t)};
    }
    if (harmed) book.remark(RemarkKind::heat, {part, book.idOf(harmed->second)}, harmed->first);
}

void addHeat(OperationBook &book) {
    for (std::size_t i = 0; i < book.operations.size(); ++i)
        if (book.operations[i].kind == OperationKind::solder) keepFromHeat(book, i);
}

} // namespace waxis
