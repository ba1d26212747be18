#include "core/power/hover.h"
#include "core/sums/read.h"

#include <cmath>

namespace waxis::sums {

namespace {

Sum hoverSum() {
    Sum sum;
    sum.name = "hover-power";
    sum.title = "Power that rotors take to hover";
    sum.formula = "vi = sqrt(T/(2 rho A)); P = T^1.5/sqrt(2 rho A)/FM for each rotor";
    sum.source = "momentum theory (Leishman); FM 0.5 to 0.7 for small propellers: common practice, no source";
    sum.inputs = {{"T_N", "thrust of one rotor", "N", SumInputKind::number, {}, "1.6"},
                  {"prop_mm", "propeller diameter", "mm", SumInputKind::number, {}, "127"},
                  {"rho", "density of the air", "kg/m3", SumInputKind::number, SumValue(1.225), "1.225"},
                  {"FM", "figure of merit", "", SumInputKind::number, SumValue(0.6), "0.6"},
                  {"rotors", "rotors", "", SumInputKind::number, SumValue(4.0), "4"}};
    sum.outputs = {{"A_m2", "disc area", "m2"},
                   {"vi_ms", "induced speed", "m/s"},
                   {"P_ideal_W", "ideal power of one", "W"},
                   {"P_W", "shaft power of one", "W"},
                   {"P_total_W", "shaft power of all", "W"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        for (const char *key : {"prop_mm", "rho", "FM"})
            if (!(number(in, key) > 0)) return Failure{SumError{key, "must be more than zero"}};
        if (number(in, "FM") > 1) return Failure{SumError{"FM", "cannot be more than 1"}};
        if (number(in, "T_N") < 0) return Failure{SumError{"T_N", "must not be negative"}};
        const double rotors = number(in, "rotors");
        if (!(rotors >= 1) || rotors != std::floor(rotors)) return Failure{SumError{"rotors", "a whole number from 1"}};
        const RotorPower power =
            rotorPower(number(in, "T_N"), number(in, "prop_mm"), number(in, "rho"), number(in, "FM"));
        return SumObject{{"A_m2", power.area_m2},
                         {"vi_ms", power.induced_m_s},
                         {"P_ideal_W", power.ideal_W},
                         {"P_W", power.shaft_W},
                         {"P_total_W", power.shaft_W * rotors}};
    };
    return sum;
}

Sum airSum() {
    Sum sum;
    sum.name = "air";
    sum.title = "Standard air at a height";
    sum.formula = "T = 288.15 - 0.0065 H; p = 101325 (T/288.15)^5.25588; rho = p/(287.05287 T)";
    sum.source = "ISO 2533; H is geopotential";
    sum.inputs = {{"H_m", "height", "m", SumInputKind::number, {}, "1000"}};
    sum.outputs = {{"T_K", "temperature", "K"},
                   {"p_Pa", "pressure", "Pa"},
                   {"rho", "density", "kg/m3"},
                   {"rho_if_h_geometric", "density if the height is above sea level", "kg/m3"}};
    sum.compute = [](const SumObject &in) -> SumResult {
        const double height = number(in, "H_m");
        if (!(height >= -2000 && height <= 11000))
            return Failure{SumError{"H_m", "between -2000 and 11000 m expected"}};
        const Air air = standardAir(height);
        return SumObject{{"T_K", air.temperature_K},
                         {"p_Pa", air.pressure_Pa},
                         {"rho", air.density_kg_m3},
                         {"rho_if_h_geometric", standardAir(geopotential_m(height)).density_kg_m3}};
    };
    return sum;
}

} // namespace

std::vector<Sum> powerSums() { return {hoverSum(), airSum()}; }

} // namespace waxis::sums
