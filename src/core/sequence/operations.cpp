#include "core/sequence/operations.h"

#include "core/access/corridor.h"
#include "core/build/chain.h"
#include "core/kit/holding.h"
#include "core/links/mating.h"
#include "core/power/power_report.h"
#include "core/sequence/checks.h"
#include "core/sequence/order_keeper.h"
#include "core/wiring/pad_joints.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <cstdint>
#include <fmt/format.h>
#include <limits>
#include <map>

namespace waxis {

namespace {

// Common practice, no source.
constexpr double kIronAcross_mm = 5, kIronLength_mm = 60, kOffThePad_mm = 2;
constexpr double kFitMinutes = 0.5, kScrewMinutes = 0.4, kStickMinutes = 0.5, kTieMinutes = 0.4, kPlugMinutes = 0.3,
                 kSnapMinutes = 0.5, kLeadMinutes = 0.8, kCheckMinutes = 8, kRailMinutes = 2;

double minutesOf(SolderHeat heat) {
    switch (heat) {
    case SolderHeat::light: return 0.7;
    case SolderHeat::middle: return 1;
    case SolderHeat::heavy: return 2.5;
    }
    return 1;
}

/// FNV-1a, 64 bit: short, and the same on every machine.
std::string fingerprint(const std::string &text) {
    std::uint64_t hash = 14695981039346656037ull;
    for (const unsigned char c : text) hash = (hash ^ c) * 1099511628211ull;
    return fmt::format("{:016x}", hash);
}

int sideOf(const Vec3 &from) {
    constexpr double kUpright = 0.5;
    return from.z() > kUpright ? 1 : from.z() < -kUpright ? -1 : 0;
}

bool isStuck(FasteningMethod method) {
    return method == FasteningMethod::tape || method == FasteningMethod::hookAndLoop || method == FasteningMethod::glue;
}

class Maker {
public:
    Maker(const Build &build, const Practice &practice, const Derived &derived, BlockingGraph &graph,
          const PutTogether &together)
        : build_(build), practice_(practice), derived_(derived), graph_(graph), things_(graph.things()),
          together_(together), opOf_(things_.size(), 0), keeper_(0) {}

    OperationGraph make() {
        putThingsIn();
        joinWires();
        tieWires();
        gates();
        ownSteps();
        ownOrder();
        for (auto &op : result_.operations) {
            std::string text = op.id;
            for (const auto &id : op.things) text += " " + id + "=" + typeName(id);
            for (const auto &id : op.onto) text += ">" + id;
            for (const auto &joint : op.joints) text += "|" + joint.wire + joint.part + joint.port;
            op.contents = fingerprint(
                fmt::format("{}{:.1f},{:.1f},{:.1f}", text, op.from.x() + 0.0, op.from.y() + 0.0, op.from.z() + 0.0));
        }
        result_.order = keeper_.edges();
        return std::move(result_);
    }

private:
    std::string typeName(const std::string &id) const {
        const Part *part = findPart(build_, id);
        return part ? part->type : std::string();
    }
    std::size_t add(Operation op) {
        result_.operations.push_back(std::move(op));
        return keeper_.add();
    }
    bool before(std::size_t first, std::size_t second, BeforeReason reason, const std::string &thing,
                const std::string &other) {
        return keeper_.add({first, second, reason, thing, other});
    }
    const std::string &idOf(int thing) const { return things_[std::size_t(thing)].id; }

    // -- things --

