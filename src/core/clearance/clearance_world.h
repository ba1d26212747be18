// Distances and overlaps between posed solids, kept up to date while a few of them move.
#pragma once

#include "core/geometry/solid.h"

#include <functional>
#include <memory>
#include <vector>

namespace waxis {

struct Body {
    int owner = 0; ///< bodies of one owner are never measured against each other
    Shape shape;
    Pose X_FrameBody;
    double reach_mm = 0; ///< the farthest gap that anybody asks of this body
};

/// What a pair of bodies is to be measured for.
struct PairInterest {
    bool look = false;    ///< false: the pair is of no interest at all
    double within_mm = 0; ///< report the gap when it is not larger
    bool overlap = false; ///< work out depth and freeing move when they overlap
};

struct BodyGap {
    int a = 0, b = 0;                                  ///< body indices, a < b
    double distance_mm = 0;                            ///< 0 when touching or overlapping
    double depth_mm = 0;                               ///< overlap: the shortest move that frees the pair; 0 otherwise
    Vec3 freeingMove_mm = Vec3::Zero();                ///< of body a
    Vec3 onA_mm = Vec3::Zero(), onB_mm = Vec3::Zero(); ///< nearest points; for overlaps a point in both
};

/// Distance between two posed shapes in mm, 0 when they touch or overlap, with the nearest points.
/// Accuracy: 1e-6 mm for boxes, spheres and prisms, 1e-4 mm where a cylinder is involved.
/// Holes in prisms are respected. Meshes must be closed.
BodyGap measureGap(const Body &a, const Body &b);

/// The shortest translation of `a` that frees it from `b`. Exact for two boxes (15 separating axes); for other pairs of
/// convex shapes within 1e-4 mm (expanding polytope); where a prism has holes or looks inwards the best of its faces,
/// sixteen ways along it and the ways out of its pieces; for meshes that of their convex hull. Zero when they do not
/// overlap.
Vec3 freeingMove(const Body &a, const Body &b);

/// All pairs of interest. The broad phase is FCL's dynamic tree over boxes inflated by each body's reach.
class ClearanceWorld {
public:
    using Interest = std::function<PairInterest(int, int)>;

    ClearanceWorld();
    ~ClearanceWorld();
    ClearanceWorld(ClearanceWorld &&) noexcept;
    ClearanceWorld &operator=(ClearanceWorld &&) noexcept;

    /// Starts again with these bodies. `interest` is asked for index pairs (a < b) and must stay valid.
    void reset(std::vector<Body> bodies, Interest interest);
    /// The same number of bodies of the same owners. What did not change keeps its gaps, save bodies of the owners in
    /// `anew`, which are asked for something else.
    void renew(std::vector<Body> bodies, Interest interest, const std::vector<bool> &anew);

    /// New poses for bodies of one owner; everything else keeps its measured gaps.
    void move(int owner, const std::vector<Pose> &X_FrameBody);

    /// Any pair, whether of interest or not; no overlap depth.
    BodyGap measure(int a, int b) const;
    /// Whether body `a` shifted by `shift_mm` would touch or stand in body `b`.
    bool wouldTouch(int a, const Vec3 &shift_mm, int b) const;
    /// The bodies of other owners nearest to those of `owner`, one per owner, nearest first, within `reach_mm`.
    /// `allowed` says which bodies count.
    std::vector<BodyGap> nearest(int owner, double reach_mm, std::size_t most,
                                 const std::function<bool(int)> &allowed) const;

    const std::vector<Body> &bodies() const;
    /// The box round a body, in the frame's axes.
    const Aabb &boundsOfBody(int body) const;
    /// Sorted by (a, b).
    const std::vector<BodyGap> &gaps() const;

private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

} // namespace waxis
