// What a hole in a plate is: drilled round, a slot, a window; and which round ones belong together.
#pragma once

#include "core/fasteners/thread.h"
#include "core/geometry/hole_pattern.h"
#include "core/recognise/loops.h"

namespace waxis {

struct FoundHole {
    Vec2 centre_mm = Vec2::Zero();
    double diameter_mm = 0;
    std::optional<ScrewHole> screw; ///< by ISO 273, or as somebody corrected it; none: no screw of M1.6 to M4
    int pattern = -1;               ///< index of the pattern that it belongs to
};

enum class SlotUse {
    passThrough, ///< wires
    tie,         ///< cable tie
    strap,       ///< battery strap
    motorSlot,   ///< one of the long holes of a motor base
    window       ///< cut out to save weight
};

struct FoundSlot {
    Ring ring;
    Vec2 centre_mm = Vec2::Zero();
    double length_mm = 0, width_mm = 0; ///< of the tightest box round it
    double angle_deg = 0;               ///< of the long side, in (-90, 90]
    double area_mm2 = 0;
    bool roundEnds = false;
    SlotUse use = SlotUse::passThrough;
};

enum class PatternUse { stack, motor, other };

struct FoundPattern {
    PatternUse use = PatternUse::other;
    HolePattern pattern; ///< nominal sizes
    Vec2 centre_mm = Vec2::Zero();
    double angle_deg = 0;     ///< of the pattern's x axis, in (-45, 45]
    double measured_mm = 0;   ///< side of the square, diameter of the circle as drawn
    double secondSize_mm = 0; ///< motor bases of two diameters (16 x 19): the larger one; else 0
    std::vector<int> holes;   ///< indices into the plate's round holes
    bool shaftHole = false;   ///< a larger hole in the middle, as motors need for their shaft
};

/// The circle that a ring is, when all its corners and the middles of its sides keep within `tolerance_mm` of it.
std::optional<DrawnCircle> circleOf(const ClosedLoop &loop, double tolerance_mm = 0.05);

/// The tightest box round the ring (rotating calipers over the hull), and what it is used for by its size: ties 1.2 to
/// 4 mm wide and up to 9 mm long, straps 2 to 6 mm wide and 12 to 45 mm long, windows from 500 mm2 on (common practice,
/// no source).
FoundSlot slotOf(const ClosedLoop &loop);

/// Stack squares of 16, 20, 25.5 and 30.5 mm, motor circles of 9, 12, 16, 19 and 25 mm and the crossed 16 x 19, among
/// holes of like diameter, in any direction; 0.2 mm off at the most. A motor has no
/// place round a stack unless a shaft hole says so. A hole belongs to one pattern: those with a shaft
/// hole and the larger ones come first.
std::vector<FoundPattern> findPatterns(std::vector<FoundHole> &holes);

} // namespace waxis
