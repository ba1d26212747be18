// The places that a wire is led by, before a way is searched between them: stops, ties, passes, along arms.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"
#include "core/wiring/route_field.h"
#include "core/wiring/routing.h"

#include <vector>

namespace waxis {

/// The arm that a part sits on: the one it is fastened to, or the one whose tip carries its motor mount.
const Arm *armUnder(const Build &build, const Part &part);

/// The middle of a pass-through, half way through its plate.
Vec3 middleOf(const PassThrough &pass, const Plate &plate);

/// Length and width of the smallest upright box round a pass-through.
Vec2 sidesOf_mm(const PassThrough &pass);

class WayPoints {
public:
    WayPoints(const Build &build, const Practice &practice, const RouteField &field)
        : build_(build), practice_(practice), field_(field) {}

    /// The places that the wire is led by, its ports first and last.
    std::vector<Vec3> pointsOf(const Wire &wire, const PortExit &from, const PortExit &to, double clearance_mm) const;

private:
    bool isClear(const Vec3 &p, double clearance_mm) const;

    /// Whether a plate lies over or under the place, between it and a height.
    bool isCovered(const Vec3 &p, double towards_mm) const;

    /// Two points on the arm: as near to `outer` as there is room, and towards the root as far as the
    /// wire can come out to `inner`.
    std::vector<Vec3> alongArm(const Arm &arm, const Vec3 &outer, const Vec3 &inner, double clearance_mm) const;

    /// Two points of one arm between two things that sit on it, as near to each as there is room.
    std::vector<Vec3> betweenOnArm(const Arm &arm, const Vec3 &from, const Vec3 &to, double clearance_mm) const;

    void alongArms(const Wire &wire, const Vec3 &from, const Vec3 &to, double clearance_mm,
                   std::vector<Vec3> &points) const;

    void byStop(const RouteStop &stop, const Vec3 &from, const Vec3 &to, double clearance_mm,
                std::vector<Vec3> &points) const;

    const Build &build_;
    const Practice &practice_;
    const RouteField &field_;
};

} // namespace waxis
