// Quick sums of what shakes and what gets warm.
#include "core/heat/heat_rise.h"
#include "core/sums/read.h"
#include "core/vibration/vibration.h"

#include <algorithm>
#include <limits>

namespace waxis::sums {

namespace {

Sum armFrequency() {
    Sum sum;
    sum.name = "arm-frequency";
    sum.title = "First bending of an arm";
    sum.formula = "f = sqrt(3 E I / (L^3 (m_tip + 33/140 m_arm))) / (2 pi); I of the (hollow) rectangle";
    sum.source = "Rayleigh's method, cantilever with end mass; E along plate laminate 40 to 70 GPa (from memory)";
    sum.inputs = {{"length_mm", "length, held to motor", "mm", SumInputKind::number, {}, "154"},
                  {"width_mm", "width", "mm", SumInputKind::number, {}, "16"},
                  {"thickness_mm", "thickness, upwards", "mm", SumInputKind::number, {}, "6"},
                  {"wall_mm", "wall; 0: solid", "mm", SumInputKind::number, SumValue(0.0), "0"},
                  {"E_GPa", "stiffness along the arm", "GPa", SumInputKind::number, SumValue(55.0), "55"},
                  {"density_g_cm3", "density", "g/cm3", SumInputKind::number, SumValue(1.6), "1.6"},
                  {"tip_g", "what stands at the end", "g", SumInputKind::number, {}, "62"}};
    sum.outputs = {{"f_up_Hz", "bending up", "Hz"}, {"f_in_plane_Hz", "in the plane", "Hz"}, {"arm_g", "the arm", "g"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error =
                needsPositive(in, {"length_mm", "width_mm", "thickness_mm", "E_GPa", "density_g_cm3", "tip_g"}))
            return Failure{*error};
        const double width = number(in, "width_mm"), thickness = number(in, "thickness_mm"),
                     wall = number(in, "wall_mm");
        if (!(wall >= 0 && 2 * wall < std::min(width, thickness)))
            return Failure{SumError{"wall_mm", "0 for a solid arm, else less than half of it"}};
        const ArmBending bending = armBending({width, thickness, wall}, number(in, "length_mm"), number(in, "E_GPa"),
                                              number(in, "density_g_cm3"), number(in, "tip_g"));
        return SumObject{{"f_up_Hz", bending.up_Hz}, {"f_in_plane_Hz", bending.inPlane_Hz}, {"arm_g", bending.arm_g}};
    };
    return sum;
}

Sum softMountSum() {
    Sum sum;
    sum.name = "soft-mount";
    sum.title = "What a soft mount lets through";
    sum.formula = "f = sqrt(g / sag) / (2 pi); T = sqrt((1 + (2 z r)^2) / ((1 - r^2)^2 + (2 z r)^2)), r = shake / f";
    sum.source = "one degree of freedom (Den Hartog)";
    sum.inputs = {{"sag_mm", "how far it sags under its weight", "mm", SumInputKind::number, {}, "0.25"},
                  {"damping_ratio", "damping ratio", "", SumInputKind::number, SumValue(0.1), "0.12"},
                  {"excitation_Hz", "frequency of the shake", "Hz", SumInputKind::number, {}, "150"}};
    sum.outputs = {{"f_Hz", "its own frequency", "Hz"},
                   {"transmissibility", "share that gets through", ""},
                   {"isolates", "isolates", ""}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"sag_mm", "excitation_Hz"})) return Failure{*error};
        if (!(number(in, "damping_ratio") >= 0)) return Failure{SumError{"damping_ratio", "0 or more expected"}};
        const SoftMount mount =
            softMount(number(in, "sag_mm"), number(in, "damping_ratio"), number(in, "excitation_Hz"));
        return SumObject{
            {"f_Hz", mount.own_Hz}, {"transmissibility", mount.transmissibility}, {"isolates", mount.isolates}};
    };
    return sum;
}

Sum rotationAtHover() {
    Sum sum;
    sum.name = "rotation-at-hover";
    sum.title = "How fast a propeller turns";
    sum.formula = "n = sqrt(T / (C_T rho D^4)); blade pass = blades x n";
    sum.source = "propeller coefficients; C_T standing 0.08 to 0.14 (from memory)";
    sum.inputs = {{"thrust_N", "thrust of the propeller", "N", SumInputKind::number, {}, "2.63"},
                  {"diameter_mm", "diameter", "mm", SumInputKind::number, {}, "177.8"},
                  {"thrust_coefficient", "thrust coefficient", "", SumInputKind::number, SumValue(0.11), "0.11"},
                  {"density_kg_m3", "density of the air", "kg/m3", SumInputKind::number, SumValue(1.225), "1.225"},
                  {"blades", "blades", "", SumInputKind::number, SumValue(2.0), "2"}};
    sum.outputs = {{"n_Hz", "turns", "1/s"}, {"rpm", "turns", "1/min"}, {"blade_pass_Hz", "blade pass", "Hz"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error =
                needsPositive(in, {"thrust_N", "diameter_mm", "thrust_coefficient", "density_kg_m3", "blades"}))
            return Failure{*error};
        const double n = rotorTurns_Hz(number(in, "thrust_N"), number(in, "diameter_mm"),
                                       number(in, "thrust_coefficient"), number(in, "density_kg_m3"));
        return SumObject{{"n_Hz", n}, {"rpm", 60 * n}, {"blade_pass_Hz", number(in, "blades") * n}};
    };
    return sum;
}

Sum heatRiseSum() {
    Sum sum;
    sum.name = "heat-rise";
    sum.title = "How warm it gets, and when";
    sum.formula = "steady = P / (h A); uncooled t = m c rise / P; cooled t = -(m c / (h A)) ln(1 - rise / steady)";
    sum.source = "lumped heat balance; h in still air 8 to 15, in the wash 30 to 80 W/m2K (from memory, good to 40 %)";
    sum.inputs = {{"heat_W", "heat", "W", SumInputKind::number, {}, "3.9"},
                  {"area_cm2", "surface that the air reaches", "cm2", SumInputKind::number, {}, "29"},
                  {"h_W_m2K", "heat transfer to the air", "W/m2K", SumInputKind::number, SumValue(12.0), "12"},
                  {"mass_g", "mass", "g", SumInputKind::number, {}, "19.5"},
                  {"specific_heat_J_gK", "specific heat", "J/gK", SumInputKind::number, SumValue(0.9), "0.9"},
                  {"rise_K", "rise above the air", "K", SumInputKind::number, SumValue(60.0), "60"}};
    sum.outputs = {{"steady_K", "in the end above the air", "K"},
                   {"seconds_uncooled", "to the rise without cooling", "s"},
                   {"seconds_to_rise", "to the rise with cooling", "s"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        if (auto error = needsPositive(in, {"heat_W", "area_cm2", "h_W_m2K", "mass_g", "specific_heat_J_gK", "rise_K"}))
            return Failure{*error};
        const HeatRise rise = heatRise(number(in, "heat_W"), number(in, "area_cm2"), number(in, "h_W_m2K"),
                                       number(in, "mass_g"), number(in, "specific_heat_J_gK"), number(in, "rise_K"));
        return SumObject{{"steady_K", rise.steady_K},
                         {"seconds_uncooled", rise.uncooled_s},
                         {"seconds_to_rise", rise.until_s.value_or(std::numeric_limits<double>::quiet_NaN())}};
    };
    return sum;
}

} // namespace

std::vector<Sum> vibrationSums() { return {armFrequency(), softMountSum(), rotationAtHover(), heatRiseSum()}; }

} // namespace waxis::sums
