// Other packs in the place of one: what each would weigh, fly and do to the balance.
#pragma once

#include "core/analysis/analysis.h"
#include "core/remedies/slide.h"

#include <atomic>

namespace waxis {

struct PackOption {
    std::string type;
    std::string name;
    bool fitted = false; ///< the one that is there
    std::optional<double> mass_g;
    std::optional<double> capacity_mAh;
    double total_g = 0;
    Vec2 offset_mm = Vec2::Zero();      ///< in the place of the present one
    std::optional<SlideSolution> slide; ///< where it would have to go
    std::optional<double> thrustToWeight, least_min, most_min;
    std::string meets;       ///< what it would stand in; empty: free
    int stop = 0, watch = 0; ///< findings of the whole craft with it
    bool overLimit = false;  ///< some weight limit of the case is passed
};

/// Packs with as many cells, of the build and the library, lightest first; each is a whole analysis (some 10 ms).
/// `part` is the pack, `loadCase` one that flies with it. Stops early, with fewer, once `stop` is set.
std::vector<PackOption> comparePacks(const Build &build, const Practice &practice, const std::string &part,
                                     std::size_t loadCase, const TypeTable &library,
                                     const std::atomic<bool> *stop = nullptr);

} // namespace waxis
