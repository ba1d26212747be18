// How warm something gets, as one lump of metal in air.
#pragma once

#include <optional>

namespace waxis {

/// Heat transfer to the air with radiation, W/(m2 K), still and in a propeller's wash (from memory: good to 40 %).
struct CoolingBand {
    double least = 0, most = 0;
};
inline constexpr CoolingBand kStillAir{8, 15}, kInTheWash{30, 80};

struct HeatRise {
    double steady_K = 0;           ///< above the air, in the end: P/(h A)
    double uncooled_s = 0;         ///< until `rise_K` if nothing were given off: m c rise/P
    std::optional<double> until_s; ///< until `rise_K` with cooling; none: it never comes to that
};

/// `area_cm2`: of what the air reaches; `specificHeat_J_gK`: about 0.9 for boards and aluminium.
HeatRise heatRise(double heat_W, double area_cm2, double h_W_m2K, double mass_g, double specificHeat_J_gK,
                  double rise_K);

} // namespace waxis
