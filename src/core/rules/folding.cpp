// FIT-12: what folding arms meet on their way.
#include "core/rules/rule.h"
#include "core/survey/at_hand.h"
#include "core/survey/reach.h"

#include <array>
#include <fmt/format.h>

namespace waxis {

static void judgeFolding(const Build &, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &contact : foldsSeen(derived)) {
        Finding f;
        f.rule = RuleId::fitFolding;
        f.variant = contact.folded ? "folded" : "way";
        f.subjects = {contact.a, contact.b};
        f.measured = 100 * contact.fraction;
        f.limit = 100;
        f.unit = "%";
        f.margin = 100 * contact.fraction - 100;
        f.practiceLimit = Limit::foldGap;
        f.severity = Severity::stop;
        f.from_mm = contact.at_mm;
        f.inputs = {{"first met at", 100 * contact.fraction, "% of the way"},
                    {"overlap", contact.depth_mm, "mm"},
                    {"room wanted", practice[Limit::foldGap], "mm"}};
        out.push_back(std::move(f));
    }
}

static FindingText wordFolding(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         fmt::format("{:.0f}", *f.measured)};
    if (f.variant == "folded")
        return {{"Folding: {0} and {1} are in the same place", words},
                {"They meet at {2} % of the way: another angle, another joint, or one above the other.", words}};
    return {{"Folding: {0} strikes {1} on its way", words},
            {"At {2} % of the way: fold in another order, or move one of them.", words}};
}

std::span<const Rule> foldingRules() {
    static const std::array<Rule, 1> rules{{
        {RuleId::fitFolding,
         "Folding arms",
         "Arms and propellers that meet while folding scratch, break or do not fold at all.",
         kTrade,
         Stage::place,
         {Limit::foldGap},
         needs(Need::survey),
         judgeFolding,
         wordFolding},
    }};
    return rules;
}

} // namespace waxis
