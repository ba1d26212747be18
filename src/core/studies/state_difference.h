// In what two states of a build differ, as a builder sees it: what moved, what it weighs, where it balances, what the
// rules say.
#pragma once

#include "core/build/build.h"
#include "core/findings/finding.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct PartMove {
    std::string part;
    Vec3 by_mm = Vec3::Zero();
    double turned_deg = 0;
};

/// One load case that both states have.
struct CaseDifference {
    std::string loadCase; ///< id
    double before_g = 0, after_g = 0;
    std::optional<Vec3> before_mm, after_mm; ///< centre of gravity off the thrust centre
    std::optional<double> before_s, after_s; ///< flight down to the reserve, middle of its span
};

struct StateDifference {
    std::vector<std::string> gone, came; ///< ids of parts
    std::vector<std::string> otherType;
    std::vector<PartMove> moved; ///< farther than 0.05 mm or 0.1 degrees, farthest first
    std::vector<std::string> wiresGone, wiresCame, wiresOther;
    std::vector<std::string> limits; ///< of the practice that differ
    int frame = 0;                   ///< members of the frame that are not the same
    std::vector<CaseDifference> cases;
    std::vector<Finding> findingsGone, findingsCame; ///< by key; what is accepted counts as gone
    bool isSame() const;
};

/// Quick rules alone (no survey), each state with its own practice.
StateDifference differenceBetween(const Build &before, const Build &after);

} // namespace waxis
