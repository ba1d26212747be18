#include "core/geometry/section.h"

#include "core/geometry/triangles.h"

#include <algorithm>
#include <map>
#include <vector>

namespace waxis {

namespace {

using Edge = std::pair<int, int>;

Edge edgeOf(int a, int b) { return {std::min(a, b), std::max(a, b)}; }

} // namespace

std::vector<Ring> sectionOf(const Shape &shape, const Pose &pose, const CutPlane &plane) {
    constexpr int kSides = 64;
    const Triangles body = trianglesOf(shape, kSides);
    const Vec3 normal = plane.u.cross(plane.v);
    std::vector<Vec3> points;
    std::vector<double> height; // over the plane; never exactly 0, so that each edge is crossed or not
    // Corners may be listed twice (where a hole was bridged to its outline): edges meet by place, not by number.
    std::map<std::array<double, 3>, int> known;
    std::vector<int> same;
    for (const auto &p : body.points_mm) {
        same.push_back(known.emplace(std::array{p.x(), p.y(), p.z()}, int(points.size())).first->second);
        points.push_back(pose * p);
        const double h = normal.dot(points.back() - plane.origin_mm);
        constexpr double kNone_mm = 1e-9;
        height.push_back(h >= 0 && h < kNone_mm ? kNone_mm : h < 0 && h > -kNone_mm ? -kNone_mm : h);
    }
    // Each triangle that is crossed gives one step from the edge where the line comes in to the one where it leaves;
    // turned alike in all triangles, the steps make closed rings.
    std::multimap<Edge, Edge> steps;
    for (const auto &corner : body.corners) {
        std::optional<Edge> in, out;
        for (int i = 0; i < 3; ++i) {
            const int a = same[std::size_t(corner[std::size_t(i)])];
            const int b = same[std::size_t(corner[std::size_t((i + 1) % 3)])];
            if (height[std::size_t(a)] > 0 && height[std::size_t(b)] < 0) in = edgeOf(a, b);
            if (height[std::size_t(a)] < 0 && height[std::size_t(b)] > 0) out = edgeOf(a, b);
        }
        if (in && out) steps.emplace(*in, *out);
    }
    auto pointOn = [&](const Edge &edge) {
        const double ha = height[std::size_t(edge.first)], hb = height[std::size_t(edge.second)];
        const Vec3 p = points[std::size_t(edge.first)] +
                       (points[std::size_t(edge.second)] - points[std::size_t(edge.first)]) * (ha / (ha - hb)) -
                       plane.origin_mm;
        return Vec2(plane.u.dot(p), plane.v.dot(p));
    };
    std::vector<Ring> rings;
    while (!steps.empty()) {
        Ring ring;
        auto step = steps.begin();
        const Edge start = step->first;
        for (;;) {
            ring.push_back(pointOn(step->first));
            const Edge next = step->second;
            steps.erase(step);
            if (next == start) break;
            step = steps.find(next);
            if (step == steps.end()) break; // an open mesh: what there is of the outline
        }
        if (ring.size() >= 3) rings.push_back(std::move(ring));
    }
    return rings;
}

} // namespace waxis
