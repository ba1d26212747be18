// One finding for what is said of several things alike.
#pragma once

#include "core/findings/finding.h"

#include <cstddef>
#include <vector>

namespace waxis {

/// Of the findings from `first` on keeps for the same subjects the gravest: units that send or listen in several bands
/// stand in each other's way once.
void keepGravest(std::vector<Finding> &findings, std::size_t first);

/// Currents that differ by less come from motors of one kind at one load.
inline constexpr double kAlike_A = 0.5;

/// What findings that say the same have to share: nothing (each controller and its motor), the thing that they name
/// first (what is hot, beside one pack or another) or second (the disc that wires pass).
enum class Share { nothing, first, second };

/// Joins the findings from `first` on that are no passes and say the same: rule, variant, severity and limit, and
/// measured values no further apart than `within`. The worst of them speaks; what the others are about comes after its
/// own subjects (their first one; where that is its own as well, as a four-in-one's, their second), and their cures are
/// done with its.
void gatherAlike(std::vector<Finding> &findings, std::size_t first, double within, Share share = Share::nothing);

} // namespace waxis
