// How the craft stands on the ground.
#pragma once

#include "core/build/build.h"
#include "core/geometry/hull.h"

namespace waxis {

struct Stance {
    double z_mm = 1e300;                                        ///< of the ground, in the frame's axes
    std::vector<Vec2> feet;                                     ///< where it touches; empty: it has no landing feet
    std::vector<Vec2> hull() const { return convexHull(feet); } ///< counter-clockwise
};

/// Landing feet and legs: standoffs with that role and parts of that kind that are always aboard; the lowest of them
/// touch. Skids touch at both ends.
Stance stanceOf(const Build &build);

} // namespace waxis
