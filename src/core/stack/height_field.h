// What stands where on the boards of a stack: pieces with an outline in plan and a height range. Exact for upright
// boxes, cylinders and prisms; leaning and round things count as the upright prism round them.
#pragma once

#include "core/build/build.h"
#include "core/build/chain.h"
#include "core/practice/practice.h"

#include <span>

namespace waxis {

struct FieldPiece {
    Polygon footprint; ///< base axes of the stack, mm
    double from_mm = 0, to_mm = 0;
    std::string what; ///< "component", "plug", "board", "wire ends of battery" ...
    bool bare = false, conductive = false;
    bool board = false; ///< the clamped board itself: what it touches it may touch
};

/// The firm solids of a part, and the cut wire ends that stand out of its soldered pads on the other face.
std::vector<FieldPiece> fieldOf(const Build &build, const Part &part, const Pose &X_BaseFrame,
                                const Practice &practice);
/// The same for a seat that is known already; `board`: it lies in its stack as a board, with its wire ends.
std::vector<FieldPiece> fieldOf(const Build &build, const Part &part, const Pose &X_BaseFrame, const Practice &practice,
                                const std::optional<StackSeat> &seat, bool board);
/// A plate with its holes.
FieldPiece fieldOf(const Plate &plate, const Frame &frame, const Pose &X_BaseFrame);
FieldPiece fieldOf(const Arm &arm, const Frame &frame, const Pose &X_BaseFrame);

struct FieldGap {
    double gap_mm = 0; ///< from the lower piece's top to the upper piece's underside; negative: they meet
    std::size_t lower = 0, upper = 0;
    Ring where; ///< the outline in which the two lie over one another, base axes
};

/// The smallest gap between pieces that lie over one another; none when nothing does.
std::optional<FieldGap> smallestGap(std::span<const FieldPiece> lower, std::span<const FieldPiece> upper);

/// Overlap of two outlines, the largest piece of it; empty when they do not share an area of 0.0001 mm2.
Ring overlapOf(const Polygon &a, const Polygon &b);

} // namespace waxis
