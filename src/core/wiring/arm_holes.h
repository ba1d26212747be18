// Ways through the holes in the walls of hollow arms.
#pragma once

#include "core/build/frame.h"

#include <optional>
#include <span>

namespace waxis {

/// Where a way goes through a hole in an arm's wall, frame axes; none where it does not.
std::optional<Vec3> throughHole(std::span<const Vec3> points_mm, const Arm &arm, const ArmHole &hole);

} // namespace waxis
