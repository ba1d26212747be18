// How warm senders, digital units and regulators get where they sit: a quick look, not a verdict.
#pragma once

#include "core/analysis/analysis.h"

#include <optional>
#include <string>

namespace waxis {

/// Kelvin above the air in the end, over the band of heat transfer.
struct RiseBand {
    double least_K = 0, most_K = 0;
};

struct WarmLook {
    double heat_W = 0;              ///< electrical power less what is radiated; of regulators what they lose
    double area_cm2 = 0;            ///< that the air reaches, sinks with it
    double mass_g = 0;              ///< with its sinks
    std::vector<std::string> sinks; ///< parts fastened onto it that cool
    double inWash = 0;              ///< share of its upper face that the propellers' wash reaches, by rays
    double open = 0;                ///< share of directions that are free for 60 mm round it
    bool flies = false;             ///< the load case: nothing blows in one that stays on the ground
    bool closedIn() const { return open < 0.3 && inWash < 0.3; }
    RiseBand still, wash, closed; ///< in still air, all of it in the wash, shut in (4 to 8 W/(m2 K), from memory)
    /// Until it is 60 K over the air without any: a board on the bench.
    double uncooled_s = 0;
    static constexpr double kRise_K = 60;
    /// What counts where it sits: shut in, in the wash of a craft that flies when half of it lies there, else still.
    const RiseBand &here() const { return closedIn() ? closed : flies && inWash >= 0.5 ? wash : still; }
    /// Too warm even at the band's lower end.
    bool needsAir() const { return here().least_K > kRise_K; }
};

/// None for parts that turn no power of note into heat (under half a watt), or of which size or weight is not known.
std::optional<WarmLook> warmLook(const Build &build, const Analysis &analysis, const std::string &part,
                                 std::size_t loadCase);

} // namespace waxis