    std::string placeOf(int thing) const {
        if (const Part *part = findPart(build_, idOf(thing)))
            if (const auto place = stackPlaceOf(build_, *part)) return place->stack->id;
        for (const auto &stack : build_.stacks)
            if (std::find(stack.screws.begin(), stack.screws.end(), idOf(thing)) != stack.screws.end()) return stack.id;
        std::vector<int> open{thing};
        for (std::size_t k = 0; k < open.size(); ++k) {
            const OwnerKind kind = derived_.scene.owners[std::size_t(things_[std::size_t(open[k])].owner)].kind;
            if (k > 0 && kind == OwnerKind::arm) return "arms";
            if (k > 0 && kind == OwnerKind::plate) return idOf(open[k]);
            for (const int below : things_[std::size_t(open[k])].restsOn)
                if (std::find(open.begin(), open.end(), below) == open.end()) open.push_back(below);
        }
        // Propellers rest on a site, not on a thing: the motor mount's.
        const Part *part = findPart(build_, idOf(thing));
        return part && isMount(part->placement.site) ? "arms" : "frame";
    }
    bool isMount(const std::string &site) const {
        const auto &mounts = build_.frame->motorMounts;
        return std::any_of(mounts.begin(), mounts.end(), [&](const MotorMount &mount) { return mount.id == site; });
    }
    void toolFor(Operation &op, int thing) const {
        const Thing &it = things_[std::size_t(thing)];
        const Part *part = findPart(build_, it.id);
        if (it.turned) {
            op.tool = Tool::driver;
            op.minutes += kScrewMinutes;
            return;
        }
        op.minutes += it.fastener ? kScrewMinutes / 2 : kFitMinutes;
        if (!part) return;
        const Holding holding = holdingOf(build_, *part, practice_);
        int pieces = 0;
        for (const auto &hardware : holding.pieces) pieces += hardware.pieces;
        switch (holding.method) {
        case FasteningMethod::screws:
            if (pieces > 0) op.tool = Tool::driver;
            op.minutes += pieces * kScrewMinutes;
            break;
        case FasteningMethod::tape:
        case FasteningMethod::hookAndLoop:
        case FasteningMethod::glue:
            op.tool = Tool::tape;
            op.minutes += kStickMinutes;
            break;
        case FasteningMethod::ties:
            op.tool = Tool::ties;
            op.minutes += pieces * kTieMinutes;
            break;
        case FasteningMethod::none:
        case FasteningMethod::strap:
        case FasteningMethod::stack:
        case FasteningMethod::pressed:
        case FasteningMethod::soldered: break;
        }
    }
    void putThingsIn() {
        for (const auto &put : together_.order) {
            Operation op;
            const int head = put.things.front();
            op.id = "fit:" + idOf(head);
            op.from = put.from;
            op.base = put.first;
            op.side = put.first ? 1 : sideOf(put.from);
            op.place = placeOf(head);
            op.atTheEnd = things_[std::size_t(head)].atTheEnd;
            op.sort = fmt::format("fit {} {}", typeName(idOf(head)),
                                  int(derived_.scene.owners[std::size_t(things_[std::size_t(head)].owner)].kind));
            for (const int thing : put.things) {
                opOf_[std::size_t(thing)] = result_.operations.size();
                op.things.push_back(idOf(thing));
                toolFor(op, thing);
            }
            if (op.things.size() > 1) op.sort += op.id; // an assembly is a step of its own
            for (const int below : things_[std::size_t(head)].restsOn) op.onto.push_back(idOf(below));
            for (const int other : put.stuckBehind) op.stuckBehind.push_back(idOf(other));
            for (const int other : put.undriven) op.undriven.push_back(idOf(other));
            remark(op);
            add(std::move(op));
        }
        for (const auto &edge : together_.edges)
            before(opOf_[std::size_t(edge.first)], opOf_[std::size_t(edge.second)], edge.reason, idOf(edge.first),
                   idOf(edge.second));
    }
    void remark(const Operation &op) {
        auto say = [&](RemarkKind kind, const std::vector<std::string> &who) {
            PlanRemark remark;
            remark.kind = kind;
            remark.subjects = {op.things.front()};
            remark.subjects.insert(remark.subjects.end(), who.begin(), who.end());
            result_.remarks.push_back(std::move(remark));
        };
        if (!op.stuckBehind.empty()) say(RemarkKind::stuck, op.stuckBehind);
        if (!op.undriven.empty()) say(RemarkKind::undriven, op.undriven);
        if (op.things.size() < 2 && op.stuckBehind.empty()) return;
        for (const auto &id : op.things)
            if (const Part *part = findPart(build_, id); part && part->fastening.method == FasteningMethod::glue) {
                PlanRemark remark;
                remark.kind = RemarkKind::dryFit;
                remark.subjects = {id};
                result_.remarks.push_back(std::move(remark));
            }
    }

    // -- wires --

