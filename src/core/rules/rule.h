// A rule: a pure function of what analyse() derived. One file per rule family.
#pragma once

#include "core/analysis/derived.h"
#include "core/rules/finding.h"
#include "core/rules/wording.h"

#include <span>

namespace waxis {

struct Rule {
    RuleId id;
    std::string_view name; ///< as in files and on the command line: "FIT-1"
    std::string_view title;
    std::string_view why;
    std::string_view source;
    Stage stage;
    std::vector<Limit> limits;
    /// Appends findings, and outcomes of severity `pass` that carry the margin.
    void (*judge)(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
    /// Headline and cure for one of this rule's findings.
    FindingText (*word)(const Build &, const Finding &);
};

/// All rules, in the order of RuleId.
std::span<const Rule> ruleBook();
const Rule &ruleOf(RuleId id);

} // namespace waxis
