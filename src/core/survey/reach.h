// What hands and arms reach: plugs, folding arms, what slides.
#pragma once

#include "core/geometry/pose.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct AccessSurvey {
    std::string part, port;
    std::string loadCase;
    bool hand = false;               ///< must stay reachable; else a plug's own room
    Vec3 fullSize_mm = Vec3::Zero(); ///< of the corridor
    Pose X_FrameCorridor;            ///< its middle, x outwards
    std::vector<std::string> blockers;
    std::optional<std::vector<std::string>> takeOff; ///< the fewest found, in order; none: not by taking things off
};

struct FoldContact {
    std::string a, b;    ///< a moves
    double fraction = 0; ///< of the way at which they first meet
    double depth_mm = 0; ///< there, or at the end
    bool folded = false; ///< they still meet when folded
    Vec3 at_mm = Vec3::Zero();
};

/// What a joint turns (a gimbal's payload, a landing gear, a tail that a servo tilts) meets on its travel.
struct TravelContact {
    std::string part;  ///< whose joint it is; of a tail: the servo
    std::string mover; ///< what meets: the part, or what sits on it
    std::string met;   ///< part, frame member or motor mount (its propeller's zone)
    std::string joint; ///< name of the joint that is farthest from how it is drawn; may be empty
    double angle_deg = 0, depth_mm = 0, gap_mm = 0;
    bool zone = false; ///< `met` is a propeller's zone
    Vec3 at_mm = Vec3::Zero();
};

struct SlideSurvey {
    std::string part;
    double free_min_mm = 0, free_max_mm = 0; ///< how far it gets before it meets something, from where it is
    std::string stopAft, stopFore;           ///< what it meets, or the strap that it would slip out of; empty: the
                                             ///< end of its range
};

} // namespace waxis
