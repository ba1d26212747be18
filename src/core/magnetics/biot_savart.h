// Magnetic fields of currents and magnets. Lengths mm, currents A, fields in microtesla; moments in mA m2.
// Source: Biot and Savart's law (Griffiths, Introduction to Electrodynamics; Jackson, Classical Electrodynamics).
#pragma once

#include "core/geometry/pose.h"

#include <span>

namespace waxis {

/// Infinitely long straight wire.
double longWireField_uT(double current_A, double distance_mm);
/// Straight piece with current from a to b.
Vec3 segmentField_uT(const Vec3 &a_mm, const Vec3 &b_mm, const Vec3 &point_mm, double current_A);
/// A polyline, current along its points.
Vec3 polylineField_uT(std::span<const Vec3> points_mm, const Vec3 &point_mm, double current_A);

struct RingField {
    double radial_uT = 0, axial_uT = 0;
};
/// Circular loop, at `rho` from its axis and `z` over its plane (complete elliptic integrals).
RingField loopField_uT(double radius_mm, double rho_mm, double z_mm, double current_A);
/// Rectangular loop on its axis.
double rectangleField_uT(double a_mm, double b_mm, double z_mm, double current_A);

struct PairField {
    double inPlane_uT = 0, normal_uT = 0, dipole_uT = 0; ///< the last: far approximation mu0 I s/(2 pi r^2)
};
/// Two long wires `spacing` apart with opposite currents, `r` from their middle: in their plane and square to it.
PairField pairField_uT(double current_A, double spacing_mm, double r_mm);
/// Long twisted pair (two opposite helices), opposite a wire: series of modified Bessel functions. It falls about as
/// exp(-2 pi r/pitch). Only outside the pair (r > spacing/2).
double twistedPairField_uT(double current_A, double spacing_mm, double pitch_mm, double r_mm);
/// How much weaker a twisted pair is than the same pair flat, 0 to 1.
double twistRelief(double spacing_mm, double pitch_mm, double r_mm);

/// A small magnet.
Vec3 dipoleField_uT(const Vec3 &moment_mAm2, const Vec3 &fromMagnet_mm);

/// Heading error for one heading: across and along the horizontal component, deg.
double headingError_deg(double earth_uT, double across_uT, double along_uT);
/// The worst over all headings: asin(|disturbance|/earth), deg; 180 where the disturbance is the stronger.
double worstHeadingError_deg(double earth_uT, double disturbance_uT);

struct EarthField {
    double horizontal_uT = 0, vertical_uT = 0, inclination_deg = 0;
};
/// Centred axial dipole with `equator_uT` (29.6, from memory) at its equator; real fields differ by a third.
EarthField earthField(double geomagneticLatitude_deg, double equator_uT);

} // namespace waxis
