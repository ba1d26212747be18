#include "core/balance/doubt_share.h"
#include "core/balance/case_balance.h"

#include <cmath>

namespace waxis {

DoubtShare doubtShareOf(const CaseBalance &balance, const MassElement &element, double sigmaMass_g,
                        double sigmaPosition_mm) {
    const double variance = balance.cgCovariance_mm2(0, 0) + balance.cgCovariance_mm2(1, 1);
    if (!balance.mass.cg_mm || !(variance > 0)) return {};
    const Vec2 lever = (element.centroid_mm - *balance.mass.cg_mm).head<2>() / balance.mass.mass_g;
    return {lever.squaredNorm() * sigmaMass_g * sigmaMass_g / variance,
            2 * std::pow(element.mass_g / balance.mass.mass_g * sigmaPosition_mm, 2) / variance};
}

} // namespace waxis
