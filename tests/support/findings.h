// What the rules say of a small build.
#pragma once

#include "core/analysis/analysis.h"

namespace waxis::test {

/// The findings of one rule, or with `passes` what it approves of.
inline std::vector<Finding> findingsOf(const Build &build, RuleId rule, bool passes = false) {
    Analyser analyser;
    const Analysis &analysis = analyser.update(build);
    std::vector<Finding> found;
    for (const auto &f : passes ? analysis.passes : analysis.findings)
        if (f.rule == rule) found.push_back(f);
    return found;
}

} // namespace waxis::test
