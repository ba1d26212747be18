// Wavelengths and decibels. Powers are in dBm or mW, frequencies in MHz, lengths in mm unless a name says otherwise.
#pragma once

#include <algorithm>
#include <cmath>

namespace waxis {

/// Speed of light in vacuum, m/s (exact, SI).
inline constexpr double kLightSpeed_m_s = 299792458;
/// Wave impedance of free space, ohm (rounded as antenna handbooks have it).
inline constexpr double kWaveImpedance_ohm = 376.7303;
/// Gain of a lossless half-wave dipole, dBi (Balanis: 1.6409).
inline constexpr double kHalfWaveGain_dBi = 2.1508;

inline double wavelength_mm(double f_MHz) { return kLightSpeed_m_s / f_MHz * 1e-3; }
inline double decibels(double powerRatio) { return 10 * std::log10(powerRatio); }
inline double powerRatio(double level_dB) { return std::pow(10.0, level_dB / 10); }
inline double milliwatts(double power_dBm) { return powerRatio(power_dBm); }
inline double dBmFrom(double power_mW) { return decibels(power_mW); }

} // namespace waxis
