#include "core/geometry/mesh_tools.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace waxis {

namespace {

using Cell = std::array<long, 3>;

/// Corners on one cell of the grid become their mean.
Mesh clustered(const Mesh &mesh, double cell_mm) {
    std::map<Cell, int> index;
    std::vector<int> to(mesh.points_mm.size());
    std::vector<Vec3> sums;
    std::vector<int> counts;
    for (std::size_t i = 0; i < mesh.points_mm.size(); ++i) {
        const Vec3 &p = mesh.points_mm[i];
        const Cell cell{std::lround(p.x() / cell_mm), std::lround(p.y() / cell_mm), std::lround(p.z() / cell_mm)};
        const auto [at, isNew] = index.try_emplace(cell, int(sums.size()));
        if (isNew) {
            sums.emplace_back(Vec3::Zero());
            counts.push_back(0);
        }
        to[i] = at->second;
        sums[std::size_t(at->second)] += p;
        ++counts[std::size_t(at->second)];
    }
    Mesh result;
    result.exact = mesh.exact;
    for (std::size_t i = 0; i < sums.size(); ++i) result.points_mm.push_back(sums[i] / counts[i]);
    // A triangle and its mirror image cancel each other: what was a thin wall has become flat.
    std::map<std::array<int, 3>, int> seen;
    auto sorted = [](std::array<int, 3> t, int &sign) {
        sign = 1;
        for (int pass = 0; pass < 2; ++pass)
            for (int k = 0; k < 2; ++k)
                if (t[std::size_t(k)] > t[std::size_t(k + 1)]) {
                    std::swap(t[std::size_t(k)], t[std::size_t(k + 1)]);
                    sign = -sign;
                }
        return t;
    };
    for (const auto &[a, b, c] : mesh.triangles) {
        const std::array<int, 3> t{to[std::size_t(a)], to[std::size_t(b)], to[std::size_t(c)]};
        if (t[0] == t[1] || t[1] == t[2] || t[0] == t[2]) continue;
        int sign = 0;
        const auto key = sorted(t, sign);
        seen[key] += sign;
    }
    for (const auto &[key, count] : seen)
        for (int n = 0; n < std::abs(count); ++n)
            result.triangles.push_back(count > 0 ? key : std::array<int, 3>{key[0], key[2], key[1]});
    return result;
}

/// Only the corners that some triangle uses.
Mesh withoutLooseCorners(const Mesh &mesh) {
    std::vector<int> to(mesh.points_mm.size(), -1);
    Mesh result;
    result.exact = mesh.exact;
    for (auto t : mesh.triangles) {
        for (int &corner : t) {
            int &mapped = to[std::size_t(corner)];
            if (mapped < 0) {
                mapped = int(result.points_mm.size());
                result.points_mm.push_back(mesh.points_mm[std::size_t(corner)]);
            }
            corner = mapped;
        }
        result.triangles.push_back(t);
    }
    return result;
}

} // namespace

Mesh welded(const Mesh &mesh, double tolerance_mm) { return withoutLooseCorners(clustered(mesh, tolerance_mm)); }

std::size_t openEdges(const Mesh &mesh) {
    std::map<std::pair<int, int>, int> edges;
    for (const auto &[a, b, c] : mesh.triangles)
        for (const auto &[from, to] : {std::pair{a, b}, {b, c}, {c, a}})
            edges[{std::min(from, to), std::max(from, to)}] += from < to ? 1 : -1;
    return std::size_t(std::count_if(edges.begin(), edges.end(), [](const auto &edge) { return edge.second != 0; }));
}

Mesh facingOutwards(const Mesh &mesh) {
    Mesh result = mesh;
    result.exact.reset();
    if (shapeProperties(result).volume_mm3 < 0)
        for (auto &t : result.triangles) std::swap(t[1], t[2]);
    result.exact = mesh.exact;
    return result;
}

Mesh thinned(const Mesh &mesh, std::size_t most) {
    if (mesh.triangles.size() <= most) return mesh;
    Mesh source = mesh;
    if (!source.exact) source.exact = shapeProperties(mesh);
    const double size = boundsOf(Shape(mesh), Pose{}).size_mm().maxCoeff();
    Mesh best = source;
    for (double cell = size / 400; cell < size; cell *= 1.15) {
        best = clustered(source, cell);
        if (best.triangles.size() <= most) break;
    }
    return withoutLooseCorners(best);
}

} // namespace waxis
