// The rules' outcomes, kept: a rule is asked again only when something that it rests on is another one.
#pragma once

#include "core/findings/finding.h"
#include "core/rules/rule.h"

namespace waxis {

/// Versions by Need, and of everything that judges all rules anew.
struct JudgedBy {
    std::array<std::uint64_t, kNeedCount> needs{};
    std::uint64_t rest = 0; ///< the build without its parts' places, and the practice
};

class Judging {
public:
    /// Brings `findings` and `passes` up to date, worst first; both as this judging left them. Returns whether
    /// anything was judged again.
    bool update(const Build &build, const Practice &practice, const Derived &derived, const JudgedBy &by,
                std::vector<Finding> &findings, std::vector<Finding> &passes);

private:
    JudgedBy before_;
    bool known_ = false;
};

} // namespace waxis
