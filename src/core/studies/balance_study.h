// What the Balance bench works out in the background: draws, other ways to mend, what a move brings.
#pragma once

#include "core/analysis/analysis.h"
#include "core/balance/ballast.h"
#include "core/balance/breakdown.h"
#include "core/balance/monte_carlo.h"
#include "core/remedies/slide.h"
#include "core/studies/savings.h"

#include <atomic>

namespace waxis {

/// Stops and watches that an edit brings or takes away, without views. Of what is open before and after; the balance's
/// own offset is not among them.
struct Consequences {
    std::vector<Finding> comes, goes;
};
Consequences consequencesOf(const Analysis &before, const Build &after);

struct CaseStudy {
    std::size_t loadCase = 0;
    Breakdown breakdown;
    DrawnBalance drawn;
    DoubtEllipse ellipse;
    std::optional<Ballast> toRing, toCentre; ///< least ballast into the ring, and to within 0.1 mm; none: nothing helps
    std::vector<SlideSolution> slides;       ///< parts that the build lets slide, the one that leaves least first
    Consequences afterSlide;                 ///< of the first of those, slid to its best place
    std::vector<SlideSolution> others; ///< parts that could be moved fore and aft, the one that leaves least first
    std::vector<GramSaving> savings;
};

struct BalanceStudy {
    std::vector<CaseStudy> cases;        ///< by load case
    std::vector<Compromise> compromises; ///< of sliding parts that fly in several cases
};

/// Everything above. Some 100 ms. Deterministic; early and incomplete once `stop` is set.
BalanceStudy studyBalance(const Build &build, const Analysis &analysis, const DrawSettings &draws = {},
                          const std::atomic<bool> *stop = nullptr);

/// Doubts of one case, for drawing.
std::vector<UncertainMass> doubtsIn(const Build &build, const Derived &derived, std::size_t loadCase);

} // namespace waxis
