// What shakes, and at which frequency: arms that bend, rotors that turn, boards on soft mounts.
#pragma once

#include <optional>

namespace waxis {

/// An arm across: outer sizes and wall, mm; wall 0: solid.
struct ArmAcross {
    double width_mm = 0, thickness_mm = 0, wall_mm = 0;
    bool round = false; ///< an oval tube or rod instead of a rectangle
};
/// Second moments of area, mm4, against bending up and in the plane; area, mm2.
struct SectionMoments {
    double up_mm4 = 0, inPlane_mm4 = 0, area_mm2 = 0;
};
SectionMoments sectionMoments(const ArmAcross &across);

/// First bending of an arm that is held at its root and carries a mass at its end, Hz: Rayleigh's method with 33/140 of
/// the arm's own mass. `E_GPa` along the arm: plate laminate 40 to 70 (from memory).
struct ArmBending {
    double up_Hz = 0, inPlane_Hz = 0, arm_g = 0;
};
ArmBending armBending(const ArmAcross &across, double length_mm, double E_GPa, double density_g_cm3, double tip_g);

/// Turns of a propeller that makes a thrust, 1/s: T = C_T rho n^2 D^4. C_T 0.08 to 0.14 standing (from memory).
double rotorTurns_Hz(double thrust_N, double diameter_mm, double thrustCoefficient, double density_kg_m3);

/// A board on soft mounts as one mass on a spring (Den Hartog): its own frequency from how far it sags under its
/// weight, and how much of a shake gets through.
struct SoftMount {
    double own_Hz = 0, transmissibility = 0;
    bool isolates = false; ///< the shake is faster than sqrt 2 times its own frequency
};
SoftMount softMount(double sag_mm, double dampingRatio, double excitation_Hz);

} // namespace waxis
