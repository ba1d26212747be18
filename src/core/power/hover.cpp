// T thrust, A disc area, rho density, vi induced speed, FM figure of merit. Source: momentum theory (Leishman); ISO
// 2533.
#include "core/power/hover.h"

#include "core/base/units.h"

#include <cmath>

namespace waxis {

Air standardAir(double height_m) {
    constexpr double kSea_K = 288.15, kLapse_K_m = 0.0065, kSea_Pa = 101325, kExponent = 5.25588, kGas = 287.05287;
    Air air;
    air.temperature_K = kSea_K - kLapse_K_m * height_m;
    air.pressure_Pa = kSea_Pa * std::pow(air.temperature_K / kSea_K, kExponent);
    air.density_kg_m3 = air.pressure_Pa / (kGas * air.temperature_K);
    return air;
}

double geopotential_m(double geometric_m) {
    constexpr double kEarth_m = 6356766;
    return kEarth_m * geometric_m / (kEarth_m + geometric_m);
}

std::vector<CoaxialShare> coaxialShares(const std::vector<MotorMount> &mounts) {
    std::vector<CoaxialShare> shares(mounts.size());
    for (std::size_t i = 0; i < mounts.size(); ++i)
        for (std::size_t k = 0; k < mounts.size(); ++k) {
            const double away = (mounts[i].position_mm - mounts[k].position_mm).head<2>().norm();
            if (i != k && away < 0.1 * mounts[i].propDiameter_mm) shares[i] = kCoaxial;
        }
    return shares;
}

RotorPower rotorPower(double thrust_N, double diameter_mm, double density_kg_m3, double figureOfMerit) {
    RotorPower power;
    power.area_m2 = kPi / 4 * diameter_mm * diameter_mm * 1e-6;
    power.induced_m_s = std::sqrt(thrust_N / (2 * density_kg_m3 * power.area_m2));
    power.ideal_W = thrust_N * power.induced_m_s;
    power.shaft_W = power.ideal_W / figureOfMerit;
    return power;
}

} // namespace waxis
