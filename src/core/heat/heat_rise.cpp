#include "core/heat/heat_rise.h"

#include <cmath>

namespace waxis {

HeatRise heatRise(double heat_W, double area_cm2, double h_W_m2K, double mass_g, double specificHeat_J_gK,
                  double rise_K) {
    HeatRise out;
    const double given_W_K = h_W_m2K * area_cm2 * 1e-4, held_J_K = mass_g * specificHeat_J_gK;
    out.steady_K = heat_W / given_W_K;
    out.uncooled_s = held_J_K * rise_K / heat_W;
    if (rise_K < out.steady_K) out.until_s = -held_J_K / given_W_K * std::log(1 - rise_K / out.steady_K);
    return out;
}

} // namespace waxis
