// Tails that a servo tilts about their arm.
#pragma once

#include "core/build/build.h"

namespace waxis {

inline constexpr double kServoTravel_deg = 30; ///< either way (common practice, no source)

/// The servo that sits on the arm of a motor mount; null: none does.
const Part *tiltingServo(const Build &build, const MotorMount &mount);

} // namespace waxis
