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

/// Joins the findings from `first` on that are no passes and say the same: rule, variant, severity and limit, and
/// measured values no further apart than `within`. The worst of them speaks; the others' first subjects come after its
/// own, and their cures are done with its.
void gatherAlike(std::vector<Finding> &findings, std::size_t first, double within);

} // namespace waxis
