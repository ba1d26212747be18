// Inside the clearance module: one pair of bodies at a time.
#pragma once

#include "core/clearance/clearance_world.h"
#include "core/clearance/convex_distance.h"

#include <array>
#include <limits>

namespace waxis::clearance {

/// A prism or mesh cut into convex pieces, once per shape. Empty for shapes that are convex as they are.
struct Pieces {
    std::vector<Shape> wedges; ///< prisms on triangles; for a mesh its triangles, one by one
    std::vector<Aabb> bounds;  ///< of each wedge, in the shape's own axes
    /// Prisms only: lines along the triangle's sides, outward normals and the offsets of the sides along them.
    struct Sides {
        std::array<Vec2, 3> normal;
        std::array<double, 3> offset{};
    };
    std::vector<Sides> sides;
};
using SharedPieces = std::shared_ptr<const Pieces>;
SharedPieces piecesOf(const Shape &shape);

/// Distance with nearest points, without depth and freeing move. Farther apart than `within_mm`: an infinite distance.
BodyGap distanceBetween(const Body &a, const Pieces &piecesA, const Body &b, const Pieces &piecesB,
                        double within_mm = std::numeric_limits<double>::infinity());
bool overlaps(const Body &a, const Pieces &piecesA, const Body &b, const Pieces &piecesB);
Vec3 shortestWayOut(const Body &a, const Pieces &piecesA, const Body &b, const Pieces &piecesB);

} // namespace waxis::clearance
