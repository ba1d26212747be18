// What is drawn. Reflected current of a regulator: I_out V_out / (V_in eta), or I_out for a linear one; an input of
// constant power takes I_stated V_stated / V.
#include "core/power/circuit.h"

#include "core/power/worst_cases.h"
#include "core/wiring/core_gauge.h"
#include "core/wiring/gauge.h"

#include <algorithm>
#include <cmath>

namespace waxis {

bool drawsNothing(const PartType &type) {
    switch (type.kind) {
    case PartKind::powerPlug:
    case PartKind::distributionBoard:
    case PartKind::capacitor:
    case PartKind::battery:
    case PartKind::motor:
    case PartKind::mount:
    case PartKind::inlinePart:
    case PartKind::powerSwitch:
    case PartKind::powerBank:
    case PartKind::heatSink:
    case PartKind::guard: return true;
    case PartKind::currentSensor:
        return !type.electrical || (!type.electrical->typical_A.known() && type.electrical->outputs.empty());
    default: return false;
    }
}

static bool drivesMotors(PartKind kind) { return kind == PartKind::esc || kind == PartKind::fourInOneEsc; }

Circuit::Circuit(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                 const std::vector<CaseBalance> &balance, const std::vector<double> &cut_mm, const PowerNets *nets)
    : build_(build), practice_(practice), loadCases_(loadCases), balance_(balance), cut_mm_(cut_mm) {
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        types_.push_back(typeOf(build, build.parts[i]));
        partIndex_.emplace(build.parts[i].id, int(i));
        on_.push_back(casesSwitchedOn(build.parts[i], loadCases));
    }
    for (const auto &wire : build.wires) roles_.push_back(roleOf(build, wire));
    report_.nets = nets ? *nets : powerNets(build);
    report_.wires.resize(build.wires.size());
}

PowerReport Circuit::work() {
    findSources();
    double nominal_V = 0; // of the first pack that flies
    for (const auto &b : balance_)
        for (const auto &rail : report_.rails)
            if (nominal_V == 0 && rail.part == b.loadCase.battery) nominal_V = rail.nominal_V;
    if (nominal_V > 0) findMotors(nominal_V);
    drawInAllCases();
    tellPhases();
    finishRails();
    findUnfed();
    workHover();
    return std::move(report_);
}

/// One load case after the other, and of each rail, wire and passage the worst.
void Circuit::drawInAllCases() {
    const std::size_t count = std::min(loadCases_.size(), kMostLoadCases);
    const bool allOff = std::none_of(loadCases_.begin(), loadCases_.end(),
                                     [](const LoadCase &c) { return c.kind != LoadCaseKind::carried; });
    report_.supplies.resize(loadCases_.size());
    for (auto &rail : report_.rails) rail.typicalByCase_A.assign(loadCases_.size(), 0);
    WorstCases worst{report_.rails, std::vector<WireCurrent>(report_.wires.size()), {}};
    for (case_ = 0; case_ < count; ++case_) {
        const bool off = loadCases_[case_].kind == LoadCaseKind::carried && !allOff;
        gives_.clear();
        for (std::size_t r = 0; r < report_.rails.size(); ++r)
            if (gives(int(r))) worst.rails[r].cases |= CaseMask(1) << case_;
        if (off) continue;
        drawOneCase();
        tellCase();
        worst.take(report_, case_);
    }
    report_.rails = std::move(worst.rails);
    report_.wires = std::move(worst.wires);
    report_.passages = std::move(worst.passages);
}

void Circuit::drawOneCase() {
    drawn_.clear();
    report_.passages.clear();
    report_.wires.assign(report_.wires.size(), {});
    for (std::size_t r = 0; r < report_.rails.size(); ++r) draw(int(r));
    shareBetweenPacks();
}

/// Own current of a part and what its outputs ask, seen from the rail. Typical at nominal voltage; the peak of what
/// draws constant power at the lowest.
void Circuit::fillLoad(int part, const Rail &rail, RailLoad &load) {
    const PartType &type = typeAt(part);
    if (const auto motors = motorsOfEsc_.find(part); motors != motorsOfEsc_.end()) {
        // On the ground they stand still; in the first case that hovers their currents are its own.
        for (const std::size_t m : motors->second) {
            if (!loadCases_[case_].flies()) break;
            load.typical_A += report_.motors[m].hover_A;
            load.peak_A += report_.motors[m].full_A;
        }
        load.known = true;
    }
    if (!type.electrical) return;
    const auto &e = *type.electrical;
    load.least_V = e.supplyMin_V;
    load.most_V = e.supplyMax_V;
    load.known |= e.typical_A.known() || !e.outputs.empty();
    double typical = e.typical_A.value.value_or(0), peak = std::max(typical, e.peak_A.value.value_or(typical));
    // A speed controller's own peak is that of its motors, which are counted one by one.
    if (drivesMotors(type.kind)) peak = typical;
    if (e.draw == Draw::constantPower && e.drawnAt_V && rail.nominal_V > 0 && rail.least_V > 0) {
        typical *= *e.drawnAt_V / rail.nominal_V;
        peak *= *e.drawnAt_V / rail.least_V;
    }
    load.typical_A += typical;
    load.peak_A += peak;
    if (type.kind == PartKind::battery) return;
    for (std::size_t r = 0; r < report_.rails.size(); ++r) {
        const Rail &own = report_.rails[r];
        if (own.part != idAt(part) || own.output == "USB") continue;
        if (rail.output == "USB" && own.nominal_V > rail.most_V) continue;
        const Drawn out = draw(int(r));
        const auto output =
            std::find_if(e.outputs.begin(), e.outputs.end(), [&](const PowerOutput &o) { return o.id == own.output; });
        const auto share = [&](double volts) {
            return output->efficiency && volts > 0 ? output->voltage_V / (volts * *output->efficiency) : 1.0;
        };
        // By its USB socket a part hands on what comes in.
        load.typical_A += out.typical_A * (rail.output == "USB" ? 1 : share(rail.nominal_V));
        load.peak_A += out.peak_A * (rail.output == "USB" ? 1 : share(rail.least_V));
    }
}

