// Bodies of which parts are made, and what they weigh and how far they reach.
#pragma once

#include "core/geometry/polygon.h"
#include "core/geometry/pose.h"

#include <array>
#include <optional>
#include <string>
#include <variant>
#include <vector>

namespace waxis {

/// Box centred on its own origin.
struct Box {
    Vec3 fullSize_mm = Vec3::Zero();
    bool operator==(const Box &) const = default;
};
/// Cylinder along its own z, centred on its own origin.
struct Cylinder {
    double diameter_mm = 0, length_mm = 0;
    bool operator==(const Cylinder &) const = default;
};
struct Sphere {
    double diameter_mm = 0;
    bool operator==(const Sphere &) const = default;
};
/// Polygon in its own x-y plane, thick along z, from z = 0 to z = thickness.
struct Prism {
    Polygon polygon;
    double thickness_mm = 0;
    bool operator==(const Prism &) const = default;
};

/// Volume, centroid and inertia of a homogeneous shape of unit density, in the shape's own axes.
struct ShapeProperties {
    double volume_mm3 = 0;
    Vec3 centroid_mm = Vec3::Zero();
    Mat3 inertia_mm5 = Mat3::Zero(); ///< about the centroid; times density (g/mm3) gives g mm2
    bool operator==(const ShapeProperties &) const = default;
};

/// Triangles over shared corners, counter-clockwise seen from outside. `exact` holds what was worked out from the body
/// that the mesh only stands for (a STEP solid, a mesh before it was thinned); without it the triangles count.
struct Mesh {
    std::vector<Vec3> points_mm;
    std::vector<std::array<int, 3>> triangles;
    std::optional<ShapeProperties> exact;
    bool operator==(const Mesh &) const = default;
};
using Shape = std::variant<Box, Cylinder, Sphere, Prism, Mesh>;

/// What a solid is to the bench: a lens looks out, soft matter gives way.
enum class SolidRole { body, board, component, connector, shield, lens, soft };

struct Solid {
    Shape shape;
    Pose X_PartSolid;
    SolidRole role = SolidRole::body;
    std::string material; ///< name in the material table; empty: not stated
    bool bare = false;    ///< exposed conductors: solder joints, pads, terminals
    bool operator==(const Solid &) const = default;
};

/// Closed forms for box, cylinder and sphere, Green's theorem for prisms, the divergence theorem for closed meshes.
ShapeProperties shapeProperties(const Shape &shape);

struct Aabb {
    Vec3 min_mm = Vec3::Constant(1e300), max_mm = Vec3::Constant(-1e300);
    bool empty() const { return min_mm.x() > max_mm.x(); }
    void include(const Vec3 &p) {
        min_mm = min_mm.cwiseMin(p);
        max_mm = max_mm.cwiseMax(p);
    }
    void include(const Aabb &other) {
        min_mm = min_mm.cwiseMin(other.min_mm);
        max_mm = max_mm.cwiseMax(other.max_mm);
    }
    Vec3 size_mm() const { return max_mm - min_mm; }
};

/// Distance of two boxes, mm; 0 when they meet. Never more than the distance of what they hold.
inline double boxGap(const Aabb &a, const Aabb &b) {
    return (a.min_mm - b.max_mm).cwiseMax(b.min_mm - a.max_mm).cwiseMax(0.0).norm();
}

/// The point of the shape that lies farthest along `direction` (shape's own axes, any length but zero). For prisms
/// the holes play no part, for meshes the hollows: it is the support of the convex hull.
Vec3 supportPoint(const Shape &shape, const Vec3 &direction);

/// Tight box around the posed shape.
Aabb boundsOf(const Shape &shape, const Pose &X_FrameShape);

} // namespace waxis
