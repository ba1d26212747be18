#include "core/sums/read.h"
#include "core/wiring/bundle.h"
#include "core/wiring/gauge.h"

#include <cmath>
#include <fmt/format.h>
#include <limits>

namespace waxis::sums {

namespace {

Sum gaugeSum() {
    Sum sum;
    sum.name = "wire-gauge";
    sum.title = "Copper wire by gauge: size, resistance, mass, current";
    sum.formula = "d = 0.127 x 92^((36 - n)/39) mm; R = L/(58 A); 8.89 g/cm3";
    sum.source = "ASTM B258, IEC 60028; jacket, mass and currents: common practice, no source";
    sum.inputs = {{"awg", "gauge, AWG", "", SumInputKind::gauge, {}, "14"}};
    sum.outputs = {{"d_mm", "conductor diameter", "mm"},
                   {"area_mm2", "conductor area", "mm2"},
                   {"R20_mohm_per_m", "resistance at 20 degrees", "mohm/m"},
                   {"Cu_g_per_m", "copper", "g/m"},
                   {"silicone_OD_mm", "over the silicone jacket", "mm"},
                   {"silicone_g_per_m", "with jacket", "g/m"},
                   {"chassis_A", "carries, chassis wiring", "A"},
                   {"free_air_60K_A", "warms by 60 K in still air", "A"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const int awg = gauge(in, "awg");
        const WireStock *stock = findWireStock(awg);
        constexpr double kNone = std::numeric_limits<double>::quiet_NaN(); // gauges that are not in the stock table
        return SumObject{{"d_mm", awgDiameter_mm(awg)},
                         {"area_mm2", awgArea_mm2(awg)},
                         {"R20_mohm_per_m", awgResistance_mohm_m(awg)},
                         {"Cu_g_per_m", awgCopper_g_m(awg)},
                         {"silicone_OD_mm", stock ? stock->outer_mm : kNone},
                         {"silicone_g_per_m", stock ? stock->mass_g_m : kNone},
                         {"chassis_A", stock ? stock->carries_A : kNone},
                         {"free_air_60K_A", warmingCurrent_A(awg, 60)}};
    };
    return sum;
}

Sum dropSum() {
    Sum sum;
    sum.name = "voltage-drop";
    sum.title = "Voltage lost in a pair of wires there and back";
    sum.formula = "dV = 2 L I rho/A (1 + 0.00393 (T - 20))";
    sum.source = "IEC 60028, ASTM B258";
    sum.inputs = {{"awg", "gauge, AWG", "", SumInputKind::gauge, {}, "14"},
                  {"one_way_m", "length of one wire", "m", SumInputKind::number, {}, "0.12"},
                  {"I_A", "current", "A", SumInputKind::number, {}, "30"},
                  {"T_C", "temperature of the copper", "°C", SumInputKind::number, SumValue(20.0), "20"}};
    sum.outputs = {
        {"R_loop_mohm", "resistance of both wires", "mohm"}, {"drop_V", "lost voltage", "V"}, {"loss_W", "heat", "W"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"one_way_m"})) return Failure{*error};
        if (number(in, "I_A") < 0) return Failure{SumError{"I_A", "must not be negative"}};
        if (number(in, "T_C") < -200) return Failure{SumError{"T_C", "too cold for copper's straight line"}};
        const LoopDrop drop =
            loopDrop(gauge(in, "awg"), number(in, "one_way_m") * 1e3, number(in, "I_A"), number(in, "T_C"));
        return SumObject{{"R_loop_mohm", drop.resistance_mohm}, {"drop_V", drop.drop_V}, {"loss_W", drop.loss_W}};
    };
    return sum;
}

Sum twistSum() {
    Sum sum;
    sum.name = "twist-length";
    sum.title = "How long twisted wires must be cut";
    sum.formula = "factor = sqrt(1 + (pi dc/p)^2)";
    sum.source = "helix geometry";
    sum.inputs = {{"d_centre_mm", "distance of the wires' centres", "mm", SumInputKind::number, {}, "1.7"},
                  {"pitch_mm", "length of one turn", "mm", SumInputKind::number, {}, "20"},
                  {"run_mm", "length of the twisted run", "mm", SumInputKind::number, {}, "100"}};
    sum.outputs = {{"factor", "longer by", ""}, {"wire_mm", "each wire", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"d_centre_mm", "pitch_mm", "run_mm"})) return Failure{*error};
        const double factor = twistFactor(number(in, "d_centre_mm"), number(in, "pitch_mm"));
        return SumObject{{"factor", factor}, {"wire_mm", factor * number(in, "run_mm")}};
    };
    return sum;
}

