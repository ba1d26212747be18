// Screws, nuts, washers, spacers as builders buy them: what kind, which thread, how long; and the types made from the
// tables of the standards, so that no library needs to list every length.
#pragma once

#include "core/fasteners/thread.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class FastenerForm {
    screw,
    nut,         ///< ISO 4032
    lockNut,     ///< nylon insert, ISO 7040; sizes that it does not list as ISO 10511
    thinLockNut, ///< nylon insert, low, ISO 10511
    pressNut,    ///< pressed into a plate: a thread in it
    washer,      ///< ISO 7089
    shim,
    spacer,   ///< plain tube
    standoff, ///< threaded spacer, with or without a male end
};

enum class HeadStyle {
    cap,        ///< ISO 4762
    button,     ///< ISO 7380-1
    countersunk ///< ISO 10642; below M3 as ISO 2009 / 7046
};

/// What a part type of a fastener says about itself.
struct FastenerData {
    FastenerForm form = FastenerForm::screw;
    std::string thread = "M3";
    double length_mm = 0; ///< screws: as sold (under the head; countersunk: over all); others: height
    HeadStyle head = HeadStyle::cap;
    double stud_mm = 0; ///< standoffs: length of the male end; 0: none
    double bore_mm = 0; ///< standoffs: depth of the female thread; 0: right through
    int pieces = 1;     ///< in one placed part: a set of motor screws has four
    bool operator==(const FastenerData &) const = default;
};

struct HeadSize {
    double diameter_mm = 0, height_mm = 0;
    bool fromStandard = true; ///< false: a stock size outside the standard
};
/// Maximum size of the head, mm (from memory of the standards). None where the size is not made.
std::optional<HeadSize> headOf(const ThreadSize &thread, HeadStyle style);

/// Hexagon key of the head, mm: ISO 4762, ISO 7380-1, ISO 10642 (from memory). None for heads with another drive.
std::optional<double> driveKey_mm(const ThreadSize &thread, HeadStyle style);

/// Height of the nut, mm; none where that form is not made in that size.
std::optional<double> nutHeight_mm(const ThreadSize &thread, FastenerForm form);

/// Volume of a screw of any head, fully threaded, mm3. Cap screws less their socket (ISO 4762); button heads as the
/// spherical segment of their height, countersunk ones as the cone of 90 degrees, both less a socket of the same share.
/// Greatest sizes: real ones are up to a tenth lighter. None where that head is not made in that size.
std::optional<double> screwVolume_mm3(const ThreadSize &thread, double length_mm, HeadStyle head);

/// Volume of a hexagon nut, mm3: the hexagon over its flats less the mean thread.
double nutVolume_mm3(const ThreadSize &thread, double height_mm);
double washerVolume_mm3(const ThreadSize &thread, double height_mm);

std::string_view formWord(FastenerForm form); ///< "screw", "lock nut" ...
std::string_view headWord(HeadStyle style);   ///< "cap", "button", "countersunk"
/// As one writes it on a bag: "M3 x 25 cap screw", "M3 lock nut".
std::string fastenerName(const FastenerData &fastener, const std::string &material);

} // namespace waxis
