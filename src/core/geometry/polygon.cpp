// A = 1/2 sum(c), c = x0 y1 - x1 y0;  Sx = 1/6 sum((x0 + x1) c);  Ixx = 1/12 sum((x0^2 + x0 x1 + x1^2) c)
// Ixy = 1/24 sum((x0 y1 + 2 x0 y0 + 2 x1 y1 + x1 y0) c)            (Green's theorem on a polygon, standard)
#include "core/geometry/polygon.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace waxis {

namespace {

struct RingIntegrals {
    double area = 0, sx = 0, sy = 0, xx = 0, yy = 0, xy = 0;
};

RingIntegrals integrate(const Ring &ring) {
    RingIntegrals sum;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 &p = ring[i], &q = ring[(i + 1) % ring.size()];
        const double c = p.x() * q.y() - q.x() * p.y();
        sum.area += c / 2;
        sum.sx += (p.x() + q.x()) * c / 6;
        sum.sy += (p.y() + q.y()) * c / 6;
        sum.xx += (p.x() * p.x() + p.x() * q.x() + q.x() * q.x()) * c / 12;
        sum.yy += (p.y() * p.y() + p.y() * q.y() + q.y() * q.y()) * c / 12;
        sum.xy += (p.x() * q.y() + 2 * p.x() * p.y() + 2 * q.x() * q.y() + q.x() * p.y()) * c / 24;
    }
    return sum;
}

void add(RingIntegrals &sum, const RingIntegrals &ring, double sign) {
    const double s = ring.area < 0 ? -sign : sign; // direction of travel does not matter
    sum.area += s * ring.area;
    sum.sx += s * ring.sx;
    sum.sy += s * ring.sy;
    sum.xx += s * ring.xx;
    sum.yy += s * ring.yy;
    sum.xy += s * ring.xy;
}

bool inRing(const Ring &ring, const Vec2 &p) {
    bool inside = false;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++)
        if ((ring[i].y() > p.y()) != (ring[j].y() > p.y()) &&
            p.x() < (ring[j].x() - ring[i].x()) * (p.y() - ring[i].y()) / (ring[j].y() - ring[i].y()) + ring[i].x())
            inside = !inside;
    return inside;
}

double cross(const Vec2 &a, const Vec2 &b, const Vec2 &c) {
    return (b.x() - a.x()) * (c.y() - a.y()) - (b.y() - a.y()) * (c.x() - a.x());
}

/// True when `target` lies inside the corner at loop[i], so that a bridge from there starts into the material.
/// After a bridge, two entries of the loop stand at one point and only one of them looks the right way.
bool looksTowards(const std::vector<int> &loop, std::size_t i, const Vec2 &target, const std::vector<Vec2> &points) {
    const auto n = loop.size();
    const Vec2 &before = points[loop[(i + n - 1) % n]], &at = points[loop[i]], &after = points[loop[(i + 1) % n]];
    const bool leftOfIn = cross(before, at, target) >= 0, leftOfOut = cross(at, after, target) >= 0;
    return cross(before, at, after) > 0 ? leftOfIn && leftOfOut : leftOfIn || leftOfOut;
}

/// Joins a hole to the counter-clockwise loop by a bridge from its rightmost corner to a corner of the loop that
/// it can see (Eberly, "Triangulation by Ear Clipping").
void bridgeHole(std::vector<int> &loop, std::vector<int> hole, const std::vector<Vec2> &points) {
    const auto rightmost =
        std::max_element(hole.begin(), hole.end(), [&](int a, int b) { return points[a].x() < points[b].x(); });
    std::rotate(hole.begin(), rightmost, hole.end());
    const Vec2 m = points[hole.front()];
    double nearest = std::numeric_limits<double>::infinity();
    Vec2 corner = m;
    for (std::size_t i = 0; i < loop.size(); ++i) {
        const Vec2 &a = points[loop[i]], &b = points[loop[(i + 1) % loop.size()]];
        if (a.y() > m.y() || b.y() < m.y() || a.y() == b.y()) continue; // edges that go up bound the material
        const double x = a.x() + (m.y() - a.y()) * (b.x() - a.x()) / (b.y() - a.y());
        if (x < m.x() || x >= nearest) continue;
        nearest = x;
        corner = a.x() > b.x() ? a : b;
    }
    // Of the corners in the triangle from m to the hit edge, the one that rises least from the ray is in sight.
    const Vec2 hit(nearest, m.y());
    double leastSlope = std::numeric_limits<double>::infinity(), leastDistance = leastSlope;
    std::size_t chosen = 0;
    for (std::size_t i = 0; i < loop.size(); ++i) {
        const Vec2 &p = points[loop[i]];
        if (p.x() < m.x() || p == m || !looksTowards(loop, i, m, points)) continue;
        const double s1 = cross(m, hit, p), s2 = cross(hit, corner, p), s3 = cross(corner, m, p);
        if (!(p == corner || (s1 >= 0 && s2 >= 0 && s3 >= 0) || (s1 <= 0 && s2 <= 0 && s3 <= 0))) continue;
        const double slope = std::abs(p.y() - m.y()) / std::max(1e-12, p.x() - m.x()), distance = (p - m).norm();
        if (slope > leastSlope || (slope == leastSlope && distance >= leastDistance)) continue;
        leastSlope = slope;
        leastDistance = distance;
        chosen = i;
    }
    std::vector<int> bridge(hole.begin(), hole.end());
    bridge.push_back(hole.front());
    bridge.push_back(loop[chosen]);
    loop.insert(loop.begin() + long(chosen) + 1, bridge.begin(), bridge.end());
}

} // namespace

