// Cures that take too long to look for while the mouse is down.
#pragma once

#include "core/findings/fix.h"

#include <string>
#include <vector>

namespace waxis {

/// What would help a compass.
struct CompassHelp {
    std::string compass; ///< part
    std::string magnet;  ///< part; empty: against currents
    std::vector<Fix> fixes;
};

/// How a part that bends may be turned out of a propeller's zone.
struct TurnHelp {
    std::string part, mount;
    std::vector<Fix> fixes;
};

/// Where a part that hangs in the air could sit.
struct PlaceHelp {
    std::string part;
    std::vector<Fix> fixes;
};

} // namespace waxis
