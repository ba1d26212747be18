// By which a state of the build is known again.
#pragma once

#include "core/build/build.h"

#include <string>

namespace waxis {

/// 16 hexadecimal digits over what matters for how the craft measures and flies: parts, their types, places (to 0.01
/// mm) and fastening, stacks, wires and their ways, the frame, radio settings. Names, notes, kit, ticks, limits, load
/// cases, weights and the log itself do not count.
std::string fingerprintOf(const Build &build);

} // namespace waxis
