#include "core/geometry/triangles.h"

#include "core/base/units.h"

#include <cmath>

namespace waxis {

namespace {

Triangles boxTriangles(const Box &box) {
    Triangles t;
    const Vec3 half = box.fullSize_mm / 2;
    for (int i = 0; i < 8; ++i)
        t.points_mm.emplace_back((i & 1 ? 1 : -1) * half.x(), (i & 2 ? 1 : -1) * half.y(), (i & 4 ? 1 : -1) * half.z());
    t.corners = {{0, 2, 3}, {0, 3, 1}, {4, 5, 7}, {4, 7, 6}, {0, 1, 5}, {0, 5, 4},
                 {2, 6, 7}, {2, 7, 3}, {0, 4, 6}, {0, 6, 2}, {1, 3, 7}, {1, 7, 5}};
    return t;
}

/// A polygon with this many corners and the circle's area has its corners a little outside.
double equalAreaRadius(double radius, int sides) {
    const double angle = 2 * kPi / sides;
    return radius * std::sqrt(angle / std::sin(angle));
}

Triangles cylinderTriangles(const Cylinder &cylinder, int sides) {
    Triangles t;
    const double radius = equalAreaRadius(cylinder.diameter_mm / 2, sides), half = cylinder.length_mm / 2;
    for (int i = 0; i < sides; ++i) {
        const double angle = 2 * kPi * i / sides;
        t.points_mm.emplace_back(radius * std::cos(angle), radius * std::sin(angle), -half);
        t.points_mm.emplace_back(radius * std::cos(angle), radius * std::sin(angle), half);
    }
    const int bottom = 2 * sides, top = bottom + 1;
    t.points_mm.emplace_back(0, 0, -half);
    t.points_mm.emplace_back(0, 0, half);
    for (int i = 0; i < sides; ++i) {
        const int a = 2 * i, b = 2 * ((i + 1) % sides);
        t.corners.push_back({a, b, b + 1});
        t.corners.push_back({a, b + 1, a + 1});
        t.corners.push_back({bottom, b, a});
        t.corners.push_back({top, a + 1, b + 1});
    }
    return t;
}

Triangles sphereTriangles(const Sphere &sphere, int sides) {
    Triangles t;
    const int rings = std::max(4, sides / 2);
    const double radius = equalAreaRadius(sphere.diameter_mm / 2, sides);
    t.points_mm.emplace_back(0, 0, -radius);
    for (int r = 1; r < rings; ++r)
        for (int i = 0; i < sides; ++i) {
            const double polar = kPi * r / rings, angle = 2 * kPi * i / sides;
            t.points_mm.emplace_back(radius * std::sin(polar) * std::cos(angle),
                                     radius * std::sin(polar) * std::sin(angle), -radius * std::cos(polar));
        }
    const int top = int(t.points_mm.size());
    t.points_mm.emplace_back(0, 0, radius);
    auto at = [&](int ring, int i) { return 1 + (ring - 1) * sides + i % sides; };
    for (int i = 0; i < sides; ++i) {
        t.corners.push_back({0, at(1, i + 1), at(1, i)});
        t.corners.push_back({top, at(rings - 1, i), at(rings - 1, i + 1)});
        for (int r = 1; r + 1 < rings; ++r) {
            t.corners.push_back({at(r, i), at(r, i + 1), at(r + 1, i + 1)});
            t.corners.push_back({at(r, i), at(r + 1, i + 1), at(r + 1, i)});
        }
    }
    return t;
}

Triangles prismTriangles(const Prism &prism) {
    Triangles t;
    const Triangulation flat = triangulate(prism.polygon);
    const int count = int(flat.points.size());
    for (const auto &p : flat.points) t.points_mm.emplace_back(p.x(), p.y(), 0);
    for (const auto &p : flat.points) t.points_mm.emplace_back(p.x(), p.y(), prism.thickness_mm);
    for (auto [a, b, c] : flat.triangles) {
        const Vec2 u = flat.points[std::size_t(b)] - flat.points[std::size_t(a)],
                   v = flat.points[std::size_t(c)] - flat.points[std::size_t(a)];
        if (u.x() * v.y() - u.y() * v.x() < 0) std::swap(b, c);
        t.corners.push_back({count + a, count + b, count + c});
        t.corners.push_back({a, c, b});
    }
    auto wall = [&](const Ring &ring, bool hole) {
        double area = 0;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 &p = ring[i], &q = ring[(i + 1) % ring.size()];
            area += p.x() * q.y() - p.y() * q.x();
        }
        const bool forwards = (area > 0) != hole; // material lies to the left of the wall's direction
        const int base = int(t.points_mm.size()), n = int(ring.size());
        for (const auto &p : ring) {
            t.points_mm.emplace_back(p.x(), p.y(), 0);
            t.points_mm.emplace_back(p.x(), p.y(), prism.thickness_mm);
        }
        for (int i = 0; i < n; ++i) {
            int a = base + 2 * i, b = base + 2 * ((i + 1) % n);
            if (!forwards) std::swap(a, b);
            t.corners.push_back({a, b, b + 1});
            t.corners.push_back({a, b + 1, a + 1});
        }
    };
    wall(prism.polygon.outline, false);
    for (const auto &hole : prism.polygon.holes) wall(hole, true);
    return t;
}

} // namespace

Triangles trianglesOf(const Shape &shape, int sides) {
    if (const auto *box = std::get_if<Box>(&shape)) return boxTriangles(*box);
    if (const auto *cylinder = std::get_if<Cylinder>(&shape)) return cylinderTriangles(*cylinder, sides);
    if (const auto *sphere = std::get_if<Sphere>(&shape)) return sphereTriangles(*sphere, sides);
    if (const auto *prism = std::get_if<Prism>(&shape)) return prismTriangles(*prism);
    const auto &mesh = std::get<Mesh>(shape);
    return {mesh.points_mm, mesh.triangles};
}

} // namespace waxis
