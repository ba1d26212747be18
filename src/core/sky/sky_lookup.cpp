#include "core/sky/sky_lookup.h"

#include "core/base/units.h"

#include <cmath>

namespace waxis {

Vec3 craftDirection(double elevation_deg, double azimuth_deg, double nose_deg) {
    const double up = radiansFromDegrees(elevation_deg), round = radiansFromDegrees(azimuth_deg - nose_deg);
    return {std::cos(up) * std::cos(round), -std::cos(up) * std::sin(round), std::sin(up)};
}

int ownerAt(const SkyView &view, const Vec3 &direction) {
    const auto &sky = skyDirections();
    if (view.owner.size() != sky.size() || direction.z() < 0) return -1;
    std::size_t nearest = 0;
    double best = -2;
    for (std::size_t i = 0; i < sky.size(); ++i)
        if (const double cosine = sky[i].dot(direction); cosine > best) {
            best = cosine;
            nearest = i;
        }
    return view.owner[nearest];
}

} // namespace waxis
