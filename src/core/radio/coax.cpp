#include "core/radio/coax.h"

#include "core/base/units.h"
#include "core/radio/decibel.h"

#include <array>
#include <iterator>

namespace waxis {

namespace {

constexpr std::array<double, 5> kTable_MHz{433, 868, 915, 2440, 5800};

struct Row {
    CoaxKind kind;
    std::array<double, 5> loss_dB_m;
};

const std::array<Row, 3> &table() {
    static const std::array<Row, 3> rows{
        {{{"rg178", "RG-178", 1.8, 0.305, 0.84, 2.1, 3e-4, 7.5}, {0.95, 1.40, 1.45, 2.45, 3.95}},
         {{"rg316", "RG-316", 2.5, 0.51, 1.52, 2.1, 3e-4, 15}, {0.55, 0.80, 0.85, 1.45, 2.40}},
         {{"micro-1.13", "1.13 mm micro-coax", 1.13, 0.24, 0.68, 2.1, 5e-4, 3.2}, {1.25, 1.85, 1.90, 3.30, 5.30}}}};
    return rows;
}

} // namespace

std::span<const CoaxKind> coaxKinds() {
    static const std::array<CoaxKind, 3> kinds{table()[0].kind, table()[1].kind, table()[2].kind};
    return kinds;
}

const CoaxKind *findCoax(std::string_view word) {
    for (const auto &kind : coaxKinds())
        if (kind.id == word || kind.name == word) return &kind;
    return nullptr;
}

const CoaxKind &usualCoax() { return coaxKinds()[2]; }

double coaxLoss_dB_m(const CoaxKind &coax, double f_MHz) {
    for (const auto &row : table()) {
        if (row.kind.id != coax.id) continue;
        std::size_t i = 0;
        while (i + 2 < kTable_MHz.size() && f_MHz > kTable_MHz[i + 1]) ++i;
        const double share = std::log(f_MHz / kTable_MHz[i]) / std::log(kTable_MHz[i + 1] / kTable_MHz[i]);
        return row.loss_dB_m[i] * std::pow(row.loss_dB_m[i + 1] / row.loss_dB_m[i], share);
    }
    return 0;
}

double coaxBound_dB_m(double f_MHz, double inner_mm, double dielectric_mm, double permittivity, double lossTangent) {
    // Silver of 6.1e7 S/m; the nominal 50 ohm that all of these cables are made for.
    constexpr double kMagnetic = 4e-7 * kPi, kSilver_S_m = 6.1e7, kNominal_ohm = 50;
    constexpr double kDecibelsPerNeper = 8.685889638;
    const double f_Hz = f_MHz * 1e6;
    const double surface_ohm = std::sqrt(kPi * f_Hz * kMagnetic / kSilver_S_m);
    const double resistance_ohm_m = surface_ohm / kPi * (1e3 / inner_mm + 1e3 / dielectric_mm);
    const double dielectric = kPi * f_Hz * std::sqrt(permittivity) * lossTangent / kLightSpeed_m_s;
    return kDecibelsPerNeper * (resistance_ohm_m / (2 * kNominal_ohm) + dielectric);
}

} // namespace waxis