Sum bundleSum() {
    Sum sum;
    sum.name = "bundle";
    sum.title = "Diameter of a bundle of equal wires";
    sum.formula = "smallest circle round N equal circles";
    sum.source = "circle packing in a circle: closed forms to 9 and for 13, 18, 19; others from memory";
    sum.inputs = {{"N", "wires", "", SumInputKind::number, {}, "7"}};
    sum.outputs = {{"D_over_d", "bundle over wire diameter", ""}, {"fill", "share of the circle that is wire", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const double wires = number(in, "N");
        if (!(wires >= 1) || wires != std::floor(wires) || wires > 1000)
            return Failure{SumError{"N", "a whole number from 1 to 1000 expected"}};
        const double ratio = bundleDiameters(int(wires));
        return SumObject{{"D_over_d", ratio}, {"fill", wires / (ratio * ratio)}};
    };
    return sum;
}

Sum fillSum() {
    Sum sum;
    sum.name = "hole-fill";
    sum.title = "Whether wires may go through a round hole";
    sum.formula = "fill = sum d^2 / D^2; at most 53 % for one, 31 % for two, 40 % for more";
    sum.source = "NFPA 70 chapter 9 table 1, from memory; conduit practice";
    sum.inputs = {{"wire_od_mm", "outside diameter of each wire", "mm", SumInputKind::numbers, {}, "[1.7, 1.7, 1.7]"},
                  {"inner_mm", "diameter of the hole", "mm", SumInputKind::number, {}, "6"}};
    sum.outputs = {{"fill", "share filled", ""}, {"limit", "may be filled", ""}, {"ok", "within it", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"inner_mm"})) return Failure{*error};
        const auto wires = numbers(*findKey(in, "wire_od_mm"));
        if (wires.empty()) return Failure{SumError{"wire_od_mm", "at least one wire expected"}};
        for (const double d : wires)
            if (!(d > 0)) return Failure{SumError{"wire_od_mm", "every diameter must be more than zero"}};
        const double fill = fillOf(wires, number(in, "inner_mm")), limit = fillLimit(wires.size());
        return SumObject{{"fill", fill}, {"limit", limit}, {"ok", fill <= limit}};
    };
    return sum;
}

Sum bendSum() {
    Sum sum;
    sum.name = "bend";
    sum.title = "Tightest bend of a wire or coax, and the arc it takes";
    sum.formula = "R = k OD inside (coax 5, silicone wire 3); arc = (R + OD/2) angle";
    sum.source = "common practice, no source";
    sum.inputs = {{"kind", "\"coax\" or \"wire\"", "", SumInputKind::text, {}, "coax"},
                  {"od_mm", "outside diameter", "mm", SumInputKind::number, {}, "1.8"},
                  {"angle_deg", "turn", "deg", SumInputKind::number, SumValue(90.0), "90"}};
    sum.outputs = {{"R_min_mm", "inside radius", "mm"}, {"centreline_arc_mm", "arc along the middle", "mm"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const auto &kind = std::get<std::string>(findKey(in, "kind")->held);
        if (kind != "coax" && kind != "wire") return Failure{SumError{"kind", "\"coax\" or \"wire\" expected"}};
        if (auto error = needsPositive(in, {"od_mm", "angle_deg"})) return Failure{*error};
        const double outer = number(in, "od_mm"), radius = (kind == "coax" ? 5 : 3) * outer;
        return SumObject{{"R_min_mm", radius},
                         {"centreline_arc_mm", bendArc_mm(radius, outer, number(in, "angle_deg"))}};
    };
    return sum;
}

} // namespace

std::vector<Sum> wireSums() { return {gaugeSum(), dropSum(), twistSum(), bundleSum(), fillSum(), bendSum()}; }

} // namespace waxis::sums
