// Where an antenna sends and hears. Every shape is a body of revolution about the antenna's axis, normalised so that
// what it gains in one direction it lacks in another: its directivity averages 1 over the sphere.
#pragma once

#include "core/catalog/ratings.h"

namespace waxis {

enum class GainShape {
    halfWave,  ///< [cos(pi/2 cos t)/sin t]^2
    shortLoop, ///< sin^2 t: short loaded elements
    halves,    ///< half-wave shape, stronger on the side of the axis: over a plane
    roundOmni, ///< a sin^2 t + b: circular omnis, whose null is filled
    forward,   ///< ((1 + cos t)/2)^m and a small floor behind: patches, helices
    table      ///< as stated, every direction
};

struct AntennaPattern {
    GainShape shape = GainShape::halfWave;
    double parameter = 0;  ///< weight of the upper half, share of sin^2, exponent
    double efficiency = 1; ///< stated gain over the shape's own: what the antenna loses
    std::vector<PatternPoint> table;
};

/// The shape for an antenna's kind that has its stated gain. Where the kind cannot be that directive, the most it can;
/// where it is more directive than stated, the rest is loss.
AntennaPattern patternOf(const Antenna &antenna);

/// Linear directivity for the cosine of the angle off the axis.
double directivity(const AntennaPattern &pattern, double cosToAxis);
/// Gain with losses, dBi; never below kPatternFloor_dB under the strongest direction: nothing on a craft hears nothing
/// (common practice, no source).
double patternGain_dBi(const AntennaPattern &pattern, double cosToAxis);
inline constexpr double kPatternFloor_dB = 20;
/// The strongest direction, dBi.
double peakGain_dBi(const AntennaPattern &pattern);

/// Kinds that are a straight piece of wire: near ones are computed as thin dipoles.
bool isStraightElement(AntennaKind kind);

} // namespace waxis
