// Hover and full-thrust current: P = T^1.5 / sqrt(2 rho A) / FM / eta, I = P / V. Reflected current of a regulator:
// I_out V_out / (V_in eta), or I_out for a linear one.
#include "core/power/power_report.h"

#include "core/balance/case_balance.h"
#include "core/base/units.h"
#include "core/power/hover.h"
#include "core/power/worst_cases.h"
#include "core/wiring/core_gauge.h"
#include "core/wiring/gauge.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <set>

namespace waxis {

CellVolts cellVolts(const Electrical &pack) {
    CellVolts volts;
    volts.full_V = pack.cellFull_V.value_or(4.2);
    if (volts.full_V > 4.25) volts.nominal_V = 3.8;
    return volts;
}

RailTap tapOf(const Build &build, const PowerReport &power, const Rail &rail) {
    if (rail.output == "BAT") {
        for (const auto &node : power.nets.nodes) {
            const Part &part = build.parts[std::size_t(node.part)];
            const PartType *board = typeOf(build, part);
            if (node.supply == "BAT" && board &&
                (board->kind == PartKind::distributionBoard || board->kind == PartKind::fourInOneEsc))
                return {part.id, "BAT"};
        }
        return {};
    }
    for (const auto &node : power.nets.nodes) {
        const Part &part = build.parts[std::size_t(node.part)];
        if (part.id != rail.part) continue;
        if (const PowerOutput *output = outputOf(*typeOf(build, part), node.supply);
            output && output->id == rail.output)
            return {part.id, node.supply};
    }
    return {};
}

namespace {

struct Circuit {
    const Build &build;
    const Practice &practice;
    const std::vector<CaseBalance> &balance;
    const std::vector<double> &cut_mm;
    PowerReport report;
    std::vector<const PartType *> types;
    std::vector<WireRole> roles; ///< by Build::wires
    std::map<std::string, int, std::less<>> partIndex;
    std::map<int, std::vector<std::size_t>> motorsOfEsc; ///< part index of ESC: indices in report.motors
    std::map<int, int> sourceRail;                       ///< node: rail
    std::set<int> onTheWay;                              ///< rails being worked out: guards against circles
    std::map<int, std::pair<double, double>> drawn;      ///< rail: typical and peak, worked out

    void indexParts() {
        for (std::size_t i = 0; i < build.parts.size(); ++i) {
            types.push_back(typeOf(build, build.parts[i]));
            partIndex.emplace(build.parts[i].id, int(i));
        }
        for (const auto &wire : build.wires) roles.push_back(roleOf(wire));
    }

    double density() const { return standardAir(practice[Limit::flyingHeight]).density_kg_m3; }
    double electric_W(double thrust_N, double diameter_mm, double merit) const {
        if (!(thrust_N > 0) || !(diameter_mm > 0)) return 0;
        return rotorPower(thrust_N, diameter_mm, density(), merit).shaft_W / (practice[Limit::driveEfficiency] / 100);
    }
    double merit() const { return practice[Limit::figureOfMerit] / 100; }

