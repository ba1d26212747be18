// What stands in the way of a look: rays against posed solids.
#pragma once

#include "core/clearance/clearance_world.h"

#include <memory>
#include <span>
#include <vector>

namespace waxis {

/// A set of bodies that rays may hit. Single precision inside: good to about 0.01 mm over a craft.
/// Embree 3 does the search; its device is made once, when the first world is.
class RayWorld {
public:
    /// `bodies` that `counts` says no to are left out; `more` come behind them. Indices in answers are those of
    /// `bodies`, then of `more`.
    RayWorld(const std::vector<Body> &bodies, const std::function<bool(int)> &counts, std::span<const Body> more = {});
    ~RayWorld();
    RayWorld(RayWorld &&) noexcept;
    RayWorld &operator=(RayWorld &&) noexcept;

    struct Hit {
        int body = -1; ///< none: the ray gets away
        double distance_mm = 0;
    };
    /// The first body along a unit direction. Surfaces nearer than 0.001 mm do not count.
    Hit first(const Vec3 &origin_mm, const Vec3 &direction) const;
    /// The same for many directions from one place; -1 where the ray gets away.
    std::vector<int> firstBodies(const Vec3 &origin_mm, std::span<const Vec3> directions) const;
    /// Whether the line between two points is free.
    bool sees(const Vec3 &from_mm, const Vec3 &to_mm) const;

private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

/// `count` directions spread evenly over the sphere or, with `upperHalf`, over the hemisphere about +z: a golden-angle
/// spiral; each stands for the same solid angle.
std::vector<Vec3> evenDirections(int count, bool upperHalf);

} // namespace waxis
