#pragma once

#include "core/build/frame.h"

namespace waxis {

/// The point `length_mm` from the origin at a bearing in degrees, clockwise from the nose as seen from above.
Vec2 along(double bearing_deg, double length_mm);

/// A rectangle as a ring, counter-clockwise.
Ring rectangle(double x0_mm, double x1_mm, double y0_mm, double y1_mm);

/// Drills a round hole where it leaves 1.5 mm of material to every other hole and to the edge; false, and the plate
/// untouched, where it does not. The land is common practice, no source.
bool drill(Plate &plate, const Vec2 &centre_mm, double diameter_mm);

/// Cuts a straight-sided opening where it leaves the same land; false, and the plate untouched, where it does not.
bool cut(Plate &plate, double x0_mm, double x1_mm, double y0_mm, double y1_mm);

/// Whether a cap head or lock nut of M3 finds room at that place beside the plate's other holes.
bool headFits(const Plate &plate, const Vec2 &centre_mm);

} // namespace waxis
