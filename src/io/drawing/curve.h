// Inside drawing: entities as curves with a parameter, and their flattening.
#pragma once

#include "core/recognise/flat_drawing.h"

#include <Eigen/Geometry>
#include <functional>

namespace waxis::io {

using Affine = Eigen::Affine2d;

/// A curve over [0, 1] in its own coordinates; straight between `breaks` where `isStraight`.
struct Curve {
    std::function<Vec2(double)> at;
    int pieces = 1; ///< smooth pieces of equal parameter length: each is sampled by itself
    bool straight = false;
};

Curve lineCurve(const Vec2 &a, const Vec2 &b);
/// Angles in radians; travel is counter-clockwise from `from` to `to`, or clockwise where `to` is less.
Curve arcCurve(const Vec2 &centre, double radius, double from_rad, double to_rad);
/// `major` is the vector to the end of the long axis.
Curve ellipseCurve(const Vec2 &centre, const Vec2 &major, double ratio, double from_rad, double to_rad);
/// Polyline segment with a bulge: the tangent of a quarter of the arc's angle, positive to the left.
Curve bulgeCurve(const Vec2 &a, const Vec2 &b, double bulge);

struct SplineData {
    int degree = 3;
    bool closed = false;
    std::vector<double> knots, weights;
    std::vector<Vec2> controls, fits;
};
/// B-spline by de Boor's recursion; with fit points only a Catmull-Rom curve through them. Invalid data give no curve.
std::optional<Curve> splineCurve(const SplineData &spline);

/// Points of the mapped curve; no chord is farther than `tolerance` from it. At most 4,000 points a piece.
void flatten(const Curve &curve, const Affine &map, double tolerance, Ring &points);

} // namespace waxis::io
