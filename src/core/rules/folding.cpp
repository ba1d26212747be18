// FIT-12: what folding arms, and whatever else moves, meet on their way.
#include "core/findings/input.h"
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
    for (const auto &contact : travelsSeen(derived)) {
        Finding f;
        f.rule = RuleId::fitFolding;
        f.variant = contact.zone ? "zone" : "travel";
        f.subjects = {contact.mover, contact.met};
        if (contact.part != contact.mover) f.subjects.push_back(contact.part);
        f.measured = contact.depth_mm > 0 ? -contact.depth_mm : contact.gap_mm;
        f.limit = practice[Limit::foldGap];
        f.unit = "mm";
        f.margin = *f.measured - *f.limit;
        f.practiceLimit = Limit::foldGap;
        f.severity = *f.measured <= 0 ? Severity::stop : f.margin < 0 ? Severity::watch : Severity::pass;
        f.to_mm = contact.at_mm;
        f.inputs = {{"joint turned by", contact.angle_deg, "°"},
                    {"gap there", *f.measured, "mm"},
                    {"room wanted", *f.limit, "mm"}};
        out.push_back(std::move(f));
    }
}

static FindingText wordFolding(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         fmt::format("{:.0f}", *f.measured)};
    if (f.variant == "zone" || f.variant == "travel") {
        const Part *owner = findPart(build, f.subjects.size() > 2 ? f.subjects[2] : f.subjects[0]);
        const PartType *type = owner ? typeOf(build, *owner) : nullptr;
        const bool one = type && type->travels.size() == 1 && !type->travels[0].name.empty();
        const std::vector<std::string> met{
            words[0], f.variant == "zone" ? "the propeller of the " + motorName(build, f.subjects[1]) : words[1],
            fmt::format("{:.0f}", inputOf(f, "joint turned by")), oneDecimal(std::abs(*f.measured)),
            one ? " of " + type->travels[0].name : std::string()};
        if (*f.measured > 0)
            return {{"{0} comes as near as {3} mm to {1} on its travel", met},
                    {"At {2}°{4}. More room there, or a smaller range.", met}};
        return {{"{0} strikes {1} on its travel", met},
                {"At {2}°{4} they stand {3} mm in one another. Move one of them, or limit the range.", met}};
    }
    if (f.variant == "folded")
        return {{"Folding: {0} and {1} are in the same place", words},
                {"They meet at {2} % of the way: another angle, another joint, or one above the other.", words}};
    return {{"Folding: {0} strikes {1} on its way", words},
            {"At {2} % of the way: fold in another order, or move one of them.", words}};
}

std::span<const Rule> foldingRules() {
    static const std::array<Rule, 1> rules{{
        {RuleId::fitFolding,
         "What folds and turns",
         "Arms and propellers that meet while folding scratch, break or do not fold at all; a gimbal or tail that "
         "strikes something in mid flight takes the craft down.",
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
