#include "core/fasteners/screw.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {
constexpr double kSame_mm = 1e-9; // sums of tenths land beside whole numbers
}

std::optional<double> stockLength_mm(double least_mm, std::span<const double> stock_mm) {
    std::optional<double> best;
    for (const double length : stock_mm)
        if (length >= least_mm - kSame_mm && (!best || length < *best)) best = length;
    return best;
}

ThroughScrew throughScrew(double grip_mm, double washers_mm, double nut_mm, double pitch_mm) {
    ThroughScrew screw;
    const double taken = grip_mm + washers_mm + nut_mm;
    screw.least_mm = taken + pitch_mm;
    screw.length_mm = stockLength_mm(screw.least_mm);
    if (screw.length_mm) screw.protrusion_mm = *screw.length_mm - taken;
    return screw;
}

BlindScrew blindScrew(double grip_mm, double diameter_mm, double engagement_diameters, double usableDepth_mm,
                      std::span<const double> stock_mm) {
    BlindScrew screw;
    screw.least_mm = grip_mm + engagement_diameters * diameter_mm;
    screw.most_mm = grip_mm + usableDepth_mm;
    const auto length = stockLength_mm(screw.least_mm, stock_mm);
    if (length && *length <= screw.most_mm + kSame_mm) screw.length_mm = length;
    return screw;
}

double meanThreadArea_mm2(double nominal_mm, double pitch_mm) {
    const double height = std::sqrt(3.0) / 2 * pitch_mm; // of the fundamental triangle
    const double outer = nominal_mm / 2, inner = outer - 5.0 / 8 * height;
    // Over one pitch: an eighth at the crest, a quarter at the root, two straight flanks between.
    return kPi *
           (outer * outer / 8 + inner * inner / 4 + 5.0 / 8 * (outer * outer + outer * inner + inner * inner) / 3);
}

double capScrewVolume_mm3(double nominal_mm, double pitch_mm, double length_mm, double headDiameter_mm,
                          double headHeight_mm, double socketFlats_mm, double socketDepth_mm) {
    return meanThreadArea_mm2(nominal_mm, pitch_mm) * length_mm +
           kPi / 4 * headDiameter_mm * headDiameter_mm * headHeight_mm -
           std::sqrt(3.0) / 2 * socketFlats_mm * socketFlats_mm * socketDepth_mm;
}

double socketDepth_mm(const ThreadSize &thread) {
    constexpr std::array<double, 8> depths{0.7, 1.0, 1.1, 1.3,
                                           2.0, 0.6, 0.8, 2.5}; // as the table: usual sizes, M1.4, M1.7, M5
    return depths[std::size_t(&thread - threadSizes().data())];
}

double capScrewVolume_mm3(const ThreadSize &thread, double length_mm) {
    return capScrewVolume_mm3(thread.nominal_mm, thread.pitch_mm, length_mm, thread.capHead_mm, thread.nominal_mm,
                              thread.capKey_mm, socketDepth_mm(thread));
}

} // namespace waxis
