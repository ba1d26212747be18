// Which arm carries a motor.
#pragma once

#include "core/build/frame.h"

namespace waxis {

/// The arm that carries a motor mount: its tip is near the motor in plan. Null for none.
const Arm *armOf(const Frame &frame, const MotorMount &mount);

} // namespace waxis
