// The convex hull of points in a plane.
#pragma once

#include "core/geometry/pose.h"

#include <vector>

namespace waxis {

/// Corners of the convex hull, counter-clockwise from the lowest x (Andrew's monotone chain).
std::vector<Vec2> convexHull(std::vector<Vec2> points);

} // namespace waxis
