// Flat outlines with holes: plates, slots, printed boards.
#pragma once

#include "core/geometry/pose.h"

#include <array>
#include <vector>

namespace waxis {

/// Corners in order, without repeating the first one. Either direction of travel.
using Ring = std::vector<Vec2>;

/// One outer ring and any number of holes inside it, in mm.
struct Polygon {
    Ring outline;
    std::vector<Ring> holes;
    bool operator==(const Polygon &) const = default;
};

/// Area, centroid and central second moments of an area. Units mm2, mm, mm4.
struct AreaProperties {
    double area_mm2 = 0;
    Vec2 centroid_mm = Vec2::Zero();
    double xx_mm4 = 0; ///< integral of (x - xc)^2
    double yy_mm4 = 0; ///< integral of (y - yc)^2
    double xy_mm4 = 0; ///< integral of (x - xc)(y - yc)
};

/// Green's theorem over the rings, holes taken away whatever their direction. Exact for polygons.
/// A polygon without area gives zeros and the first corner as centroid.
AreaProperties areaProperties(const Polygon &polygon);

/// True when the point lies in the material: inside the outline and in no hole. Points on an edge may go either
/// way.
bool contains(const Polygon &polygon, const Vec2 &point);

/// What is wrong with an outline and its holes as the border of a plate, in words: edges that cross, holes outside or
/// over one another. Empty when nothing is. Holes may touch the outline or each other at single points.
std::string faultOf(const Polygon &polygon);

/// Regular polygon with the same area as the circle, so that plates with round holes weigh what they weigh.
Ring circleRing(const Vec2 &centre_mm, double diameter_mm, int corners = 24);

/// Triangles (corner indices into triangulationPoints) that cover the material; ear clipping after joining the
/// holes to the outline. Returns no triangles for an outline that crosses itself so badly that no ear is left.
struct Triangulation {
    std::vector<Vec2> points;
    std::vector<std::array<int, 3>> triangles;
};
Triangulation triangulate(const Polygon &polygon);

} // namespace waxis
