// What a body meets on a straight way: exact for convex pieces, since what a convex body covers on its way is convex.
#pragma once

#include "core/clearance/clearance_world.h"

#include <memory>
#include <vector>

namespace waxis {

/// Bodies made ready for many questions. A mover is taken a little smaller than it is, so that what touches it or holds
/// it snugly does not hold it back.
class Sweeps {
public:
    explicit Sweeps(const std::vector<Body> &bodies);
    ~Sweeps();
    Sweeps(Sweeps &&) noexcept;
    Sweeps &operator=(Sweeps &&) noexcept;

    /// Whether the body meets the other anywhere on the way, its ends included.
    bool meets(int mover, const Vec3 &way_mm, int other) const;
    /// Whether it does so where it stands: a shaft in its propeller, a plug in its socket.
    bool standsIn(int mover, int other) const { return meets(mover, Vec3::Zero(), other); }
    /// Whether a convex shape that is no body of these (a driver, a hand) meets the other on its way.
    bool meets(const Body &mover, const Vec3 &way_mm, int other) const;

    const Aabb &boundsOf(int body) const;

private:
    struct Impl;
    std::unique_ptr<Impl> impl_;
};

/// How much smaller a mover is taken across each of its axes, mm, and at most this share of its size.
inline constexpr double kSnug_mm = 0.6, kMostSnug = 0.45;

} // namespace waxis
