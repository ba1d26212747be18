// Cuts through bodies: what a saw would show.
#pragma once

#include "core/geometry/polygon.h"
#include "core/geometry/solid.h"

namespace waxis {

/// A plane that cuts: through `origin_mm`, spanned by the unit vectors u and v; its normal is u x v.
struct CutPlane {
    Vec3 origin_mm = Vec3::Zero(), u = Vec3::UnitX(), v = Vec3::UnitY();
};

/// The closed outlines in which the plane cuts a posed shape, in (u, v) coordinates about the plane's origin, mm. Holes
/// come as outlines of their own: fill them odd-even. Empty where the plane misses. Round shapes are cut as the polygon
/// of equal area with 64 sides.
std::vector<Ring> sectionOf(const Shape &shape, const Pose &X_FrameShape, const CutPlane &plane);

} // namespace waxis