    void findMotors(double nominal_V) {
        const auto coaxial = coaxialShares(build.frame->motorMounts);
        const CaseBalance *hovering = nullptr;
        for (const auto &b : balance)
            if (!hovering && !b.hover.thrusts_N.empty() && b.loadCase.flies() && !b.loadCase.battery.empty())
                hovering = &b;
        const auto &mounts = build.frame->motorMounts;
        for (std::size_t m = 0; m < mounts.size(); ++m)
            for (std::size_t i = 0; i < build.parts.size(); ++i) {
                if (build.parts[i].placement.site != mounts[m].id || !types[i] || types[i]->kind != PartKind::motor)
                    continue;
                MotorCurrent motor{mounts[m].id, build.parts[i].id, {}, 0, 0};
                for (std::size_t w = 0; w < build.wires.size(); ++w) {
                    const Wire &wire = build.wires[w];
                    if (roles[w] != WireRole::phase) continue;
                    if (wire.from.part == motor.motor) motor.esc = wire.to.part;
                    if (wire.to.part == motor.motor) motor.esc = wire.from.part;
                }
                const double diameter = mounts[m].propDiameter_mm;
                if (hovering)
                    motor.hover_A =
                        coaxial[m].usual * electric_W(hovering->hover.thrusts_N[m], diameter, merit()) / nominal_V;
                if (types[i]->electrical && types[i]->electrical->peak_A.known())
                    motor.full_A = *types[i]->electrical->peak_A.value;
                else if (types[i]->maxThrust_gf.known())
                    motor.full_A =
                        electric_W(newtonsFromGrams(*types[i]->maxThrust_gf.value), diameter, merit()) / nominal_V;
                if (const auto esc = partIndex.find(motor.esc); esc != partIndex.end())
                    motorsOfEsc[esc->second].push_back(report.motors.size());
                report.motors.push_back(motor);
            }
    }

    void findSources() {
        const auto &nodes = report.nets.nodes;
        auto addRail = [&](int node, Rail rail) {
            sourceRail.emplace(node, int(report.rails.size()));
            report.rails.push_back(std::move(rail));
        };
        for (std::size_t n = 0; n < nodes.size(); ++n) {
            const PartType *type = types[std::size_t(nodes[n].part)];
            if (type->kind != PartKind::battery || nodes[n].supply != "BAT" || !type->electrical) continue;
            Rail rail;
            rail.part = build.parts[std::size_t(nodes[n].part)].id;
            rail.output = "BAT";
            const CellVolts volts = cellVolts(*type->electrical);
            const int cells = type->electrical->cells.value_or(0);
            rail.least_V = cells * volts.empty_V;
            rail.nominal_V = cells * volts.nominal_V;
            rail.most_V = cells * volts.full_V;
            rail.limit_A = type->electrical->continuous_A;
            addRail(int(n), std::move(rail));
        }
        for (std::size_t n = 0; n < nodes.size(); ++n) {
            const PowerOutput *output = outputOf(*types[std::size_t(nodes[n].part)], nodes[n].supply);
            if (!output) continue;
            Rail rail;
            rail.part = build.parts[std::size_t(nodes[n].part)].id;
            rail.output = output->id;
            rail.least_V = rail.nominal_V = rail.most_V = output->voltage_V;
            rail.limit_A = output->limit_A;
            addRail(int(n), std::move(rail));
        }
        for (auto &rail : report.rails) {
            const Part *part = findPart(build, rail.part);
            rail.cases = casesAboard(*part, loadCases());
        }
    }
    const std::vector<LoadCase> &loadCases() const { return *loadCases_; }
    const std::vector<LoadCase> *loadCases_ = nullptr;
    std::vector<CaseMask> aboard_ = {}; ///< by part
    std::size_t case_ = 0;              ///< that is worked out

    bool isHere(int part) const { return aboard_[std::size_t(part)] >> case_ & 1; }

    /// One load case after the other, and of each rail, wire and passage the worst.
    void drawInAllCases() {
        for (const auto &part : build.parts) aboard_.push_back(casesAboard(part, loadCases()));
        const std::size_t count = std::min(loadCases().size(), kMostLoadCases);
        const bool allOff = std::none_of(loadCases().begin(), loadCases().end(),
                                         [](const LoadCase &c) { return c.kind != LoadCaseKind::carried; });
        for (auto &rail : report.rails) rail.typicalByCase_A.assign(loadCases().size(), 0);
        WorstCases worst{report.rails, std::vector<WireCurrent>(report.wires.size()), {}};
        for (case_ = 0; case_ < count; ++case_) {
            if (loadCases()[case_].kind == LoadCaseKind::carried && !allOff) continue;
            drawOneCase();
            worst.take(report, case_);
        }
        report.rails = std::move(worst.rails);
        report.wires = std::move(worst.wires);
        report.passages = std::move(worst.passages);
    }

