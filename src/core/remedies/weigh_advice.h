// What is worth weighing next.
#pragma once

#include "core/build/build.h"

namespace waxis {

struct MassRow;
struct CaseBalance;

/// What one doubt adds to the doubt about where the centre of gravity is, in plan.
struct WeighNext {
    std::string id; ///< of the mass row: part, plate, arm, standoff or allowance
    double mass_g = 0;
    double tolerance_g = 0; ///< +- 2 sigma
    double share = 0;       ///< of the plan variance of the CG, 0 to 1, by this mass's doubt and its fellows'
    int pieces = 1;         ///< alike, of one type: `id` is the first of them, one weighed mends all
};
/// Masses that nobody weighed, largest share first; `sigma_mm` is the plan standard deviation of the CG.
struct WeighAdvice {
    std::vector<WeighNext> next;
    double unweighed_g = 0, total_g = 0;
    double unweighedShare = 0; ///< of the plan variance of the CG
    double sigma_mm = 0;
};
/// `balance` by load case; nothing for a case that is not there.
WeighAdvice weighAdvice(const std::vector<MassRow> &rows, const std::vector<CaseBalance> &balance,
                        std::size_t loadCase);

} // namespace waxis
