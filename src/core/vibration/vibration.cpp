#include "core/vibration/vibration.h"

#include "core/base/units.h"

#include <cmath>
#include <numbers>

namespace waxis {

SectionMoments sectionMoments(const ArmAcross &across) {
    const double b = across.width_mm, h = across.thickness_mm;
    const bool hollow = across.wall_mm > 0;
    const double bi = hollow ? b - 2 * across.wall_mm : 0, hi = hollow ? h - 2 * across.wall_mm : 0;
    if (across.round)
        return {std::numbers::pi / 64 * (b * h * h * h - bi * hi * hi * hi),
                std::numbers::pi / 64 * (h * b * b * b - hi * bi * bi * bi), std::numbers::pi / 4 * (b * h - bi * hi)};
    return {(b * h * h * h - bi * hi * hi * hi) / 12, (h * b * b * b - hi * bi * bi * bi) / 12, b * h - bi * hi};
}

ArmBending armBending(const ArmAcross &across, double length_mm, double E_GPa, double density_g_cm3, double tip_g) {
    const SectionMoments section = sectionMoments(across);
    ArmBending out;
    out.arm_g = section.area_mm2 * length_mm * density_g_cm3 * 1e-3;
    const double mass_kg = (tip_g + 33.0 / 140 * out.arm_g) * 1e-3, length_m = length_mm * 1e-3;
    const auto frequency = [&](double moment_mm4) {
        return std::sqrt(3 * E_GPa * 1e9 * moment_mm4 * 1e-12 / (length_m * length_m * length_m * mass_kg)) /
               (2 * std::numbers::pi);
    };
    out.up_Hz = frequency(section.up_mm4);
    out.inPlane_Hz = frequency(section.inPlane_mm4);
    return out;
}

double rotorTurns_Hz(double thrust_N, double diameter_mm, double thrustCoefficient, double density_kg_m3) {
    const double d = diameter_mm * 1e-3;
    return std::sqrt(thrust_N / (thrustCoefficient * density_kg_m3 * d * d * d * d));
}

SoftMount softMount(double sag_mm, double dampingRatio, double excitation_Hz) {
    SoftMount out;
    out.own_Hz = std::sqrt(kStandardGravity_m_s2 / (sag_mm * 1e-3)) / (2 * std::numbers::pi);
    const double r = excitation_Hz / out.own_Hz, damped = 2 * dampingRatio * r;
    out.transmissibility = std::sqrt((1 + damped * damped) / ((1 - r * r) * (1 - r * r) + damped * damped));
    out.isolates = r > std::numbers::sqrt2;
    return out;
}

} // namespace waxis
