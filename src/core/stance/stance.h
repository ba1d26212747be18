// How the craft stands on the ground.
#pragma once

#include "core/build/build.h"
#include "core/geometry/hull.h"

#include <optional>

namespace waxis {

struct Stance {
    double z_mm = 1e300;                                        ///< of the ground, in the frame's axes
    std::vector<Vec2> feet;                                     ///< where it touches; empty: it has no landing feet
    std::vector<Vec2> hull() const { return convexHull(feet); } ///< counter-clockwise
};

/// How far the ground may lean before the craft tips over its nearest line between feet; negative: it falls as it is.
struct TipOver {
    double angle_deg = 0;
    double inside_mm = 0; ///< centre of gravity to that line in plan
    double height_mm = 0; ///< of the centre of gravity over the ground
};
/// None with fewer than three feet that span an area.
std::optional<TipOver> tipOver(const Stance &stance, const Vec3 &cg_mm);

/// Landing feet and legs: standoffs with that role and parts of that kind that are always aboard; the lowest of them
/// touch. Skids touch at both ends.
Stance stanceOf(const Build &build);

} // namespace waxis
