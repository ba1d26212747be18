#include "core/studies/sky_proof.h"

#include "core/sky/sky_lookup.h"

#include <algorithm>
#include <limits>

namespace waxis {

namespace {

/// Theil 1950, Sen 1968: the median of the slopes of all pairs that are far enough apart.
double slopeOf(const std::vector<ProvedSatellite> &all) {
    constexpr double kApart_deg = 5;
    std::vector<double> slopes;
    for (std::size_t i = 0; i < all.size(); ++i)
        for (std::size_t k = i + 1; k < all.size(); ++k) {
            if (all[i].isHidden || all[k].isHidden || !all[i].heard.ratio_dBHz || !all[k].heard.ratio_dBHz) continue;
            const double apart = all[i].heard.elevation_deg - all[k].heard.elevation_deg;
            if (apart > kApart_deg || apart < -kApart_deg)
                slopes.push_back((*all[i].heard.ratio_dBHz - *all[k].heard.ratio_dBHz) / apart);
        }
    return slopes.empty() ? 0 : medianOf(std::move(slopes));
}

} // namespace

SkyProof skyProof(const SkyView &view, const std::vector<std::string> &owners, std::span<const Try *const> tries,
                  double mask_deg) {
    SkyProof proof;
    proof.predicted_dB = kHiddenLoss_dB;
    double weakest = std::numeric_limits<double>::max();
    for (const Try *one : tries)
        for (const auto &heard : one->heard) {
            if (heard.elevation_deg < mask_deg) continue;
            ProvedSatellite satellite;
            satellite.heard = heard;
            const Vec3 way = craftDirection(heard.elevation_deg, heard.azimuth_deg, one->nose_deg.value_or(0));
            satellite.way = way;
            if (const int owner = ownerAt(view, way); owner >= 0) {
                satellite.isHidden = true;
                if (std::size_t(owner) < owners.size()) satellite.behind = owners[std::size_t(owner)];
            }
            if (heard.ratio_dBHz) weakest = std::min(weakest, *heard.ratio_dBHz);
            proof.neverHeard += !heard.ratio_dBHz;
            ++(satellite.isHidden ? proof.hidden : proof.open);
            proof.satellites.push_back(std::move(satellite));
        }
    if (proof.satellites.empty() || weakest == std::numeric_limits<double>::max()) return proof;
    const double slope = slopeOf(proof.satellites);
    std::vector<double> open, hidden, openPlain, hiddenPlain;
    for (auto &satellite : proof.satellites) {
        const double ratio = satellite.heard.ratio_dBHz.value_or(weakest);
        (satellite.isHidden ? hiddenPlain : openPlain).push_back(ratio);
        (satellite.isHidden ? hidden : open).push_back(ratio - slope * satellite.heard.elevation_deg);
    }
    const double level = open.empty() ? 0 : medianOf(open);
    for (auto &satellite : proof.satellites) satellite.expected_dBHz = level + slope * satellite.heard.elevation_deg;
    proof.openMedian_dBHz = openPlain.empty() ? 0 : medianOf(openPlain);
    proof.hiddenMedian_dBHz = hiddenPlain.empty() ? 0 : medianOf(hiddenPlain);
    constexpr std::size_t kFewest = 3;
    if (open.size() < kFewest || hidden.size() < kFewest) return proof;
    constexpr double kConfidence = 0.95;
    proof.loss_dB = shiftEstimate(open, hidden, kConfidence);
    proof.chance = rankTest(open, hidden).chance;
    return proof;
}

} // namespace waxis