    bool isPack(const std::string &part) const {
        const Part *found = findPart(build_, part);
        const PartType *type = found ? typeOf(build_, *found) : nullptr;
        return type && type->kind == PartKind::battery;
    }
    void joinWires() {
        std::map<std::pair<std::string, std::string>, std::vector<std::size_t>> soldered; ///< by part and port
        std::vector<std::size_t> cut;
        for (std::size_t w = 0; w < build_.wires.size(); ++w) {
            const Wire &wire = build_.wires[w];
            // The pack is plugged in when the craft is checked and when it flies, not while it is built.
            if (graph_.find(wire.from.part) < 0 || graph_.find(wire.to.part) < 0 || isPack(wire.from.part) ||
                isPack(wire.to.part))
                continue;
            const WireReport &report = derived_.wiring->wires[w];
            if (report.verdict == LeadVerdict::cut) cut.push_back(w);
            for (const bool atFrom : {true, false}) {
                const WireEnd &end = atFrom ? wire.from : wire.to;
                const Port *port = portOf(build_, end);
                if (!port || end.part == report.leadOf) continue; // it came with the part
                if (port->kind == PortKind::pads)
                    soldered[{end.part, end.port}].push_back(w);
                else
                    join(port->kind == PortKind::coax ? OperationKind::snap : OperationKind::plug, end, {w});
            }
            threading(w);
        }
        const auto joints = padJoints(build_);
        for (const auto &[end, wires] : soldered) {
            double minutes = 0;
            for (const auto &joint : joints)
                if (joint.part == end.first && joint.port == end.second) minutes += minutesOf(joint.heat());
            join(OperationKind::solder, {end.first, end.second}, wires, minutes);
        }
        if (cut.empty()) return;
        Operation prepare;
        prepare.id = "prepare:leads";
        prepare.kind = OperationKind::prepare;
        prepare.tool = Tool::cutters;
        prepare.place = "hand";
        for (const std::size_t w : cut) {
            prepare.joints.push_back({build_.wires[w].id, "", ""});
            prepare.minutes += kLeadMinutes * double(build_.wires[w].cores.size());
        }
        const std::size_t first = add(std::move(prepare));
        for (std::size_t i = 0; i < first; ++i)
            for (const auto &joint : result_.operations[i].joints)
                for (const std::size_t w : cut)
                    if (joint.wire == build_.wires[w].id) before(first, i, BeforeReason::joint, joint.wire, joint.wire);
    }
    /// A supplied lead is led through with its plug on, and its other end sits on its part.
    void threading(std::size_t w) {
        const Wire &wire = build_.wires[w];
        const WireReport &report = derived_.wiring->wires[w];
        if (report.leadOf.empty()) return;
        const auto plug = plugBodyOn(build_, wire, wire.to.part == report.leadOf);
        if (!plug) return;
        for (const auto &use : derived_.wiring->holes) {
            if (std::find(use.wires.begin(), use.wires.end(), int(w)) == use.wires.end()) continue;
            const auto &list = build_.frame->passThroughs;
            const auto pass =
                std::find_if(list.begin(), list.end(), [&](const PassThrough &p) { return p.id == use.pass; });
            if (pass == list.end()) continue;
            Aabb box;
            for (const Vec2 &p : pass->outline_mm) box.include(Vec3(p.x(), p.y(), 0));
            if (passes(*plug, box.size_mm().head<2>(), use.hole_mm)) continue;
            PlanRemark remark;
            remark.kind = RemarkKind::hole;
            remark.subjects = {wire.id, use.pass};
            result_.remarks.push_back(std::move(remark));
        }
    }
    /// Who stands before the iron or the plug, by the way that leaves least to be kept free.
    struct Reach {
        Vec3 from = Vec3::UnitZ();
        std::vector<int> blockers;
        bool after = true; ///< all of them come later than the part
    };
    Reach reachOf(OperationKind kind, const Port &port, const Pose &X_FramePart, int part) {
        const Vec3 out = (X_FramePart.rotation * port.direction).normalized();
        std::vector<Reach> ways;
        if (kind == OperationKind::solder) {
            const Vec3 at = X_FramePart * port.position_mm;
            std::vector<Vec3> from{out};
            constexpr double kFlat = 0.7;
            if (std::abs(out.z()) < kFlat)
                from = {(out + Vec3::UnitZ()).normalized(), (out - Vec3::UnitZ()).normalized(), Vec3::UnitZ(),
                        -Vec3::UnitZ()};
            for (const Vec3 &way : from)
                ways.push_back({way,
                                graph_.beforeTool(at + way * (kOffThePad_mm + kIronAcross_mm / 2), way * kIronLength_mm,
                                                  kIronAcross_mm, part),
                                true});
        } else {
            constexpr double kSlack_mm = 0.6; // as FIT-7
            Corridor corridor = corridorOf(port, X_FramePart, false, practice_);
            if (!(corridor.fullSize_mm.minCoeff() > 0)) return {out, {}, true};
            corridor.body.shape = Box{(corridor.fullSize_mm - Vec3::Constant(2 * kSlack_mm)).cwiseMax(0.1)};
            ways.push_back({out, graph_.within(corridor.body, part), true});
        }
        const std::size_t own = opOf_[std::size_t(part)];
        for (auto &way : ways)
            for (const int blocker : way.blockers) {
                const std::size_t other = opOf_[std::size_t(blocker)];
                if (other == own || keeper_.isBefore(other, own)) way.after = false;
            }
        // Rather before one or two others than with the craft turned over.
        constexpr std::size_t kTurnOver = 2;
        auto cost = [](const Reach &way) {
            return std::pair(!way.after, way.blockers.size() + (way.from.z() < -0.5 ? kTurnOver : 0));
        };
        return *std::min_element(ways.begin(), ways.end(),
                                 [&](const Reach &a, const Reach &b) { return cost(a) < cost(b); });
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
        op.place = placeOf(thing);
        op.sort = fmt::format("{} {}", int(kind), end.part);
        // What is stuck down is soldered before, in the hand.
        op.inHand = !reach.after || (soldering && isStuck(part->fastening.method));
        op.side = op.inHand ? 0 : sideOf(reach.from);
        const std::size_t own = opOf_[std::size_t(thing)], at = add(std::move(op));
        if (result_.operations[at].inHand) {
            before(at, own, reach.after ? BeforeReason::heat : BeforeReason::tool, end.part, end.part);
            if (!reach.after && kind != OperationKind::solder) {
                PlanRemark remark;
                remark.kind = RemarkKind::covered;
                remark.subjects = {end.part, build_.wires[wires.front()].id};
                result_.remarks.push_back(std::move(remark));
            }
        } else {
            before(own, at, BeforeReason::joint, end.part, end.part);
            for (const int blocker : reach.blockers)
                before(at, opOf_[std::size_t(blocker)], BeforeReason::tool, end.part, idOf(blocker));
        }
        if (soldering) keepFromHeat(at, X_FramePart * port->position_mm, end.part);
    }
    void keepFromHeat(std::size_t joint, const Vec3 &at_mm, const std::string &part) {
        std::optional<std::pair<double, int>> harmed;
        for (std::size_t t = 0; t < things_.size(); ++t) {
            const Part *other = findPart(build_, things_[t].id);
            if (!other || other->id == part || !isStuck(other->fastening.method) || isPack(other->id)) continue;
            const double away_mm = graph_.distanceTo(int(t), at_mm);
            if (away_mm >= practice_[Limit::solderClear]) continue;
            if (!before(joint, opOf_[t], BeforeReason::heat, part, other->id) && (!harmed || away_mm < harmed->first))
                harmed = {away_mm, int(t)};
        }
        if (!harmed) return;
        PlanRemark remark;
        remark.kind = RemarkKind::heat;
        remark.subjects = {part, idOf(harmed->second)};
        remark.value = harmed->first;
        result_.remarks.push_back(std::move(remark));
    }

