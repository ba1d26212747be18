// The wires that every craft of its kind has: joined at once, by custom, where both ends are free.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// Joins what belongs together and is not joined yet: packs to the battery plug, the plug to the four-in-one board, the
/// distribution board or the single speed controllers, the capacitor beside them, motors to the outputs of their
/// numbers, the controller's flat cable or the single controllers' signals, camera and video transmitter, receivers,
/// GPS with its compass, buzzer and lamps, antennas to the free radio of their band whose connector takes them (common
/// practice, no source). Nothing that a wire already does is done twice; what fits no port is left. The names of the
/// new wires are appended to `joined`.
Build joinWhatFits(const Build &build, std::vector<std::string> *joined = nullptr);

} // namespace waxis
