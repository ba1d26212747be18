// Other propellers in the place of those that are fitted: what each would weigh, draw and come near.
#pragma once

#include "core/studies/rotor_turns.h"

#include <atomic>

namespace waxis {

struct PropellerOption {
    std::string type;
    std::string name;
    bool fitted = false; ///< on all mounts
    std::optional<double> mass_g, diameter_mm, pitch_mm;
    std::optional<int> blades;
    double total_g = 0;
    std::optional<double> tipGap_mm;                    ///< the least between two neighbours; none: a single motor
    std::optional<double> power_W, least_min, most_min; ///< in hover
    std::optional<FrequencyBand> turns;                 ///< in hover
    int stop = 0, watch = 0;                            ///< findings of the whole craft with them
    bool overLimit = false;                             ///< some weight limit of the case is passed
};

/// Propellers of the build and the library on all motors, smallest first; each is a whole analysis (some 10 ms), mounts
/// drawn for its diameter. Left out: what goes by its hub on none of the motors' shafts, what is made for one direction
/// only, and what is under half or over twice as wide as what is fitted. Stops early, with fewer, once `stop` is set.
std::vector<PropellerOption> comparePropellers(const Build &build, const Practice &practice, std::size_t loadCase,
                                               const TypeTable &library, const std::atomic<bool> *stop = nullptr);

} // namespace waxis