    // -- ties, gates, own --

    void tieWires() {
        std::map<bool, std::set<std::string>> ties; ///< of motors' leads alone, of all others
        for (const auto &tie : build_.ties) {
            bool phases = true, any = false;
            for (std::size_t w = 0; w < derived_.routes->size() && w < build_.wires.size(); ++w)
                for (const auto &support : (*derived_.routes)[w].supports)
                    if (support.kind == SupportKind::tie && support.id == tie.id) {
                        any = true;
                        phases &= derived_.wiring->wires[w].role == WireRole::phase;
                    }
            ties[any && phases].insert(tie.id);
        }
        for (const auto &[phases, ids] : ties) {
            Operation op;
            op.id = phases ? "tie:motors" : "tie:wires";
            op.kind = OperationKind::tie;
            op.tool = Tool::ties;
            op.things.assign(ids.begin(), ids.end());
            op.minutes = kTieMinutes * double(ids.size());
            op.place = phases ? "arms" : "frame";
            (phases ? tiedMotors_ : tiedWires_) = add(std::move(op));
        }
        if (!tiedWires_) return;
        for (std::size_t i = 0; i < result_.operations.size(); ++i)
            for (const auto &joint : result_.operations[i].joints)
                if (!joint.part.empty()) before(i, *tiedWires_, BeforeReason::process, joint.part, joint.part);
    }
    /// The power train: packs' plug, distribution, speed controllers, motors, capacitors.
    bool isTrain(const Wire &wire, std::size_t index) const {
        const WireRole role = derived_.wiring->wires[index].role;
        if (role == WireRole::phase) return true;
        if (role != WireRole::power) return false;
        auto inTrain = [&](const std::string &id) {
            const Part *part = findPart(build_, id);
            const PartType *type = part ? typeOf(build_, *part) : nullptr;
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
        return inTrain(wire.from.part) && inTrain(wire.to.part);
    }
    std::size_t gate(Gate kind, std::string id) {
        Operation op;
        op.id = std::move(id);
        op.kind = OperationKind::check;
        op.gate = kind;
        op.tool = Tool::meter;
        op.minutes = kind == Gate::rails ? kRailMinutes : kCheckMinutes;
        op.place = "bench";
        return add(std::move(op));
    }
    /// Regulators that are no part of the power train are powered alone, each part of them, and measured before their
    /// loads hang on them.
    std::vector<std::size_t> railGates(std::size_t joints) {
        std::map<std::string, std::set<std::string>> loads, feeds; ///< wires, by the part that gives
        const auto &rails = derived_.power->rails;
        auto idOfWire = [&](int w) { return build_.wires[std::size_t(w)].id; };
        for (const auto &rail : rails) {
            if (rail.output == "BAT" || rail.output == "USB" || graph_.find(rail.part) < 0) continue;
            const PartType *type = typeOf(build_, *findPart(build_, rail.part));
            if (!type || isMeasuredWithTheTrain(type->kind)) continue;
            for (const auto &load : rail.loads)
                for (const int w : load.wires) loads[rail.part].insert(idOfWire(w));
            for (const auto &source : rails)
                for (const auto &load : source.loads)
                    if (load.part == rail.part)
                        for (const int w : load.wires) feeds[rail.part].insert(idOfWire(w));
        }
        auto about = [](const Operation &op, const std::set<std::string> &wires) {
            return op.kind != OperationKind::prepare &&
                   std::any_of(op.joints.begin(), op.joints.end(),
                               [&](const JointEnd &joint) { return wires.contains(joint.wire); });
        };
        std::vector<std::size_t> gates;
        for (const auto &[part, wires] : loads) {
            const std::size_t measured = gate(Gate::rails, "check:rails." + part);
            result_.operations[measured].onto = {part};
            gates.push_back(measured);
            const auto &in = feeds[part];
            for (std::size_t i = 0; i < joints; ++i)
                if (about(result_.operations[i], in))
                    before(i, measured, BeforeReason::process, result_.operations[i].joints.front().part, part);
            for (std::size_t i = 0; i < joints; ++i)
                if (about(result_.operations[i], wires) && !about(result_.operations[i], in))
                    before(measured, i, BeforeReason::process, part, result_.operations[i].joints.front().part);
        }
        return gates;
    }
    void gates() {
        const std::size_t count = result_.operations.size();
        std::set<std::string> train;
        for (std::size_t w = 0; w < build_.wires.size(); ++w)
            if (isTrain(build_.wires[w], w)) train.insert(build_.wires[w].id);
        auto ofTrain = [&](const Operation &op) {
            return std::any_of(op.joints.begin(), op.joints.end(),
                               [&](const JointEnd &joint) { return train.contains(joint.wire); });
        };
        const std::size_t first = gate(Gate::train, "check:train");
        const auto rails = railGates(count);
        const std::size_t end = gate(Gate::end, "check:end"), flight = gate(Gate::flight, "check:flight");
        for (const std::size_t measured : rails) {
            before(first, measured, BeforeReason::process, "check:train", "check:rails");
            before(measured, end, BeforeReason::process, "check:rails", "check:end");
        }
        for (std::size_t i = 0; i < count; ++i) {
            const Operation &op = result_.operations[i];
            if (!op.joints.empty() && op.kind != OperationKind::prepare && ofTrain(op))
                before(i, first, BeforeReason::process, op.joints.front().part, "check:train");
        }
        for (std::size_t i = 0; i < count; ++i) {
            const Operation op = result_.operations[i];
            const std::string what = !op.things.empty()  ? op.things.front()
                                     : op.joints.empty() ? std::string()
                                                         : op.joints.front().part;
            if (tiedMotors_ == i) { // tied when they turn the right way
                before(end, i, BeforeReason::process, "check:end", what);
                before(i, flight, BeforeReason::process, what, "check:flight");
                continue;
            }
            if (op.kind != OperationKind::prepare && !op.joints.empty() && !ofTrain(op))
                before(first, i, BeforeReason::process, "check:train", what);
            if (op.atTheEnd) {
                before(end, i, BeforeReason::process, "check:end", what);
                before(i, flight, BeforeReason::process, what, "check:flight");
            } else {
                before(i, end, BeforeReason::process, what, "check:end");
            }
        }
        before(first, end, BeforeReason::process, "check:train", "check:end");
        before(end, flight, BeforeReason::process, "check:end", "check:flight");
    }
    std::optional<std::size_t> find(const std::string &id) const {
        for (std::size_t i = 0; i < result_.operations.size(); ++i)
            if (result_.operations[i].id == id) return i;
        return std::nullopt;
    }
    void ownSteps() {
        for (const auto &own : build_.ownSteps) {
            Operation op;
            op.id = own.id;
            op.kind = OperationKind::own;
            op.minutes = 1;
            add(std::move(op));
        }
        for (const auto &own : build_.ownSteps)
            if (const auto after = find(own.after)) {
                const std::size_t at = *find(own.id);
                before(*after, at, BeforeReason::own, own.after, own.id);
            }
    }
    /// Against a reason only with a note, and then that reason alone gives way.
    void ownOrder() {
        for (const auto &wish : build_.ownOrder) {
            const auto first = find(wish.step), second = find(wish.before);
            if (!first || !second) continue;
            if (before(*first, *second, BeforeReason::own, wish.step, wish.before) || wish.note.empty()) continue;
            if (!keeper_.isDirect(*second, *first)) continue;
            keeper_.drop(*second, *first);
            if (!before(*first, *second, BeforeReason::own, wish.step, wish.before)) continue;
            PlanRemark remark;
            remark.kind = RemarkKind::byHand;
            const auto &a = result_.operations[*first], &b = result_.operations[*second];
            for (const Operation *op : {&a, &b})
                remark.subjects.push_back(!op->things.empty()   ? op->things.front()
                                          : !op->joints.empty() ? op->joints.front().part
                                                                : op->id);
            remark.note = wish.note;
            result_.remarks.push_back(std::move(remark));
        }
    }

    const Build &build_;
    const Practice &practice_;
    const Derived &derived_;
    BlockingGraph &graph_;
    const std::vector<Thing> &things_;
    const PutTogether &together_;
    std::vector<std::size_t> opOf_; ///< by thing
    OrderKeeper keeper_;
    OperationGraph result_;
    std::optional<std::size_t> tiedWires_, tiedMotors_;
};

} // namespace

OperationGraph operationsOf(const Build &build, const Practice &practice, const Derived &derived, BlockingGraph &graph,
                            const PutTogether &together) {
    return Maker(build, practice, derived, graph, together).make();
}

} // namespace waxis
