// Who may fall into whose band: satellite bands, harmonics, mixing products. Pure interval arithmetic.
#pragma once

#include <array>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

struct Band {
    std::string name;
    double low_MHz = 0, high_MHz = 0;
    bool operator==(const Band &) const = default;
};

/// Satellite navigation signals: centre and null-to-null or reference bandwidth. Interface documents, from memory.
struct SatelliteBand {
    std::string_view name;
    double centre_MHz = 0, bandwidth_MHz = 0;
    double low_MHz() const { return centre_MHz - bandwidth_MHz / 2; }
    double high_MHz() const { return centre_MHz + bandwidth_MHz / 2; }
};
std::span<const SatelliteBand> satelliteBands();
/// Short words for the satellite signals that a band covers, "L1 E1 B1"; empty for none.
std::string satelliteWords(double low_MHz, double high_MHz);

/// A multiple of one band inside another.
struct HarmonicHit {
    int source = 0, victim = 0;                   ///< indices
    int order = 1;                                ///< 1: the band itself
    double low_MHz = 0, high_MHz = 0;             ///< overlap
    double sourceLow_MHz = 0, sourceHigh_MHz = 0; ///< where the source must be for it
};

/// A sum or difference of two bands inside a third: |p f1 + q f2|.
struct MixHit {
    int first = 0, second = 0, victim = 0;    ///< indices
    int p = 1, q = 1;                         ///< (2,-1), (2,1): third order; (1,1), (1,-1): second
    double spanLow_MHz = 0, spanHigh_MHz = 0; ///< all that the product can be
    double low_MHz = 0, high_MHz = 0;         ///< overlap
};

/// Multiples 1 to `most` of every source in every victim of another name; overlaps of no width do not count.
std::vector<HarmonicHit> harmonicHits(std::span<const Band> sources, std::span<const Band> victims, int most);
/// 2 f1 +- f2 of every two sources.
std::vector<MixHit> thirdOrderHits(std::span<const Band> sources, std::span<const Band> victims);
/// f1 + f2 and |f1 - f2| of every two sources, the higher one first in the difference.
std::vector<MixHit> secondOrderHits(std::span<const Band> sources, std::span<const Band> victims);

/// "2*433-2.4G", "433+868", "|868-433|".
std::string mixName(std::span<const Band> sources, const MixHit &hit);

} // namespace waxis
