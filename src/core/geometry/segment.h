// Distances to straight pieces.
#pragma once

#include "core/geometry/pose.h"

#include <algorithm>
#include <vector>

namespace waxis {

/// Distance of a point from the piece between two ends; of the ends where they coincide. Any unit, the same for all.
inline double segmentDistance(const Vec3 &point, const Vec3 &a, const Vec3 &b) {
    const Vec3 along = b - a;
    const double t = std::clamp((point - a).dot(along) / std::max(along.squaredNorm(), 1e-12), 0.0, 1.0);
    return (point - a - t * along).norm();
}

/// Distance of a point from a line of such pieces; very far (1e9) from one without pieces.
inline double polylineDistance(const Vec3 &point, const std::vector<Vec3> &line) {
    double best = 1e9;
    for (std::size_t i = 1; i < line.size(); ++i) best = std::min(best, segmentDistance(point, line[i - 1], line[i]));
    return best;
}

} // namespace waxis
