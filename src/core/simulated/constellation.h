// Satellites on circular orbits: enough to stand where real ones could, not those that fly.
#pragma once

#include "core/nmea/receiver.h"

#include <vector>

namespace waxis {

struct OrbitingSatellite {
    SatelliteId id;
    double radius_km = 0, inclination_deg = 0, node_deg = 0, phase_deg = 0; ///< node and phase at midnight
};

/// 24 satellites each of GPS, GLONASS, Galileo and BeiDou in their planes, evenly spaced. Radii and inclinations:
/// 26,560 km and 55 deg; 25,510 and 64.8; 29,600 and 56; 27,906 and 55 (from memory, rounded).
const std::vector<OrbitingSatellite> &constellation();

struct SkyPosition {
    double elevation_deg = 0, azimuth_deg = 0; ///< azimuth from north, turning east
};
/// As seen from a place on a round earth (6,371 km) at seconds after midnight, UTC; Kepler's third law, the earth turns
/// once in a sidereal day.
SkyPosition skyPositionOf(const OrbitingSatellite &satellite, const GeoPlace &place, double time_s);

} // namespace waxis
