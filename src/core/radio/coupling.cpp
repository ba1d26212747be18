#include "core/radio/coupling.h"

#include "core/base/units.h"
#include "core/radio/decibel.h"
#include "core/radio/free_space.h"
#include "core/radio/polarisation.h"
#include "core/radio/thin_dipoles.h"

#include <array>
#include <atomic>
#include <cmath>

namespace waxis {

namespace {

double sideBySide_dB(double distance) {
    return dipoleCoupling_dB(mutualImpedance({}, {Vec3(distance, 0, 0), Vec3::UnitZ(), 0.5}));
}

double axialRatio(const Antenna &antenna) {
    if (antenna.polarisation == Polarisation::linear) return kLinearAxialRatio_dB;
    if (antenna.axialRatio_dB) return *antenna.axialRatio_dB;
    return antenna.kind == AntennaKind::circularOmni ? 1.5 : 3; // common practice, no source
}

/// Patches and helices send the other hand behind them.
bool rightHanded(const AntennaUse &use, const Vec3 &towards) {
    const bool stated = use.antenna.polarisation == Polarisation::rightCircular;
    const bool behind = use.pattern.shape == GainShape::forward && use.axis.dot(towards) < 0;
    return stated != behind;
}

} // namespace

double nearFieldCorrection_dB(double distance) {
    // On a grid, each point of it once: the integral takes ten microseconds, a matrix asks for it hundreds of times.
    constexpr double kFirst = 0.02, kLast = 5;
    constexpr int kSteps = 240;
    static std::array<std::atomic<double>, kSteps + 1> known{}; // 0: not asked for yet; two threads get the same
    const auto valueAt = [](std::size_t i) {
        double value = known[i].load(std::memory_order_relaxed);
        if (value != 0) return value;
        const double d = kFirst * std::pow(kLast / kFirst, double(i) / kSteps);
        value = sideBySide_dB(d) + 20 * std::log10(4 * kPi * d) - 2 * kHalfWaveGain_dBi;
        known[i].store(value, std::memory_order_relaxed);
        return value;
    };
    if (distance >= kLast) return 0;
    const double at = std::log(std::max(distance, kFirst) / kFirst) / std::log(kLast / kFirst) * kSteps;
    const auto i = std::min(std::size_t(at), std::size_t(kSteps - 1));
    const double low = valueAt(i), high = valueAt(i + 1);
    return std::min(0.0, low + (high - low) * (at - double(i)));
}

bool suits(const Antenna &antenna, double f_MHz) {
    return f_MHz >= antenna.low_MHz * 0.85 && f_MHz <= antenna.high_MHz * 1.15;
}

double polarisationLoss_dB(const AntennaUse &a, const AntennaUse &b, const Vec3 &direction, double most_dB) {
    const auto across = [&](const Vec3 &axis) { return Vec3(axis - axis.dot(direction) * direction); };
    const Vec3 one = across(a.axis), other = across(b.axis);
    // An axis that points at the other antenna has no tilt to compare.
    double tilt_deg = 0;
    if (one.norm() > 1e-6 && other.norm() > 1e-6)
        tilt_deg = degreesFromRadians(std::acos(std::clamp(one.normalized().dot(other.normalized()), -1.0, 1.0)));
    const bool sameHand = rightHanded(a, direction) == rightHanded(b, Vec3(-direction));
    return std::min(most_dB, ellipticalMismatch_dB(axialRatio(a.antenna), axialRatio(b.antenna), tilt_deg, sameHand));
}

Coupling couple(const AntennaUse &from, const AntennaUse &to, double f_MHz, const Practice &practice,
                const LineShadow *shadow) {
    Coupling sum;
    sum.f_MHz = f_MHz;
    sum.lambda_mm = wavelength_mm(f_MHz);
    const Vec3 way = to.centre_mm - from.centre_mm;
    sum.distance_mm = way.norm();
    const double apart_mm = std::max(sum.distance_mm, 1.0);
    const Vec3 direction = sum.distance_mm > 1e-9 ? Vec3(way / sum.distance_mm) : Vec3::UnitX();
    const bool inBand = suits(from.antenna, f_MHz) && suits(to.antenna, f_MHz);
    const auto gain = [&](const AntennaUse &use, const Vec3 &towards) {
        if (suits(use.antenna, f_MHz)) return patternGain_dBi(use.pattern, use.axis.dot(towards));
        sum.offBand_dB += practice[Limit::offBandAntenna];
        return 0.0;
    };
    sum.gainFrom_dBi = gain(from, direction);
    sum.gainTo_dBi = gain(to, Vec3(-direction));
    sum.far_dB = sum.gainFrom_dBi + sum.gainTo_dBi - freeSpaceLoss_dB(f_MHz, apart_mm * 1e-3);
    const double most_dB = practice[Limit::crossPolar];
    sum.polarisation_dB = inBand ? polarisationLoss_dB(from, to, direction, most_dB) : decibels(2);
    const double distance = apart_mm / sum.lambda_mm;
    sum.exact = inBand && isStraightElement(from.antenna.kind) && isStraightElement(to.antenna.kind) &&
                from.pattern.shape != GainShape::table && to.pattern.shape != GainShape::table;
    if (sum.exact) {
        const auto element = [&](const AntennaUse &use, const Vec3 &at) { return ThinDipole{at, use.axis, 0.5}; };
        const double side_dB =
            nearFieldCorrection_dB(distance) + 2 * kHalfWaveGain_dBi - freeSpaceLoss_dB(f_MHz, apart_mm * 1e-3);
        const double integral_dB =
            dipoleCoupling_dB(mutualImpedance(element(from, Vec3::Zero()), element(to, Vec3(direction * distance))));
        // Losses of the antennas, and what crossing cannot hide on a real craft.
        sum.near_dB = std::max(integral_dB, side_dB - most_dB) + peakGain_dBi(from.pattern) + peakGain_dBi(to.pattern) -
                      2 * kHalfWaveGain_dBi;
        sum.nearUsed = true;
    } else {
        sum.near_dB = sum.far_dB + nearFieldCorrection_dB(distance);
        sum.nearUsed = distance < 1;
    }
    sum.cable_dB = feedLoss_dB(from, f_MHz) + feedLoss_dB(to, f_MHz);
    if (shadow && shadow->height_mm > 0 && distance >= 1)
        sum.shadow_dB = knifeEdgeLoss_dB(shadow->height_mm, shadow->d1_mm, shadow->d2_mm, sum.lambda_mm);
    const double base_dB = sum.nearUsed ? sum.near_dB : sum.far_dB;
    const double turned_dB = sum.exact ? 0 : sum.polarisation_dB; // the integral knows how the elements lie
    sum.total_dB = std::min(0.0, base_dB) - turned_dB - sum.shadow_dB - sum.cable_dB - sum.offBand_dB;
    return sum;
}

} // namespace waxis