    void drawOneCase() {
        drawn.clear();
        report.passages.clear();
        report.wires.assign(report.wires.size(), {});
        for (std::size_t r = 0; r < report.rails.size(); ++r) draw(int(r));
        shareBetweenPacks();
    }

    static bool drawsNothing(PartKind kind) {
        return kind == PartKind::powerPlug || kind == PartKind::distributionBoard || kind == PartKind::capacitor ||
               kind == PartKind::battery || kind == PartKind::motor || kind == PartKind::mount;
    }

    /// Own current of a part and what its outputs ask, seen at `volts`.
    void fillLoad(int part, double volts, RailLoad &load) {
        const PartType &type = *types[std::size_t(part)];
        if (const auto motors = motorsOfEsc.find(part); motors != motorsOfEsc.end()) {
            // On the ground they stand still; in the first case that hovers their currents are its own.
            for (const std::size_t m : motors->second) {
                if (!loadCases()[case_].flies()) break;
                load.typical_A += report.motors[m].hover_A;
                load.peak_A += report.motors[m].full_A;
            }
            load.known = true;
        }
        const bool esc = type.kind == PartKind::esc || type.kind == PartKind::fourInOneEsc;
        if (type.electrical) {
            const auto &e = *type.electrical;
            load.least_V = e.supplyMin_V;
            load.most_V = e.supplyMax_V;
            const double typical = e.typical_A.value.value_or(0);
            load.known |= e.typical_A.known() || !e.outputs.empty();
            load.typical_A += typical;
            // A speed controller's own peak is that of its motors, which are counted one by one.
            load.peak_A += esc ? typical : std::max(typical, e.peak_A.value.value_or(typical));
            for (std::size_t r = 0; r < report.rails.size(); ++r) {
                if (report.rails[r].part != build.parts[std::size_t(part)].id || type.kind == PartKind::battery)
                    continue;
                const auto [typicalOut, peakOut] = draw(int(r));
                const auto output = std::find_if(e.outputs.begin(), e.outputs.end(),
                                                 [&](const PowerOutput &o) { return o.id == report.rails[r].output; });
                const double share = output->efficiency ? output->voltage_V / (volts * *output->efficiency) : 1.0;
                load.typical_A += typicalOut * share;
                load.peak_A += peakOut * share;
            }
        }
        if (esc && motorsOfEsc.contains(part)) load.known = true;
    }

    /// Whether a part's ground is joined to that of the source; parts or sources without a ground pin are not asked.
    bool sharesGround(int part, int sourceNode) const {
        const auto &nets = report.nets;
        const int own = nets.find(part, "GND"), back = nets.find(nets.nodes[std::size_t(sourceNode)].part, "GND");
        if (own < 0 || back < 0 || nets.net[std::size_t(own)] == nets.net[std::size_t(back)]) return true;
        // A buzzer's minus is switched by the controller.
        for (std::size_t n = 0; n < nets.nodes.size(); ++n)
            if (nets.nodes[n].supply == "BZ-" && nets.net[n] == nets.net[std::size_t(own)]) return true;
        return false;
    }

