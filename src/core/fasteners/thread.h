// Metric threads as builders meet them: the sizes of screws, nuts, washers and the holes that clear them.
#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace waxis {

/// Dimensions in mm. Values from memory of the standards named, not checked against them.
struct ThreadSize {
    std::string_view name; ///< "M3"
    double nominal_mm;
    double pitch_mm;                  ///< ISO 262, coarse series
    double capHead_mm, capKey_mm;     ///< ISO 4762: head diameter (its height is the nominal diameter), hexagon key
    double nutHeight_mm, nutFlats_mm; ///< ISO 4032
    double washerHeight_mm, washerOuter_mm;           ///< ISO 7089
    double fineHole_mm, mediumHole_mm, coarseHole_mm; ///< clearance holes, ISO 273
};

/// M1.6, M2, M2.5, M3, M4 in that order.
std::span<const ThreadSize> threadSizes();

/// Null for a size that is not in the table.
const ThreadSize *findThread(std::string_view name);

/// Tensile stress area pi/4 (d - 0.9382 P)^2, mm2 (ISO 898-1).
double stressArea_mm2(const ThreadSize &thread);

enum class HoleFit {
    tight, ///< smaller than the fine clearance: the screw cuts in, or is a press fit
    fine,
    medium,
    coarse
};

/// Which screw goes through a round hole, by the nearest ISO 273 clearance diameter.
struct ScrewHole {
    const ThreadSize *thread = nullptr;
    HoleFit fit = HoleFit::fine;
    double off_mm = 0; ///< how far the hole is from the table's diameter
};

/// None when no clearance diameter is within `tolerance_mm`. The nearest diameter wins; where two sizes share one (2.0
/// mm: M1.6 coarse, M2 tight) the clearance hole does.
std::optional<ScrewHole> screwForHole(double diameter_mm, double tolerance_mm = 0.1);

} // namespace waxis
