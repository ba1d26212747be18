// Groups of mounting holes as boards and motors carry them.
#pragma once

#include "core/geometry/pose.h"

#include <vector>

namespace waxis {

/// A square is named by its side, a circle (motor base) by its diameter, as the trade does it (common practice, no
/// source).
enum class PatternShape { square, circle, rectangle };

struct HolePattern {
    PatternShape shape = PatternShape::square;
    double size_mm = 0;         ///< side of the square, diameter of the circle, length (x) of the rectangle
    double width_mm = 0;        ///< rectangle only: extent along y
    double holeDiameter_mm = 0; ///< as drilled
    int holes = 4;              ///< on a circle; squares and rectangles have four
    bool operator==(const HolePattern &) const = default;
};

/// Centres of the holes in the pattern's own plane, mm, counter-clockwise from the front left.
std::vector<Vec2> holeCentres(const HolePattern &pattern);

/// Same shape and size within 0.1 mm (drilling tolerance, common practice, no source): the holes line up.
bool linesUp(const HolePattern &a, const HolePattern &b);

} // namespace waxis
