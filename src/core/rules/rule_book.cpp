#include "core/rules/families.h"
#include "core/rules/rule.h"

namespace waxis {

std::span<const Rule> ruleBook() {
    constexpr std::string_view kTrade = "common practice, no source";
    static const std::vector<Rule> book{
        {RuleId::kitMassUnknown,
         "KIT-1",
         "Mass not known",
         "A part without a weight is missing from the balance; nought grams would be a lie.",
         kTrade,
         Stage::kit,
         {},
         judgeMassUnknown,
         wordMassUnknown},
        {RuleId::fitOverlap,
         "FIT-1",
         "Overlap",
         "Two solid things cannot stand in the same place; the shortest move that frees them is worked out.",
         "separating axis theorem for boxes; geometry",
         Stage::place,
         {Limit::overlapDepth},
         judgeOverlap,
         wordOverlap},
        {RuleId::fitGap,
         "FIT-2",
         "Gaps for sway, heat and bare contacts",
         "Soft-mounted parts swing, hot ones soften print and harm packs, and carbon and metal short what is "
         "bare.",
         kTrade,
         Stage::place,
         {Limit::swayGap, Limit::heatGap, Limit::bareGap},
         judgeGaps,
         wordGap},
        {RuleId::fitPropZone,
         "FIT-3",
         "Propeller zone",
         "Blades flex and loose ends sway: what stands in the disc is struck.",
         kTrade,
         Stage::place,
         {Limit::propRigidGap, Limit::propFlexibleGap, Limit::propFlexUp, Limit::propFlexDown},
         judgePropellerZone,
         wordPropellerZone},
        {RuleId::fitTipGap,
         "FIT-4",
         "Propeller tip to propeller tip",
         "Arms bend and blades stretch; tips that nearly meet on the bench meet in the air.",
         kTrade,
         Stage::frame,
         {Limit::tipGap, Limit::propFlexUp, Limit::propFlexDown},
         judgeTipGaps,
         wordTipGap},
        {RuleId::balOffset,
         "BAL-1",
         "Centre of gravity off the thrust centre",
         "Off centre, some motors work harder all the time: less headroom, less flight time, worse turns.",
         kTrade,
         Stage::balance,
         {Limit::cgOffset},
         judgeCgOffset,
         wordCgOffset},
    };
    return book;
}

const Rule &ruleOf(RuleId id) { return ruleBook()[std::size_t(id)]; }

} // namespace waxis
