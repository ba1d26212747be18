// Any shape as triangles: for rays and for the three-dimensional drawing.
#pragma once

#include "core/geometry/solid.h"

namespace waxis {

struct Triangles {
    std::vector<Vec3> points_mm;
    std::vector<std::array<int, 3>> corners; ///< counter-clockwise seen from outside
};

/// Surface of the shape in its own axes. Round shapes get `sides` flats round their axis, each as far outside the true
/// circle at its corners as inside at its middles, so that the shadow keeps its area. Exact for boxes, prisms, meshes.
Triangles trianglesOf(const Shape &shape, int sides = 32);

} // namespace waxis
