// Inside the clearance module: how deep two convex shapes stand in each other.
#pragma once

#include "core/clearance/convex_distance.h"

#include <optional>

namespace waxis::clearance {

/// The shortest translation of `a` that parts it from `b`: the nearest point of the boundary of the Minkowski
/// difference to the origin, by the expanding polytope (van den Bergen 2001). Never too short; too long by at most 1e-4
/// mm, where round shapes need more than 400 faces by what those leave. None: they do not overlap, or the polytope is
/// flat.
std::optional<Vec3> partingMove(const Convex &a, const Convex &b);

} // namespace waxis::clearance
