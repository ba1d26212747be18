#include "core/sky/solid_angle.h"

#include "core/base/units.h"

#include <algorithm>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <cmath>

namespace waxis {

namespace {

double corner(double x, double y, double h) { return std::atan(x * y / (h * std::sqrt(x * x + y * y + h * h))); }

} // namespace

double rectangleSolidAngle_sr(double x1, double x2, double y1, double y2, double h) {
    return corner(x2, y2, h) - corner(x1, y2, h) - corner(x2, y1, h) + corner(x1, y1, h);
}

double wallFraction(double s, double y1, double y2, double z1, double z2) {
    const double low = std::max(z1, 0.0);
    if (z2 <= low) return 0;
    return rectangleSolidAngle_sr(y1, y2, low, z2, s) / (2 * kPi);
}

double wallFractionAbove(double s, double y1, double y2, double z1, double z2, double mask_deg) {
    const double lowest = std::sin(radiansFromDegrees(mask_deg));
    // At azimuth a the plate stands s / cos a away: it hides elevations between atan(z cos a / s) of its edges.
    auto hidden = [&](double azimuth) {
        const double away = s / std::cos(azimuth);
        auto sine = [&](double z) { return std::max(z / std::hypot(z, away), lowest); };
        return std::max(0.0, sine(z2) - sine(z1));
    };
    const double total = boost::math::quadrature::gauss_kronrod<double, 31>::integrate(hidden, std::atan2(y1, s),
                                                                                       std::atan2(y2, s), 15, 1e-10);
    return total / (2 * kPi * (1 - lowest));
}

double discFraction(double R, double h) { return R > 0 ? 1 - h / std::hypot(h, R) : 0; }

double skyAbove(double elevation_deg) { return 1 - std::sin(radiansFromDegrees(elevation_deg)); }

} // namespace waxis
