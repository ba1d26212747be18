// What is lost when two antennas swing in different ways.
#pragma once

#include "core/catalog/ratings.h"

namespace waxis {

/// A ratio of axes beyond this is a line, dB.
inline constexpr double kLinearAxialRatio_dB = 60;

/// Linear to linear, dB: -20 log10 |cos(angle)|; at most 100.
double linearMismatch_dB(double angle_deg);

/// Any two ellipses, dB; at most 100. Axial ratios in dB from 0 (circle) to 60 (line), tilt between their long axes.
/// p = 1/2 + [4 s r1 r2 + (1 - r1^2)(1 - r2^2) cos 2 tilt] / [2 (1 + r1^2)(1 + r2^2)]; standard antenna texts.
double ellipticalMismatch_dB(double axialRatio1_dB, double axialRatio2_dB, double tilt_deg, bool sameHand);

/// How well an antenna of this axial ratio tells the hands apart: 20 log10((r + 1)/(r - 1)), dB; at most 100.
double crossPolarDiscrimination_dB(double axialRatio_dB);

/// Right for left and left for right; a straight one stays.
Polarisation otherHand(Polarisation hand);

} // namespace waxis
