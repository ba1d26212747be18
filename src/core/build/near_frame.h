// What still belongs to the craft, and what lies so far away that nothing sensible can be said of it.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// Nothing on a craft is farther from its frame than that; a mistyped place is. mm.
inline constexpr double kFarFromFrame_mm = 1500;

/// The box round plates, arms, standoffs and motor mounts, mm. Round the datum for a frame without any.
Aabb frameBounds(const Frame &frame);

/// How far a box is from the frame, mm; 0 inside it.
double fromFrame_mm(const Frame &frame, const Aabb &box);

} // namespace waxis
