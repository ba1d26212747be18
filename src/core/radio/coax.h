// Coaxial cables: what they lose, how thick they are.
#pragma once

#include <span>
#include <string_view>

namespace waxis {

/// One kind of cable. Typical catalogue values from memory, good to 20 %.
struct CoaxKind {
    std::string_view id;   ///< "rg178"
    std::string_view name; ///< "RG-178"
    double outer_mm = 0, inner_mm = 0, dielectric_mm = 0;
    double permittivity = 2.1, lossTangent = 0;
    double mass_g_m = 0; ///< common practice, no source
};
std::span<const CoaxKind> coaxKinds();
/// By id or name; null for an unknown one.
const CoaxKind *findCoax(std::string_view word);
/// What an antenna lead is when nobody says: 1.13 mm.
const CoaxKind &usualCoax();

/// Loss, dB/m: between the table's frequencies (433 to 5800 MHz) in straight lines on a double logarithmic scale,
/// beyond them along the last one.
double coaxLoss_dB_m(const CoaxKind &coax, double f_MHz);
/// A 50 ohm cable of that size with smooth solid silver conductors: skin effect and dielectric, a lower bound, dB/m.
double coaxBound_dB_m(double f_MHz, double inner_mm, double dielectric_mm, double permittivity, double lossTangent);
/// One mated pair of connectors (common practice 0.1 to 0.2 dB, no source).
inline constexpr double kConnectorLoss_dB = 0.15;

} // namespace waxis
