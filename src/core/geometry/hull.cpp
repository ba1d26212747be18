#include "core/geometry/hull.h"

#include <algorithm>

namespace waxis {

std::vector<Vec2> convexHull(std::vector<Vec2> points) {
    std::sort(points.begin(), points.end(),
              [](const Vec2 &a, const Vec2 &b) { return a.x() != b.x() ? a.x() < b.x() : a.y() < b.y(); });
    auto cross = [](const Vec2 &o, const Vec2 &a, const Vec2 &b) {
        return (a.x() - o.x()) * (b.y() - o.y()) - (a.y() - o.y()) * (b.x() - o.x());
    };
    std::vector<Vec2> hull;
    for (int pass = 0; pass < 2; ++pass) {
        const std::size_t start = hull.size();
        for (const auto &p : points) {
            while (hull.size() >= start + 2 && cross(hull[hull.size() - 2], hull.back(), p) <= 0) hull.pop_back();
            hull.push_back(p);
        }
        if (!hull.empty()) hull.pop_back();
        std::reverse(points.begin(), points.end());
    }
    return hull;
}

} // namespace waxis
