// Chances of a doubtful point in the plan.
#pragma once

#include "core/geometry/pose.h"

namespace waxis {

using Mat2 = Eigen::Matrix2d;

/// Chance that a point with a normal doubt lies within `radius_mm` of the origin. `covariance_mm2` is one standard
/// deviation squared and may be singular. Simpson over the wider principal axis, error under 1e-6; a sure point gives
/// 0 or 1. NaN anywhere gives 0.
double chanceInRing(const Vec2 &mean_mm, const Mat2 &covariance_mm2, double radius_mm);

/// Ellipse that holds a normal doubt with 95 %: half axes sqrt(5.991 lambda) (chi squared, two degrees of freedom).
struct DoubtEllipse {
    double semiMajor_mm = 0, semiMinor_mm = 0;
    double turn_deg = 0; ///< of the major axis, from forward towards the left
};
DoubtEllipse ellipse95(const Mat2 &covariance_mm2);

} // namespace waxis
