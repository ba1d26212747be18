// Inside the clearance module: the distance of two convex shapes.
#pragma once

#include "core/geometry/solid.h"

#include <limits>

namespace waxis::clearance {

/// A posed convex shape, ready to be asked for its farthest point. A sphere is its centre with a rind. Refers to the
/// shape.
class Convex {
public:
    /// Box, cylinder, sphere, or a prism whose outline is convex and has no holes.
    Convex(const Shape &shape, const Pose &X_FrameShape);
    /// Smaller by so much across each of its own axes, but by no more than a share of its size, about its middle.
    Convex shrunk(double by_mm, double mostShare) const;
    /// All that it covers on a straight way.
    Convex swept(const Vec3 &way_mm) const;
    /// Farthest point along a direction in the frame's axes, without the rind.
    Vec3 support(const Vec3 &direction) const;
    const Vec3 &origin() const { return p_Frame_; }
    double rind_mm() const { return rind_mm_; }

private:
    const Shape &shape_;
    Mat3 R_FrameShape_;
    Vec3 p_Frame_;
    double rind_mm_ = 0;
    Vec3 middle_ = Vec3::Zero(), scale_ = Vec3::Ones(); ///< in its own axes
    Vec3 way_mm_ = Vec3::Zero();
};

struct ConvexGap {
    double distance_mm = 0; ///< 0 when they touch or overlap
    Vec3 onA_mm = Vec3::Zero(), onB_mm = Vec3::Zero();
};

/// Gilbert, Johnson and Keerthi 1988, with the nearest point of each simplex found by trying its faces. Stops when the
/// plane across the result proves it right within 1e-6 mm; where round shapes converge more slowly, after 100 rounds
/// (better than 1e-4 mm).
/// Farther apart than `within_mm`: an infinite distance, found sooner.
/// Where they overlap, one point that lies in both is given twice.
ConvexGap convexDistance(const Convex &a, const Convex &b, double within_mm = std::numeric_limits<double>::infinity());

/// The same of what is under the rinds: a ball is its middle.
ConvexGap coreDistance(const Convex &a, const Convex &b, double within_mm = std::numeric_limits<double>::infinity());

} // namespace waxis::clearance
