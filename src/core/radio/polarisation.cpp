#include "core/radio/polarisation.h"

#include "core/base/units.h"
#include "core/radio/decibel.h"

namespace waxis {

namespace {
constexpr double kMost_dB = 100; // exactly crossed ones lose all: no antenna is that good

double capped(double loss_dB) { return std::min(loss_dB, kMost_dB); }
} // namespace

double linearMismatch_dB(double angle_deg) {
    const double c = std::abs(std::cos(radiansFromDegrees(angle_deg)));
    return capped(-20 * std::log10(std::max(c, 1e-30)));
}

double ellipticalMismatch_dB(double axialRatio1_dB, double axialRatio2_dB, double tilt_deg, bool sameHand) {
    const double r1 = std::pow(10.0, axialRatio1_dB / 20), r2 = std::pow(10.0, axialRatio2_dB / 20);
    const double s = sameHand ? 1 : -1;
    const double p =
        0.5 + (4 * s * r1 * r2 + (1 - r1 * r1) * (1 - r2 * r2) * std::cos(2 * radiansFromDegrees(tilt_deg))) /
                  (2 * (1 + r1 * r1) * (1 + r2 * r2));
    return std::max(0.0, capped(-decibels(std::max(p, 1e-30))));
}

double crossPolarDiscrimination_dB(double axialRatio_dB) {
    const double r = std::pow(10.0, axialRatio_dB / 20);
    return capped(20 * std::log10((r + 1) / std::max(r - 1, 1e-30)));
}

Polarisation otherHand(Polarisation hand) {
    if (hand == Polarisation::linear) return hand;
    return hand == Polarisation::leftCircular ? Polarisation::rightCircular : Polarisation::leftCircular;
}

} // namespace waxis
