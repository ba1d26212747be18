// From loose lines and arcs to closed loops.
#pragma once

#include "core/recognise/flat_drawing.h"

namespace waxis {

struct ClosedLoop {
    std::string layer;
    Ring ring; ///< counter-clockwise
    std::optional<DrawnCircle> circle;
    double area_mm2 = 0; ///< without holes, positive
};

struct LoopSearch {
    std::vector<ClosedLoop> loops;
    std::vector<Skipped> skipped; ///< open chains, branches, lines drawn twice, loops without area
};

/// Joins paths of one layer whose ends are within `tolerance_mm` of each other. At a point where more than two ends
/// meet the straightest way on is taken and the branch is reported. Paths drawn twice count once. In a layer's order.
LoopSearch closedLoops(const FlatDrawing &drawing, double tolerance_mm);

} // namespace waxis