    /// Follows the copper from a source and gathers who draws on it.
    std::pair<double, double> draw(int railIndex) {
        if (const auto known = drawn.find(railIndex); known != drawn.end()) return known->second;
        Rail &own = report.rails[std::size_t(railIndex)];
        own.loads.clear();
        own.typical_A = own.peak_A = 0;
        if (!isHere(partIndex.at(own.part))) return {0, 0};
        if (!onTheWay.insert(railIndex).second) return {0, 0};
        const auto source = std::find_if(sourceRail.begin(), sourceRail.end(),
                                         [&](const auto &entry) { return entry.second == railIndex; });
        const auto &nets = report.nets;
        struct Came {
            int node = -1, wire = -1, core = -1;
        };
        std::map<int, Came> came{{source->first, {}}};
        std::vector<int> order{source->first};
        for (std::size_t at = 0; at < order.size(); ++at)
            for (const auto &edge : nets.edges[std::size_t(order[at])])
                if (isHere(nets.nodes[std::size_t(edge.other)].part) &&
                    came.emplace(edge.other, Came{order[at], edge.wire, edge.core}).second)
                    order.push_back(edge.other);
        std::pair<double, double> sum{0, 0};
        std::vector<RailLoad> loads;
        for (const int node : order) {
            const int part = nets.nodes[std::size_t(node)].part;
            if (node == source->first || sourceRail.contains(node) || !types[std::size_t(part)] ||
                drawsNothing(types[std::size_t(part)]->kind))
                continue;
            RailLoad load;
            load.part = build.parts[std::size_t(part)].id;
            load.supply = nets.nodes[std::size_t(node)].supply;
            load.cases = CaseMask(1) << case_;
            fillLoad(part, report.rails[std::size_t(railIndex)].nominal_V, load);
            load.returns = sharesGround(part, source->first);
            if (!load.returns) load.typical_A = load.peak_A = 0;
            for (int n = node; came[n].node >= 0; n = came[n].node) load.wires.push_back(came[n].wire);
            std::reverse(load.wires.begin(), load.wires.end());
            sum.first += load.typical_A;
            sum.second += load.peak_A;
            for (int n = node; came[n].node >= 0; n = came[n].node) {
                WireCurrent &current = report.wires[std::size_t(came[n].wire)];
                current.known = true;
                current.typical_A += load.typical_A;
                current.peak_A += load.peak_A;
                const int before = nets.nodes[std::size_t(came[n].node)].part;
                current.way =
                    build.wires[std::size_t(came[n].wire)].from.part == build.parts[std::size_t(before)].id ? 1 : -1;
                pass(came[n].node, load);
            }
            loads.push_back(std::move(load));
        }
        onTheWay.erase(railIndex);
        drawn.emplace(railIndex, sum);
        Rail &rail = report.rails[std::size_t(railIndex)];
        rail.typical_A = sum.first;
        rail.peak_A = sum.second;
        rail.loads = std::move(loads);
        return sum;
    }

    void pass(int node, const RailLoad &load) {
        const int part = report.nets.nodes[std::size_t(node)].part;
        const PartKind kind = types[std::size_t(part)]->kind;
        if (kind != PartKind::powerPlug && kind != PartKind::distributionBoard) return;
        const std::string &id = build.parts[std::size_t(part)].id;
        auto at = std::find_if(report.passages.begin(), report.passages.end(),
                               [&](const Passage &p) { return p.part == id; });
        if (at == report.passages.end()) {
            const auto &e = types[std::size_t(part)]->electrical;
            report.passages.push_back({id, 0, 0, e ? e->continuous_A : std::nullopt});
            at = report.passages.end() - 1;
        }
        at->typical_A += load.typical_A;
        at->peak_A += load.peak_A;
    }

