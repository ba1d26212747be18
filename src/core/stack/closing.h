// Does it close? A dimension that is left over from others, each with its tolerance.
#pragma once

#include <cstdint>
#include <span>
#include <string>
#include <vector>

namespace waxis {

/// One thickness in the chain. Tolerances are +-, two standard deviations.
struct Contribution {
    std::string name;
    int layer = -1; ///< of the stack; -1: what is not a layer (standoffs, what stands on a board)
    double nominal_mm = 0;
    double sign = 1; ///< +1 makes room, -1 takes it
    double tolerance_mm = 0;
};

struct ClosingSums {
    double nominal_mm = 0;
    double worst_mm = 0, best_mm = 0; ///< every tolerance against, for
    double likely_mm = 0;             ///< +- root of the sum of squares, two standard deviations
    double probability = 0;           ///< that what is left is not less than nothing, normal errors
    int dominant = -1;                ///< index of the contribution with the largest share of the variance
    double dominantShare = 0;         ///< of the variance, 0 to 1
};

/// Worst case and root-sum-square of independent contributions (common practice in tolerance chains; the sum of
/// variances is exact for independent errors). Without any tolerance the probability is 0 or 1.
ClosingSums closingSums(std::span<const Contribution> chain);

/// The same probability by drawing each contribution from a normal distribution; repeatable with the seed.
double closingByDraws(std::span<const Contribution> chain, int draws, std::uint64_t seed);

} // namespace waxis
