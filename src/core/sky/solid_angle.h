// Closed forms for how much of the upper hemisphere a simple thing hides from a point. Lengths in mm, fractions of the
// whole hemisphere (2 pi sr). Source: solid angle of a rectangle seen from a point, geometry.
#pragma once

namespace waxis {

/// Solid angle, sr, of a rectangle in the plane at distance h > 0: sum over the corners (+ - - +) of
/// atan(x y / (h sqrt(x2 + y2 + h2))).
double rectangleSolidAngle_sr(double x1_mm, double x2_mm, double y1_mm, double y2_mm, double h_mm);

/// Share of the hemisphere hidden by an upright plate at distance s > 0, from y1 to y2 across and z1 to z2 in height;
/// only what lies above the horizon counts.
double wallFraction(double s_mm, double y1_mm, double y2_mm, double z1_mm, double z2_mm);

/// The same of the sky above an elevation mask only, by integrating over azimuth (adaptive Gauss-Kronrod, 1e-9).
double wallFractionAbove(double s_mm, double y1_mm, double y2_mm, double z1_mm, double z2_mm, double mask_deg);

/// Disc of radius R on the axis at height h >= 0: 1 - h / sqrt(h2 + R2).
double discFraction(double R_mm, double h_mm);

/// Share of the sky above an elevation: 1 - sin e.
double skyAbove(double elevation_deg);

} // namespace waxis
