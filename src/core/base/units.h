// The one place where units are converted. Everything else carries the unit in its name.
#pragma once

namespace waxis {

inline constexpr double kPi = 3.14159265358979323846;
/// Standard acceleration of free fall, m/s2 (CGPM 1901).
inline constexpr double kStandardGravity_m_s2 = 9.80665;

constexpr double radiansFromDegrees(double angle_deg) { return angle_deg * kPi / 180.0; }
constexpr double degreesFromRadians(double angle_rad) { return angle_rad * 180.0 / kPi; }
constexpr double kilogramsFromGrams(double mass_g) { return mass_g * 1e-3; }
/// 1 g/cm3 is 1e-3 g/mm3.
constexpr double gramsPerCubicMillimetre(double density_g_cm3) { return density_g_cm3 * 1e-3; }
/// Weight in newtons of a mass in grams at standard gravity.
constexpr double newtonsFromGrams(double mass_g) { return kilogramsFromGrams(mass_g) * kStandardGravity_m_s2; }

} // namespace waxis
