// The sky that was predicted, against what a receiver heard in it.
#pragma once

#include "core/build/log.h"
#include "core/sky/sky_view.h"
#include "core/statistics/ranks.h"

#include <span>
#include <string>
#include <vector>

namespace waxis {

/// One satellite of a try, laid over the sky view of its place.
struct ProvedSatellite {
    HeardSatellite heard;
    Vec3 way = Vec3::UnitZ(); ///< to it, in the axes of the hovering craft
    bool isHidden = false;    ///< behind something of the craft, by the view
    double expected_dBHz = 0; ///< of its elevation, by all that stand open
    std::string behind;       ///< id of what hides it
};

struct SkyProof {
    std::vector<ProvedSatellite> satellites;
    int open = 0, hidden = 0, neverHeard = 0;
    double predicted_dB = 0; ///< kHiddenLoss_dB
    double openMedian_dBHz = 0, hiddenMedian_dBHz = 0;
    /// Open less hidden, both freed of what elevation alone does; where both have three at least.
    std::optional<ShiftEstimate> loss_dB;
    double chance = 1; ///< of such a difference by chance alone
};

/// `tries` of one set-up whose sky the view is; their noses say how the craft stood (north where nothing is said).
/// Below `mask_deg` nothing counts. Elevation: a straight line through the open ones (Theil and Sen's median of
/// slopes). Satellites in view that were never heard count with the weakest ratio that any was heard with.
SkyProof skyProof(const SkyView &view, const std::vector<std::string> &owners, std::span<const Try *const> tries,
                  double mask_deg);

} // namespace waxis
