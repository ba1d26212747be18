// A rule: a pure function of what was derived of a build. One file per family, which ends in the table of its rules.
#pragma once

#include "core/derived/derived.h"
#include "core/findings/finding.h"
#include "core/rules/wording.h"

#include <cstdint>
#include <span>

namespace waxis {

/// What a verdict rests on, beside the practice and what the build says without the places of its parts: those judge
/// every rule anew. A rule that looks at more than it needs is found by the tests that compare with a fresh analysis.
enum class Need {
    places, ///< where parts stand
    owners, ///< Scene::owners and traits
    gaps,   ///< Scene::world
    massRows,
    balance,
    reconciled,
    kit,
    stacks,
    motorScrews,
    routes,
    wiring,
    power,
    links,
    radio,
    log,
    survey
};
inline constexpr std::size_t kNeedCount = std::size_t(Need::survey) + 1;
using Needs = std::uint32_t; ///< a bit each
template <class... Each>
constexpr Needs needs(Each... each) {
    return ((Needs(1) << int(each)) | ...);
}

/// The source of what builders do because it has worked.
inline constexpr std::string_view kTrade = "common practice, no source";

struct Rule {
    RuleId id;
    std::string_view title;
    std::string_view why;
    std::string_view source;
    Stage stage;
    std::vector<Limit> limits;
    Needs needs;
    /// Appends findings, and outcomes of severity `pass` that carry the margin.
    void (*judge)(const Build &, const Practice &, const Derived &, std::vector<Finding> &);
    /// Headline and cure for one of this rule's findings.
    FindingText (*word)(const Build &, const Finding &);
};

/// All rules, in the order of RuleId.
std::span<const Rule> ruleBook();
const Rule &ruleOf(RuleId id);

} // namespace waxis