    /// Packs that take turns feed the same copper: what they draw is the same current, not twice as much.
    void shareBetweenPacks() {
        std::map<int, int> packsOfNet;
        for (const auto &[node, rail] : sourceRail)
            if (report.rails[std::size_t(rail)].output == "BAT" &&
                isHere(partIndex.at(report.rails[std::size_t(rail)].part)))
                ++packsOfNet[report.nets.net[std::size_t(node)]];
        for (std::size_t w = 0; w < report.wires.size(); ++w) {
            const Wire &wire = build.wires[w];
            const auto from = partIndex.find(wire.from.part), to = partIndex.find(wire.to.part);
            if (from == partIndex.end() || to == partIndex.end()) continue;
            for (const auto &core : wire.cores) {
                const int node = report.nets.find(from->second, supplyName(signalOf(core.fromPin)));
                if (node < 0 || report.nets.nodes[std::size_t(node)].supply == "GND") continue;
                const auto packs = packsOfNet.find(report.nets.net[std::size_t(node)]);
                if (packs == packsOfNet.end() || packs->second < 2) break;
                const bool own = types[std::size_t(from->second)]->kind == PartKind::battery ||
                                 types[std::size_t(to->second)]->kind == PartKind::battery;
                if (!own) {
                    report.wires[w].typical_A /= packs->second;
                    report.wires[w].peak_A /= packs->second;
                }
                break;
            }
        }
        for (auto &passage : report.passages) {
            const int node = report.nets.find(partIndex.at(passage.part), "BAT");
            const auto packs = node < 0 ? packsOfNet.end() : packsOfNet.find(report.nets.net[std::size_t(node)]);
            if (packs == packsOfNet.end() || packs->second < 2) continue;
            passage.typical_A /= packs->second;
            passage.peak_A /= packs->second;
        }
    }

