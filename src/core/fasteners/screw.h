// Which screw: stock lengths, how far through, how deep, how heavy.
#pragma once

#include "core/fasteners/thread.h"

#include <array>
#include <optional>
#include <span>

namespace waxis {

/// Lengths that are sold, mm, ISO 888 from memory; 14, 18 and 22 are not preferred but sold.
inline constexpr std::array<double, 18> kStockLengths_mm{3,  4,  5,  6,  8,  10, 12, 14, 16,
                                                         18, 20, 22, 25, 30, 35, 40, 45, 50};

/// The shortest stock length of at least `least_mm`; none: the longest is too short.
std::optional<double> stockLength_mm(double least_mm, std::span<const double> stock_mm = kStockLengths_mm);

struct ThroughScrew {
    double least_mm = 0;                 ///< grip, washers, nut, and one pitch out of it (common practice, no source)
    std::optional<double> length_mm;     ///< from stock
    std::optional<double> protrusion_mm; ///< beyond the nut
};
ThroughScrew throughScrew(double grip_mm, double washers_mm, double nut_mm, double pitch_mm);

struct BlindScrew {
    double least_mm = 0, most_mm = 0; ///< engagement of k diameters; not deeper than what is usable
    std::optional<double> length_mm;  ///< the shortest stock length between; none fits
};
BlindScrew blindScrew(double grip_mm, double diameter_mm, double engagement_diameters, double usableDepth_mm,
                      std::span<const double> stock_mm = kStockLengths_mm);

/// Mean cross-section of the basic thread profile over one pitch, mm2 (ISO 68-1).
double meanThreadArea_mm2(double nominal_mm, double pitch_mm);

/// Volume of a fully threaded cap screw with the greatest head, less its socket, mm3 (ISO 4762). Real ones are up to a
/// tenth lighter.
double capScrewVolume_mm3(double nominal_mm, double pitch_mm, double length_mm, double headDiameter_mm,
                          double headHeight_mm, double socketFlats_mm, double socketDepth_mm);
double capScrewVolume_mm3(const ThreadSize &thread, double length_mm);

/// Depth of a cap screw's socket, mm (ISO 4762, from memory).
double socketDepth_mm(const ThreadSize &thread);

} // namespace waxis