/// Follows the copper from a source and gathers who draws on it.
Drawn Circuit::draw(int index) {
    if (const auto known = drawn_.find(index); known != drawn_.end()) return known->second;
    Rail &own = report_.rails[std::size_t(index)];
    own.loads.clear();
    own.typical_A = own.peak_A = 0;
    if (!gives(index) || !onTheWay_.insert(index).second) return {};
    const int source = sourceNode_[std::size_t(index)];
    const auto &nets = report_.nets;
    std::vector<int> order;
    const auto came = reached(source, order);
    Drawn sum;
    std::vector<RailLoad> loads;
    for (const int node : order) {
        const int part = nets.nodes[std::size_t(node)].part;
        const bool own_usb = node == source && own.output == "USB";
        if ((node == source || sourceRail_.contains(node)) && !own_usb) continue;
        if (!types_[std::size_t(part)] || drawsNothing(typeAt(part))) continue;
        RailLoad load;
        load.part = idAt(part);
        load.supply = nets.nodes[std::size_t(node)].supply;
        load.cases = CaseMask(1) << case_;
        fillLoad(part, report_.rails[std::size_t(index)], load);
        load.returns = sharesGround(part, source);
        if (!load.returns) load.typical_A = load.peak_A = 0;
        for (int n = node; came.at(n).node >= 0; n = came.at(n).node) load.wires.push_back(came.at(n).wire);
        std::reverse(load.wires.begin(), load.wires.end());
        sum.typical_A += load.typical_A;
        sum.peak_A += load.peak_A;
        for (int n = node; came.at(n).node >= 0; n = came.at(n).node) {
            const Came &step = came.at(n);
            WireCurrent &current = report_.wires[std::size_t(step.wire)];
            current.known = true;
            current.typical_A += load.typical_A;
            current.peak_A += load.peak_A;
            const int before = nets.nodes[std::size_t(step.node)].part;
            current.way = build_.wires[std::size_t(step.wire)].from.part == idAt(before) ? 1 : -1;
            pass(step.node, load);
        }
        loads.push_back(std::move(load));
    }
    onTheWay_.erase(index);
    drawn_.emplace(index, sum);
    Rail &rail = report_.rails[std::size_t(index)];
    rail.typical_A = sum.typical_A;
    rail.peak_A = sum.peak_A;
    rail.loads = std::move(loads);
    return sum;
}

/// Whether current goes through the part from one port to another: plugs and boards, and whatever states a current and
/// has the supply on two ports. A speed controller's own figure is that of its motors.
static bool isPassage(const PartType &type, const std::string &supply) {
    if (type.kind == PartKind::powerPlug || type.kind == PartKind::distributionBoard) return true;
    if (!type.electrical || !type.electrical->continuous_A || drivesMotors(type.kind) || type.kind == PartKind::battery)
        return false;
    return std::count_if(type.ports.begin(), type.ports.end(), [&](const Port &port) {
               for (std::size_t p = 0; p < port.pins.size(); ++p)
                   if (supplyName(signalAt(type, port, p)) == supply) return true;
               return false;
           }) >= 2;
}

void Circuit::pass(int node, const RailLoad &load) {
    const PowerNode &at = report_.nets.nodes[std::size_t(node)];
    if (!isPassage(typeAt(at.part), at.supply)) return;
    const std::string &id = idAt(at.part);
    auto passage =
        std::find_if(report_.passages.begin(), report_.passages.end(), [&](const Passage &p) { return p.part == id; });
    if (passage == report_.passages.end()) {
        const auto &e = typeAt(at.part).electrical;
        report_.passages.push_back({id, 0, 0, e ? e->continuous_A : std::nullopt});
        passage = report_.passages.end() - 1;
    }
    passage->typical_A += load.typical_A;
    passage->peak_A += load.peak_A;
}