    void finishRails() {
        for (auto &rail : report.rails) {
            for (auto &load : rail.loads)
                for (const int w : load.wires) {
                    const Wire &wire = build.wires[std::size_t(w)];
                    const double length = std::size_t(w) < cut_mm.size() ? cut_mm[std::size_t(w)] : 0;
                    int gauge = 0;
                    for (const auto &core : wire.cores)
                        if (signalOf(core.fromPin).kind == SignalKind::supply) gauge = gaugeOf(build, wire, core);
                    if (gauge == 0) continue;
                    load.drop_V += loopDrop(gauge, length, report.wires[std::size_t(w)].typical_A).drop_V;
                    load.peakDrop_V += loopDrop(gauge, length, report.wires[std::size_t(w)].peak_A).drop_V;
                }
            if (rail.output == "BAT") continue;
            // What feeds the regulator: the rail on which its part is a load.
            double in_V = 0;
            for (const auto &other : report.rails)
                for (const auto &load : other.loads)
                    if (load.part == rail.part && other.id() != rail.id() && rail.feeds.empty()) {
                        rail.feeds = other.id();
                        in_V = other.most_V;
                    }
            const PartType &type = *types[std::size_t(partIndex.at(rail.part))];
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
    }

    void findUnfed() {
        std::set<std::string> fed;
        for (const auto &rail : report.rails)
            for (const auto &load : rail.loads) fed.insert(load.part);
        for (std::size_t i = 0; i < build.parts.size(); ++i) {
            if (!types[i] || drawsNothing(types[i]->kind) || fed.contains(build.parts[i].id)) continue;
            if (types[i]->kind == PartKind::payloadCamera) continue; // they bring a battery of their own

            const bool needs = std::any_of(report.nets.nodes.begin(), report.nets.nodes.end(), [&](const PowerNode &n) {
                return n.part == int(i) && n.supply != "GND" && n.supply != "BZ-" && !outputOf(*types[i], n.supply);
            });
            if (needs) report.unfed.push_back(build.parts[i].id);
        }
    }

    /// Hover is not worked out for a craft of which a motor is missing, or all of them, or whose controllers have a
    /// plus and no minus.
    bool motorsComplete() const {
        for (const auto &rail : report.rails)
            for (const auto &load : rail.loads)
                if (!load.returns && motorsOfEsc.contains(partIndex.at(load.part))) return false;
        return report.motors.size() >= build.frame->motorMounts.size();
    }

    void workHover() {
        const auto coaxial = coaxialShares(build.frame->motorMounts);
        for (const auto &b : balance) {
            HoverReport hover;
            const Part *pack = findPart(build, b.loadCase.battery);
            const PartType *type = pack ? typeOf(build, *pack) : nullptr;
            const bool able = type && type->electrical && type->electrical->cells && type->electrical->capacity_mAh &&
                              !b.hover.thrusts_N.empty() && b.loadCase.flies() && motorsComplete() &&
                              *std::min_element(b.hover.thrusts_N.begin(), b.hover.thrusts_N.end()) >= 0;
            if (able) {
                hover.pack = pack->id;
                const CellVolts volts = cellVolts(*type->electrical);
                const double nominal_V = *type->electrical->cells * volts.nominal_V;
                double full_W = 0;
                auto power = [&](double figure, double CoaxialShare::*which) {
                    double sum = 0;
                    for (std::size_t m = 0; m < b.hover.thrusts_N.size(); ++m)
                        sum += coaxial[m].*which * electric_W(std::max(0.0, b.hover.thrusts_N[m]),
                                                              build.frame->motorMounts[m].propDiameter_mm, figure);
                    return sum;
                };
                double aside_A = 0; // everything but the motors
                const auto at = std::size_t(&b - balance.data());
                for (const auto &rail : report.rails)
                    if (rail.part == pack->id && at < rail.typicalByCase_A.size()) {
                        aside_A = rail.typicalByCase_A[at];
                        for (const auto &motor : report.motors)
                            if (!motor.esc.empty()) aside_A -= motor.hover_A;
                    }
                aside_A = std::max(0.0, aside_A);
                for (const auto &motor : report.motors) full_W += motor.full_A;
                hover.power_W = power(merit(), &CoaxialShare::usual) + aside_A * nominal_V;
                hover.current_A = hover.power_W / nominal_V;
                if (full_W > 0) hover.full_A = full_W + aside_A;
                const double usable_Ah =
                    *type->electrical->capacity_mAh * 1e-3 * (1 - practice[Limit::packReserve] / 100);
                constexpr double kSpread = 0.1;
                auto minutes = [&](double figure, double CoaxialShare::*which) {
                    return usable_Ah / (power(figure, which) / nominal_V + aside_A) * 60;
                };
                hover.least_min = minutes(std::max(0.2, merit() - kSpread), &CoaxialShare::most);
                hover.most_min = minutes(std::min(1.0, merit() + kSpread), &CoaxialShare::least);
                hover.alarm_V = volts.land_V;
                hover.turnBack_mAh = usable_Ah * 1e3 / 2;
            }
            report.hover.push_back(hover);
        }
    }
};

} // namespace

PowerReport powerReport(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const std::vector<CaseBalance> &balance, const std::vector<double> &cut_mm,
                        const PowerNets *nets) {
    Circuit circuit{build, practice, balance, cut_mm, {}, {}, {}, {}, {}, {}, {}, {}};
    circuit.loadCases_ = &loadCases;
    circuit.indexParts();
    circuit.report.nets = nets ? *nets : powerNets(build);
    circuit.report.wires.resize(build.wires.size());
    circuit.findSources();
    double nominal_V = 0; // of the first pack that flies
    for (const auto &b : balance)
        for (const auto &rail : circuit.report.rails)
            if (nominal_V == 0 && rail.part == b.loadCase.battery) nominal_V = rail.nominal_V;
    if (nominal_V > 0) circuit.findMotors(nominal_V);
    circuit.drawInAllCases();
    // Six-step commutation: each phase conducts two thirds of the time, so its effective current is sqrt(2/3) of the
    // supply's.
    const double kPhase = std::sqrt(2.0 / 3.0);
    for (std::size_t w = 0; w < build.wires.size(); ++w)
        for (const auto &motor : circuit.report.motors)
            if (circuit.roles[w] == WireRole::phase &&
                (build.wires[w].from.part == motor.motor || build.wires[w].to.part == motor.motor))
                circuit.report.wires[w] = {kPhase * motor.hover_A, kPhase * motor.full_A, true, 0};
    circuit.finishRails();
    circuit.findUnfed();
    circuit.workHover();
    return std::move(circuit.report);
}

} // namespace waxis
