// Air and what it takes to hang in it.
#pragma once

#include "core/build/frame.h"

namespace waxis {

struct Air {
    double temperature_K = 0, pressure_Pa = 0, density_kg_m3 = 0;
};
/// Standard atmosphere up to 11,000 m of geopotential height. Source: ISO 2533.
Air standardAir(double height_m);
/// Geopotential height of a height above sea level, m: r h / (r + h), r = 6,356,766 m (ISO 2533).
double geopotential_m(double geometric_m);

struct RotorPower {
    double area_m2 = 0, induced_m_s = 0, ideal_W = 0, shaft_W = 0;
};
/// One rotor that pushes `thrust_N`: P = T^1.5 / sqrt(2 rho A) / FM. Momentum theory (Leishman); the figure of merit of
/// small propellers is 0.5 to 0.7 (common practice). Zero thrust takes no power.
RotorPower rotorPower(double thrust_N, double diameter_mm, double density_kg_m3, double figureOfMerit);

/// What two rotors over one another take more than two free ones that push the same: measured 1.20, and 1.28 by
/// momentum theory with the lower one in the narrowed wake of the upper (Leishman, Principles of Helicopter
/// Aerodynamics, chapter 2; from memory).
struct CoaxialShare {
    double least = 1, usual = 1, most = 1;
};
inline constexpr CoaxialShare kCoaxial{1.20, 1.24, 1.28};

/// By motor mount: kCoaxial where another one's axis is less than a tenth of its propeller away in plan, else ones.
std::vector<CoaxialShare> coaxialShares(const std::vector<MotorMount> &mounts);

} // namespace waxis
