// Box: J = V/12 diag(b2+c2, a2+c2, a2+b2); cylinder along z: V/12 diag(3r2+h2, 3r2+h2, 6r2); sphere: 2/5 V r2
// (Goldstein). Prism: V = A t; J from the second moments of area and t^2/12 (perpendicular sums).
#include "core/geometry/solid.h"

#include "core/base/units.h"

#include <cmath>

namespace waxis {

namespace {

template <class... F>
struct Overloaded : F... {
    using F::operator()...;
};
template <class... F>
Overloaded(F...) -> Overloaded<F...>;

/// Sums the tetrahedra between each triangle and the mesh's first corner (Mirtich 1996 gives the same integrals).
ShapeProperties meshProperties(const Mesh &mesh) {
    ShapeProperties sum;
    if (mesh.points_mm.empty()) return sum;
    const Vec3 base = mesh.points_mm.front();
    Vec3 first = Vec3::Zero();
    Mat3 second = Mat3::Zero(); // integral of x x^T
    for (const auto &[i, j, k] : mesh.triangles) {
        const Vec3 a = mesh.points_mm[i] - base, b = mesh.points_mm[j] - base, c = mesh.points_mm[k] - base;
        const double volume = a.dot(b.cross(c)) / 6;
        const Vec3 corners = a + b + c;
        sum.volume_mm3 += volume;
        first += volume / 4 * corners;
        second +=
            volume / 20 * (a * a.transpose() + b * b.transpose() + c * c.transpose() + corners * corners.transpose());
    }
    if (sum.volume_mm3 == 0) return sum;
    const Vec3 centre = first / sum.volume_mm3;
    second -= sum.volume_mm3 * centre * centre.transpose();
    sum.centroid_mm = base + centre;
    sum.inertia_mm5 = second.trace() * Mat3::Identity() - second;
    return sum;
}

} // namespace

ShapeProperties shapeProperties(const Shape &shape) {
    return std::visit(
        Overloaded{[](const Box &box) {
                       const Vec3 s2 = box.fullSize_mm.cwiseAbs2();
                       const double volume = box.fullSize_mm.prod();
                       const Vec3 diagonal(s2.y() + s2.z(), s2.x() + s2.z(), s2.x() + s2.y());
                       return ShapeProperties{volume, Vec3::Zero(), Mat3((diagonal * volume / 12).asDiagonal())};
                   },
                   [](const Cylinder &cylinder) {
                       const double r2 = cylinder.diameter_mm * cylinder.diameter_mm / 4;
                       const double h2 = cylinder.length_mm * cylinder.length_mm;
                       const double volume = kPi * r2 * cylinder.length_mm;
                       const Vec3 diagonal(3 * r2 + h2, 3 * r2 + h2, 6 * r2);
                       return ShapeProperties{volume, Vec3::Zero(), Mat3((diagonal * volume / 12).asDiagonal())};
                   },
                   [](const Sphere &sphere) {
                       const double r = sphere.diameter_mm / 2, volume = 4.0 / 3.0 * kPi * r * r * r;
                       return ShapeProperties{volume, Vec3::Zero(), Mat3::Identity() * (0.4 * volume * r * r)};
                   },
                   [](const Prism &prism) {
                       const AreaProperties a = areaProperties(prism.polygon);
                       const double t = prism.thickness_mm, volume = a.area_mm2 * t, zz = volume * t * t / 12;
                       Mat3 inertia = Mat3::Zero();
                       inertia(0, 0) = a.yy_mm4 * t + zz;
                       inertia(1, 1) = a.xx_mm4 * t + zz;
                       inertia(2, 2) = (a.xx_mm4 + a.yy_mm4) * t;
                       inertia(0, 1) = inertia(1, 0) = -a.xy_mm4 * t;
                       return ShapeProperties{volume, Vec3(a.centroid_mm.x(), a.centroid_mm.y(), t / 2), inertia};
                   },
                   [](const Mesh &mesh) { return mesh.exact ? *mesh.exact : meshProperties(mesh); }},
        shape);
}

Vec3 supportPoint(const Shape &shape, const Vec3 &d) {
    return std::visit(Overloaded{[&](const Box &box) {
                                     const Vec3 half = box.fullSize_mm / 2;
                                     return Vec3(std::copysign(half.x(), d.x()), std::copysign(half.y(), d.y()),
                                                 std::copysign(half.z(), d.z()));
                                 },
                                 [&](const Cylinder &cylinder) {
                                     const double radial = std::sqrt(d.x() * d.x() + d.y() * d.y());
                                     const double r = radial > 0 ? cylinder.diameter_mm / 2 / radial : 0;
                                     return Vec3(d.x() * r, d.y() * r, std::copysign(cylinder.length_mm / 2, d.z()));
                                 },
                                 [&](const Sphere &sphere) { return Vec3(d.normalized() * (sphere.diameter_mm / 2)); },
                                 [&](const Prism &prism) {
                                     Vec2 best = Vec2::Zero();
                                     double farthest = -1e300;
                                     for (const auto &corner : prism.polygon.outline) {
                                         const double along = corner.x() * d.x() + corner.y() * d.y();
                                         if (along > farthest) {
                                             farthest = along;
                                             best = corner;
                                         }
                                     }
                                     return Vec3(best.x(), best.y(), d.z() > 0 ? prism.thickness_mm : 0.0);
                                 },
                                 [&](const Mesh &mesh) {
                                     Vec3 best = Vec3::Zero();
                                     double farthest = -1e300;
                                     for (const auto &p : mesh.points_mm)
                                         if (const double along = p.dot(d); along > farthest) {
                                             farthest = along;
                                             best = p;
                                         }
                                     return best;
                                 }},
                      shape);
}

Aabb boundsOf(const Shape &shape, const Pose &X_FrameShape) {
    Aabb bounds;
    const Quat back = X_FrameShape.rotation.conjugate();
    for (int axis = 0; axis < 3; ++axis) {
        const Vec3 d = back * Vec3::Unit(axis);
        bounds.max_mm[axis] = (X_FrameShape * supportPoint(shape, d))[axis];
        bounds.min_mm[axis] = (X_FrameShape * supportPoint(shape, -d))[axis];
    }
    return bounds;
}

} // namespace waxis
