// Round things side by side: twists, bundles, holes, bends, corners.
#pragma once

#include <span>

namespace waxis {

/// How much longer each wire of a twist is than the run: sqrt(1 + (pi dc / pitch)^2), dc = distance of the wires'
/// centres (the outside diameter when they touch), mm. 1 without a pitch. Source: helix geometry.
double twistFactor(double centres_mm, double pitch_mm);

/// Diameter of the smallest circle round N equal wires, in wire diameters: proven or best known packings up to 20
/// (from memory), beyond that by an area share of 0.78. 0 for none.
double bundleDiameters(int wires);
/// Diameter of a bundle of unlike wires, mm: that of as many equal ones of the same area, not less than the two
/// thickest side by side. Within a few per cent.
double bundleDiameter_mm(std::span<const double> outer_mm);

/// Share of a hole that wires may fill: 53 % one, 31 % two, 40 % more. Source: NFPA 70 chapter 9 table 1, from memory;
/// conduit practice, a default here.
double fillLimit(std::size_t wires);
/// Sum of squares over the square of the hole's diameter.
double fillOf(std::span<const double> outer_mm, double hole_mm);

/// Arc along the middle of a wire bent by `angle_deg` at an inside radius, mm.
double bendArc_mm(double insideRadius_mm, double outer_mm, double angle_deg);

/// What rounding a corner does to a path's length, mm (negative): r (t - 2 tan(t/2)) for a turn of t at a radius r of
/// the path. Turns of 170 degrees and more count as 170.
double cornerChange_mm(double radius_mm, double turn_deg);

} // namespace waxis
