// How the motors share the weight in hover, what each has left, and whether the craft wants to turn.
#pragma once

#include "core/build/build.h"

#include <optional>
#include <vector>

namespace waxis {

struct HoverShare {
    std::vector<double>
        thrusts_N;               ///< by motor mount, along its axis: least norm, yaw ignored; empty: cannot be balanced
    Vec2 aside_N = Vec2::Zero(); ///< what leaning motors push forward and to the left; the craft leans against it
    double lean_deg = 0;         ///< by which it hangs leaning for that
    /// The same with the propellers' torques in balance too; empty: no such hover, as with three motors.
    std::vector<double> yawBalanced_N;
    std::vector<std::optional<double>> most_N; ///< stated thrust of the motor on each mount
    int mostLoaded = -1;                       ///< mount; -1: none
    double mostOverMean = 1;                   ///< thrust of that one over the mean
    /// Mount that has least left, as thrust over what it can; unknown where any motor states no thrust.
    int tightest = -1;
    double tightestShare = 0;
    /// Torque left over, in shares of all torques: positive turns the nose to the left. Torque of a propeller goes as
    /// thrust times diameter, and as the root of its pitch and blades where all of them state these (rough). 0 without
    /// thrusts.
    double yawLeft = 0;
    bool yawServo = false; ///< a servo aboard holds the yaw
};

/// Thrusts that hover, in N; gravity is standard.
HoverShare hoverShare(const Build &build, const LoadCase &loadCase, const Vec3 &cg_mm, double mass_g);

} // namespace waxis