/// Packs that take turns feed the same copper: what they draw is the same current, not twice as much.
void Circuit::shareBetweenPacks() {
    std::map<int, int> packsOfNet;
    for (std::size_t r = 0; r < report_.rails.size(); ++r)
        if (report_.rails[r].output == "BAT" && gives(int(r)))
            ++packsOfNet[report_.nets.net[std::size_t(sourceNode_[r])]];
    for (std::size_t w = 0; w < report_.wires.size(); ++w) {
        const Wire &wire = build_.wires[w];
        const auto from = partIndex_.find(wire.from.part), to = partIndex_.find(wire.to.part);
        if (from == partIndex_.end() || to == partIndex_.end()) continue;
        for (const auto &core : wire.cores) {
            const int node = report_.nets.find(from->second, supplyName(signalAt(build_, wire.from, core.fromPin)));
            if (node < 0 || report_.nets.nodes[std::size_t(node)].supply == "GND") continue;
            const auto packs = packsOfNet.find(report_.nets.net[std::size_t(node)]);
            if (packs == packsOfNet.end() || packs->second < 2) break;
            const bool own =
                typeAt(from->second).kind == PartKind::battery || typeAt(to->second).kind == PartKind::battery;
            if (!own) {
                report_.wires[w].typical_A /= packs->second;
                report_.wires[w].peak_A /= packs->second;
            }
            break;
        }
    }
    for (auto &passage : report_.passages) {
        const int node = report_.nets.find(partIndex_.at(passage.part), "BAT");
        const auto packs = node < 0 ? packsOfNet.end() : packsOfNet.find(report_.nets.net[std::size_t(node)]);
        if (packs == packsOfNet.end() || packs->second < 2) continue;
        passage.typical_A /= packs->second;
        passage.peak_A /= packs->second;
    }
}

void Circuit::finishRails() {
    for (auto &rail : report_.rails) {
        for (auto &load : rail.loads)
            for (const int w : load.wires) {
                const Wire &wire = build_.wires[std::size_t(w)];
                const double length = std::size_t(w) < cut_mm_.size() ? cut_mm_[std::size_t(w)] : 0;
                int gauge = 0;
                for (const auto &core : wire.cores)
                    if (signalAt(build_, wire.from, core.fromPin).kind == SignalKind::supply)
                        gauge = gaugeOf(build_, wire, core);
                if (gauge == 0) continue;
                load.drop_V += loopDrop(gauge, length, report_.wires[std::size_t(w)].typical_A).drop_V;
                load.peakDrop_V += loopDrop(gauge, length, report_.wires[std::size_t(w)].peak_A).drop_V;
            }
        if (rail.output != "BAT" && rail.output != "USB") findHeat(rail);
    }
}

void Circuit::findHeat(Rail &rail) {
    // What feeds the regulator: the rail on which its part is a load.
    double in_V = 0;
    for (const auto &other : report_.rails)
        for (const auto &load : other.loads)
            if (load.part == rail.part && other.id() != rail.id() && rail.feeds.empty()) {
                rail.feeds = other.id();
                in_V = other.most_V;
            }
    const PartType &type = typeAt(partIndex_.at(rail.part));
    for (const auto &output : type.electrical->outputs) {
        if (output.id != rail.output) continue;
        if (output.efficiency)
            rail.heat_W = rail.typical_A * output.voltage_V * (1 / *output.efficiency - 1);
        else if (in_V > output.voltage_V) {
            // A 3.3 V output without efficiency sits behind the board's own 5 V regulator where there is one.
            double before_V = in_V;
            for (const auto &sibling : type.electrical->outputs)
                if (sibling.efficiency && sibling.voltage_V > output.voltage_V)
                    before_V = std::min(before_V, sibling.voltage_V);
            rail.heat_W = (before_V - output.voltage_V) * rail.typical_A;
        }
    }
}

/// Parts with a supply pin that they give to nobody; payload cameras bring a battery of their own.
bool Circuit::wantsSupply(int part) const {
    const PartType *type = types_[std::size_t(part)];
    if (!type || drawsNothing(*type) || type->kind == PartKind::payloadCamera) return false;
    return std::any_of(report_.nets.nodes.begin(), report_.nets.nodes.end(), [&](const PowerNode &n) {
        return n.part == part && n.supply != "GND" && n.supply != "BZ-" && n.supply != "USB" &&
               !outputOf(*type, n.supply);
    });
}

void Circuit::findUnfed() {
    std::set<std::string> fed;
    for (const auto &rail : report_.rails)
        for (const auto &load : rail.loads) fed.insert(load.part);
    for (std::size_t i = 0; i < build_.parts.size(); ++i)
        if (wantsSupply(int(i)) && !fed.contains(build_.parts[i].id)) report_.unfed.push_back(build_.parts[i].id);
}

/// Who lives in the case that was just worked out.
void Circuit::tellCase() {
    std::set<std::string> fed;
    for (const auto &rail : report_.rails)
        for (const auto &load : rail.loads)
            if (load.returns) fed.insert(load.part);
    CaseSupply &supply = report_.supplies[case_];
    for (std::size_t i = 0; i < build_.parts.size(); ++i)
        if (wantsSupply(int(i)) && isHere(int(i)))
            (fed.contains(build_.parts[i].id) ? supply.alive : supply.dark).push_back(build_.parts[i].id);
}

} // namespace waxis
