// The hardware that a column of bare boards still lacks: dampers, spacers, nuts, screws.
#pragma once

#include "core/edits/part_edits.h"
#include "core/practice/practice.h"

namespace waxis {

/// Fits a stack out: under every board that lies on nothing but the board or plate below, the lowest spacers from stock
/// (dampers under the lowest board where the practice mounts the controller softly) that leave the air the practice
/// wants; nuts at the outer end; the screws that then reach. What lies there already stays. Error: no such stack, no
/// board in it, no thread that passes its holes.
EditResult furnishStack(const Build &build, const std::string &stack, const Practice &practice);

/// Something of that is missing: a board lies bare on its neighbour, there are no screws, or no nuts for them.
bool lacksHardware(const Build &build, const std::string &stack);

} // namespace waxis
