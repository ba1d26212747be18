// How long a strap has to be: what it goes round.
#pragma once

#include "core/build/build.h"

#include <array>
#include <optional>

namespace waxis {

/// What a battery strap needs beyond what it goes round, to hold on its own hook-and-loop; a cable tie, for its head
/// and to be pulled (common practice, no source).
inline constexpr double kStrapOverlap_mm = 30, kTieOverlap_mm = 15;

/// Lengths of battery straps on sale (common practice, no source).
inline constexpr std::array<double, 8> kStrapLengths_mm{150, 180, 200, 250, 300, 400, 500, 600};

/// Once round a part's two smaller sides, the plate or arm that it lies on and the pads between, mm; none for a part
/// without firm solids. Where slots lie farther apart than the part is wide, a strap is a little longer.
std::optional<double> strapGirth_mm(const Build &build, const Part &part);

/// The same for a placed strap or tie: round the largest of what it holds; none when it holds no part.
struct StrapTask {
    std::string part; ///< the largest thing that it holds
    double girth_mm = 0, overlap_mm = 0;
};
std::optional<StrapTask> strapTaskOf(const Build &build, const Part &strap);

} // namespace waxis
