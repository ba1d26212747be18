#include "io/drawing/curve.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>
#include <memory>

namespace waxis::io {

Curve lineCurve(const Vec2 &a, const Vec2 &b) {
    return {[a, b](double t) { return Vec2(a + (b - a) * t); }, 1, true};
}

Curve arcCurve(const Vec2 &centre, double radius, double from_rad, double to_rad) {
    return ellipseCurve(centre, {radius, 0}, 1, from_rad, to_rad);
}

Curve ellipseCurve(const Vec2 &centre, const Vec2 &major, double ratio, double from_rad, double to_rad) {
    const Vec2 minor = Vec2(-major.y(), major.x()) * ratio;
    const double sweep = to_rad - from_rad;
    const int pieces = std::max(1, int(std::ceil(std::abs(sweep) / (kPi / 4) - 1e-9)));
    return {[=](double t) {
                const double angle = from_rad + sweep * t;
                return Vec2(centre + major * std::cos(angle) + minor * std::sin(angle));
            },
            pieces, false};
}

Curve bulgeCurve(const Vec2 &a, const Vec2 &b, double bulge) {
    const Vec2 chord = b - a;
    if (std::abs(bulge) < 1e-9 || chord.norm() < 1e-12) return lineCurve(a, b);
    // Centre: from the chord's middle to the left by (1 - bulge^2) / (4 bulge) of the chord.
    const Vec2 left(-chord.y(), chord.x());
    const Vec2 centre = (a + b) / 2 + left * ((1 - bulge * bulge) / (4 * bulge));
    const Vec2 spoke = a - centre;
    const double from = std::atan2(spoke.y(), spoke.x());
    return arcCurve(centre, spoke.norm(), from, from + 4 * std::atan(bulge));
}

namespace {

/// De Boor's recursion in homogeneous coordinates.
Vec2 bSpline(const SplineData &s, double u) {
    const int n = int(s.controls.size()), p = s.degree;
    // The last knot that is not beyond u, among those that have a span behind them.
    const auto above = std::upper_bound(s.knots.begin() + p + 1, s.knots.begin() + n, u);
    const int k = int(above - s.knots.begin()) - 1;
    std::vector<Vec3> d;
    for (int i = k - p; i <= k; ++i) {
        const double w = s.weights.empty() ? 1.0 : s.weights[std::size_t(i)];
        d.emplace_back(s.controls[std::size_t(i)].x() * w, s.controls[std::size_t(i)].y() * w, w);
    }
    for (int r = 1; r <= p; ++r)
        for (int j = p; j >= r; --j) {
            const double low = s.knots[std::size_t(j + k - p)], high = s.knots[std::size_t(j + 1 + k - r)];
            const double share = high > low ? (u - low) / (high - low) : 0.0;
            d[std::size_t(j)] = (1 - share) * d[std::size_t(j - 1)] + share * d[std::size_t(j)];
        }
    const Vec3 &h = d[std::size_t(p)];
    return h.z() != 0 ? Vec2(h.head<2>() / h.z()) : Vec2(h.head<2>());
}

Vec2 catmullRom(const std::vector<Vec2> &points, bool closed, double t) {
    const int n = int(points.size()), spans = closed ? n : n - 1;
    const double along = std::min(t * spans, spans - 1e-12);
    const int i = int(along);
    const double u = along - i;
    auto at = [&](int k) {
        return closed ? points[std::size_t((k % n + n) % n)] : points[std::size_t(std::clamp(k, 0, n - 1))];
    };
    const Vec2 a = at(i - 1), b = at(i), c = at(i + 1), d = at(i + 2);
    return b + (c - a) * (u / 2) + (a - 2.5 * b + 2 * c - d / 2) * (u * u) +
           (1.5 * (b - c) + (d - a) / 2) * (u * u * u);
}

} // namespace

std::optional<Curve> splineCurve(const SplineData &s) {
    const std::size_t n = s.controls.size();
    if (n >= 2 && s.degree >= 1 && s.degree <= 25 && n > std::size_t(s.degree) &&
        s.knots.size() == n + std::size_t(s.degree) + 1) {
        if (!s.weights.empty() && s.weights.size() != n) return std::nullopt;
        for (std::size_t i = 1; i < s.knots.size(); ++i)
            if (!(s.knots[i] >= s.knots[i - 1])) return std::nullopt;
        const double first = s.knots[std::size_t(s.degree)], last = s.knots[n];
        if (!(last > first)) return std::nullopt;
        const int pieces = int(std::min<std::size_t>(n * 2, 4000));
        return Curve{[kept = std::make_shared<const SplineData>(s), first, last](double t) {
                         return bSpline(*kept, first + (last - first) * t);
                     },
                     pieces, false};
    }
    if (s.fits.size() >= 2) {
        const int spans = int(std::min<std::size_t>(s.fits.size(), 4000));
        return Curve{[fits = std::make_shared<const std::vector<Vec2>>(s.fits), closed = s.closed](double t) {
                         return catmullRom(*fits, closed, t);
                     },
                     spans, false};
    }
    return std::nullopt;
}

namespace {

void halve(const Curve &curve, const Affine &map, double tolerance, double t0, const Vec2 &p0, double t1,
           const Vec2 &p1, int depth, Ring &points) {
    // Thirds as well as the middle, so that an S in one piece is not taken for straight.
    const Vec2 chord = p1 - p0;
    const double length = chord.norm();
    double off = 0;
    for (double share : {0.5, 1.0 / 3, 2.0 / 3}) {
        const Vec2 d = map * curve.at(t0 + (t1 - t0) * share) - p0;
        off = std::max(off, length > 1e-12 ? std::abs(chord.x() * d.y() - chord.y() * d.x()) / length : d.norm());
    }
    constexpr std::size_t kMost = 1'000'000; // a wild curve is not followed into its last corner
    if (off > tolerance && depth < 12 && points.size() < kMost) {
        const double middle = (t0 + t1) / 2;
        const Vec2 p = map * curve.at(middle);
        halve(curve, map, tolerance, t0, p0, middle, p, depth + 1, points);
        halve(curve, map, tolerance, middle, p, t1, p1, depth + 1, points);
        return;
    }
    points.push_back(p1);
}

} // namespace

void flatten(const Curve &curve, const Affine &map, double tolerance, Ring &points) {
    Vec2 previous = map * curve.at(0);
    if (points.empty()) points.push_back(previous);
    if (curve.straight) {
        points.push_back(map * curve.at(1));
        return;
    }
    for (int i = 1; i <= curve.pieces; ++i) {
        const double t0 = double(i - 1) / curve.pieces, t1 = double(i) / curve.pieces;
        const Vec2 next = map * curve.at(t1);
        halve(curve, map, tolerance, t0, previous, t1, next, 0, points);
        previous = next;
    }
}

} // namespace waxis::io