AreaProperties areaProperties(const Polygon &polygon) {
    RingIntegrals sum;
    add(sum, integrate(polygon.outline), 1);
    for (const auto &hole : polygon.holes) add(sum, integrate(hole), -1);
    AreaProperties result;
    if (!(sum.area > 0)) {
        if (!polygon.outline.empty()) result.centroid_mm = polygon.outline.front();
        return result;
    }
    const double x = sum.sx / sum.area, y = sum.sy / sum.area;
    return {sum.area, Vec2(x, y), sum.xx - sum.area * x * x, sum.yy - sum.area * y * y, sum.xy - sum.area * x * y};
}

bool contains(const Polygon &polygon, const Vec2 &point) {
    return inRing(polygon.outline, point) &&
           std::none_of(polygon.holes.begin(), polygon.holes.end(), [&](const Ring &h) { return inRing(h, point); });
}

Ring circleRing(const Vec2 &centre_mm, double diameter_mm, int corners) {
    const double step = 2 * kPi / corners;
    const double radius = diameter_mm / 2 * std::sqrt(step / std::sin(step)); // polygon area n/2 r^2 sin(step) = pi R^2
    Ring ring;
    for (int i = 0; i < corners; ++i) ring.push_back(centre_mm + radius * Vec2(std::cos(i * step), std::sin(i * step)));
    return ring;
}

Triangulation triangulate(const Polygon &polygon) {
    Triangulation result;
    std::vector<std::vector<int>> holes;
    auto append = [&](const Ring &ring, bool counterClockwise) {
        std::vector<int> loop(ring.size());
        std::iota(loop.begin(), loop.end(), int(result.points.size()));
        result.points.insert(result.points.end(), ring.begin(), ring.end());
        if ((integrate(ring).area > 0) != counterClockwise) std::reverse(loop.begin(), loop.end());
        return loop;
    };
    std::vector<int> loop = append(polygon.outline, true);
    for (const auto &hole : polygon.holes)
        if (hole.size() >= 3) holes.push_back(append(hole, false));
    auto right = [&](const std::vector<int> &hole) {
        double x = -std::numeric_limits<double>::infinity();
        for (int i : hole) x = std::max(x, result.points[i].x());
        return x;
    };
    std::sort(holes.begin(), holes.end(), [&](const auto &a, const auto &b) { return right(a) > right(b); });
    for (auto &hole : holes) bridgeHole(loop, hole, result.points);

    const auto &p = result.points;
    // Corners by x: an ear is narrow, and only what stands between its ends can be in it.
    std::vector<int> byX(p.size()), uses(p.size(), 0);
    std::iota(byX.begin(), byX.end(), 0);
    std::sort(byX.begin(), byX.end(), [&](int a, int b) { return p[a].x() < p[b].x(); });
    for (int k : loop) ++uses[k];
    auto isEar = [&](std::size_t i) {
        const auto n = loop.size();
        const Vec2 a = p[loop[(i + n - 1) % n]], b = p[loop[i]], c = p[loop[(i + 1) % n]];
        if (cross(a, b, c) <= 0) return false;
        const Vec2 low = a.cwiseMin(b).cwiseMin(c), high = a.cwiseMax(b).cwiseMax(c);
        auto at = std::lower_bound(byX.begin(), byX.end(), low.x(), [&](int k, double x) { return p[k].x() < x; });
        for (; at != byX.end() && p[*at].x() <= high.x(); ++at) {
            const Vec2 &q = p[*at];
            if (uses[*at] == 0 || q.y() < low.y() || q.y() > high.y() || q == a || q == b || q == c) continue;
            if (cross(a, b, q) >= 0 && cross(b, c, q) >= 0 && cross(c, a, q) >= 0) return false;
        }
        return true;
    };
    auto cut = [&](std::size_t i) {
        --uses[loop[i]];
        loop.erase(loop.begin() + long(i));
    };
    std::size_t next = 0; // going round rather than starting over gives fewer slivers, and sooner
    while (loop.size() > 3) {
        const auto n = loop.size();
        std::size_t tried = 0, ear = next % n;
        while (tried < n && !isEar(ear)) {
            ear = (ear + 1) % n;
            ++tried;
        }
        if (tried == n) { // corners in line: drop one without area, else give up
            std::size_t flat = 0;
            while (flat < n &&
                   std::abs(cross(p[loop[(flat + n - 1) % n]], p[loop[flat]], p[loop[(flat + 1) % n]])) > 1e-12)
                ++flat;
            if (flat == n) return {};
            cut(flat);
            continue;
        }
        result.triangles.push_back({loop[(ear + n - 1) % n], loop[ear], loop[(ear + 1) % n]});
        cut(ear);
        next = ear + 1;
    }
    if (loop.size() == 3) result.triangles.push_back({loop[0], loop[1], loop[2]});
    return result;
}

} // namespace waxis
