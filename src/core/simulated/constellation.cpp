#include "core/simulated/constellation.h"

#include "core/base/units.h"
#include "core/geometry/pose.h"

#include <cmath>
#include <numbers>

namespace waxis {

namespace {

constexpr double kEarth_km = 6371.0, kGravity_km3_s2 = 398600.4418, kSidereal_s = 86164.0905;

void addSystem(std::vector<OrbitingSatellite> &all, GnssSystem system, int planes, double radius_km,
               double inclination_deg, double firstNode_deg) {
    constexpr int kSatellites = 24;
    const int each = kSatellites / planes;
    for (int plane = 0; plane < planes; ++plane)
        for (int i = 0; i < each; ++i) {
            // Neighbouring planes are shifted against each other, so that the sky fills evenly.
            const double phase = 360.0 * i / each + 360.0 * plane / kSatellites;
            all.push_back({{system, plane * each + i + 1},
                           radius_km,
                           inclination_deg,
                           firstNode_deg + 360.0 * plane / planes,
                           phase});
        }
}

} // namespace

const std::vector<OrbitingSatellite> &constellation() {
    static const std::vector<OrbitingSatellite> all = [] {
        std::vector<OrbitingSatellite> made;
        addSystem(made, GnssSystem::gps, 6, 26560, 55, 10);
        addSystem(made, GnssSystem::glonass, 3, 25510, 64.8, 47);
        addSystem(made, GnssSystem::galileo, 3, 29600, 56, 83);
        addSystem(made, GnssSystem::beidou, 3, 27906, 55, 21);
        return made;
    }();
    return all;
}

SkyPosition skyPositionOf(const OrbitingSatellite &satellite, const GeoPlace &place, double time_s) {
    const double motion = std::sqrt(kGravity_km3_s2 / std::pow(satellite.radius_km, 3)); // radians a second
    const double along = radiansFromDegrees(satellite.phase_deg) + motion * time_s;
    const double lean = radiansFromDegrees(satellite.inclination_deg);
    const double node = radiansFromDegrees(satellite.node_deg) - 2 * std::numbers::pi * time_s / kSidereal_s;
    const Vec3 inPlane(std::cos(along), std::sin(along) * std::cos(lean), std::sin(along) * std::sin(lean));
    const Vec3 there =
        satellite.radius_km * Vec3(std::cos(node) * inPlane.x() - std::sin(node) * inPlane.y(),
                                   std::sin(node) * inPlane.x() + std::cos(node) * inPlane.y(), inPlane.z());
    const double latitude = radiansFromDegrees(place.latitude_deg), longitude = radiansFromDegrees(place.longitude_deg);
    const Vec3 up(std::cos(latitude) * std::cos(longitude), std::cos(latitude) * std::sin(longitude),
                  std::sin(latitude));
    const Vec3 east(-std::sin(longitude), std::cos(longitude), 0), north = up.cross(east);
    const Vec3 sight = (there - kEarth_km * up).normalized();
    const double azimuth = degreesFromRadians(std::atan2(sight.dot(east), sight.dot(north)));
    return {degreesFromRadians(std::asin(sight.dot(up))), azimuth < 0 ? azimuth + 360 : azimuth};
}

} // namespace waxis
