// STK-1, STK-2, STK-5: room under the plate above, air between boards, dampers and male ends.
#include "core/build/chain.h"
#include "core/findings/input.h"
#include "core/remedies/stack_changes.h"
#include "core/rules/rule.h"
#include "core/rules/stack_air.h"
#include "core/stack/report.h"
#include "core/stack/stock.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Vec3 middleOf(const StackReport &report, const Ring &ring, double z_mm) {
    Vec2 middle = Vec2::Zero();
    for (const auto &p : ring) middle += p / double(ring.size());
    return report.chain.X_FrameBase * Vec3(middle.x(), middle.y(), z_mm);
}

} // namespace

static void judgeStackHeight(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    for (const auto &stack : build.stacks) {
        const StackReport *report = reportOf(derived.stacks, stack.id);
        if (!report || report->plateAbove.empty()) continue;
        Finding f;
        f.rule = RuleId::stkHeight;
        f.subjects = {stack.id, report->closestOwner, report->plateAbove};
        f.unit = "mm";
        f.measured = report->closest.air_mm();
        f.limit = practice[Limit::stackAirLow];
        f.practiceLimit = Limit::stackAirLow;
        f.margin = *f.measured - *f.limit;
        const double chance = 100 * report->closing.probability;
        f.severity = airSeverity(*f.measured, practice);
        f.variant = "height";
        if (f.severity != Severity::stop && chance < practice[Limit::closeChance]) {
            f.severity = Severity::watch;
            f.variant = "chance";
        }
        f.inputs = {{"room to the plate", report->plateAbove_mm, "mm"},
                    {"tallest under it", report->plateAbove_mm - report->closest.gap_mm, "mm"},
                    {"wires between", report->closest.wires_mm, "mm"},
                    {"likely, +-", report->closing.likely_mm, "mm"},
                    {"worst case", report->closing.worst_mm, "mm"},
                    {"closes in", chance, "%"}};
        f.from_mm = middleOf(*report, report->closest.where, report->closest.lower.to_mm);
        f.to_mm = middleOf(*report, report->closest.where, report->plateAbove_mm);
        out.push_back(std::move(f));
    }
}

static FindingText wordStackHeight(const Build &build, const Finding &f) {
    const auto input = [&](std::string_view name) { return inputOf(f, name); };
    const std::vector<std::string> words{nameWithin(build, f.subjects[1]),          nameWithin(build, f.subjects[2]),
                                         oneDecimal(std::abs(*f.measured)),         oneDecimal(*f.limit),
                                         oneDecimal(input("likely, +-")),           oneDecimal(input("worst case")),
                                         fmt::format("{:.0f}", input("closes in")), displayName(build, f.subjects[0])};
    if (f.severity == Severity::stop)
        return {
            {"{7} does not close: {0} is {2} mm too high for {1}", words},
            {"Lower dampers, spacers or plugs, or higher standoffs; the what-if list says which is enough.", words}};
    if (f.variant == "chance")
        return {{"{7} closes under {1} in {6} % of cases", words},
                {"{2} ± {4} mm left, worst case {5} mm; measure what varies most.", words}};
    return {{"{7} leaves {2} mm between {0} and {1}", words},
            {"Likely ± {4} mm, worst case {5} mm; {3} mm wanted.", words}};
}

static void judgeStackGaps(const Build &build, const Practice &practice, const Derived &derived,
                           std::vector<Finding> &out) {
    for (const auto &stack : build.stacks) {
        const StackReport *report = reportOf(derived.stacks, stack.id);
        if (!report) continue;
        for (const auto &gap : report->gaps) {
            Finding f;
            f.rule = RuleId::stkGap;
            f.subjects = {gap.below, gap.above};
            f.unit = "mm";
            f.measured = gap.air_mm();
            f.limit = practice[Limit::stackAir];
            f.practiceLimit = Limit::stackAir;
            f.margin = *f.measured - *f.limit;
            f.severity = airSeverity(*f.measured, practice);
            // What is not bare may come near the plate; it may not touch it.
            if (gap.toPlate && f.severity != Severity::stop) f.severity = Severity::pass;
            f.variant = gap.wires_mm > 0 ? "wires" : "air";
            f.inputs = {{"lower side up to", gap.lower.to_mm, "mm"},
                        {"upper side down to", gap.upper.from_mm, "mm"},
                        {"wires between", gap.wires_mm, "mm"},
                        {"sheet between", gap.sheets_mm, "mm"}};
            f.from_mm = middleOf(*report, gap.where, gap.lower.to_mm);
            f.to_mm = middleOf(*report, gap.where, gap.upper.from_mm);
            if (f.severity != Severity::pass) {
                // The spacer between the two, one size up.
                for (std::size_t i = 0; i < stack.layers.size(); ++i) {
                    const StackLayer &layer = stack.layers[i];
                    const double from = report->chain.spans[i].from_mm;
                    if (layer.role != LayerRole::spacer || !(from >= gap.lower.from_mm - 0.01) ||
                        !(from < gap.upper.to_mm))
                        continue;
                    const double height = report->layers[i].free_mm, wanted = height - f.margin;
                    for (double h : kSpacerHeights_mm)
                        if (h >= wanted - 1e-9) {
                            f.fixes.push_back(fixBy({stack.id, StackChangeKind::spacer, int(i), h}));
                            break;
                        }
                    break;
                }
            }
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordStackGap(const Build &build, const Finding &f) {
    const std::vector<std::string> words{nameWithin(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         oneDecimal(std::abs(*f.measured)), oneDecimal(*f.limit)};
    const std::string cure = f.fixes.empty() || !f.fixes[0].as<StackChange>()
                                 ? "{3} mm of air wanted: turn one of the boards, or use a higher spacer."
                                 : "{3} mm of air wanted: spacers of " +
                                       fmt::format("{:g}", f.fixes[0].as<StackChange>()->value) + " mm clear it.";
    if (f.severity == Severity::stop)
        return f.variant == "wires"
                   ? FindingText{{"The wires between {0} and {1} have {2} mm too little room", words}, {cure, words}}
                   : FindingText{{"Something on {0} meets {1} by {2} mm", words}, {cure, words}};
    return {{"{2} mm of air between {0} and {1}", words}, {cure, words}};
}

static void judgeDampers(const Build &build, const Practice &practice, const Derived &derived,
                         std::vector<Finding> &out) {
    for (const auto &stack : build.stacks) {
        const StackReport *report = reportOf(derived.stacks, stack.id);
        if (!report) continue;
        for (const auto &damper : report->dampers) {
            Finding f;
            f.rule = RuleId::stkDamper;
            f.subjects = {stack.id, stack.layers[std::size_t(damper.layer)].parts.front()};
            f.unit = "%";
            f.measured = 100 * damper.squeeze;
            const double least = practice[Limit::damperLeast], most = practice[Limit::damperMost];
            const bool loose = *f.measured<least - 1e-9, hard = *f.measured> most + 1e-9;
            f.limit = hard ? most : least;
            f.practiceLimit = hard ? Limit::damperMost : Limit::damperLeast;
            f.margin = std::min(*f.measured - least, most - *f.measured);
            f.variant = loose ? "loose" : hard ? "hard" : "squeeze";
            f.severity = loose || hard ? Severity::watch : Severity::pass;
            f.inputs = {{"free height", damper.free_mm, "mm"}, {"clamped", damper.clamped_mm, "mm"}};
            if (f.severity == Severity::watch)
                f.fixes.push_back(fixBy({stack.id, StackChangeKind::squeeze, damper.layer, (least + most) / 2 / 100}));
            out.push_back(std::move(f));
        }
        for (const auto &stud : report->studs) {
            Finding f;
            f.rule = RuleId::stkDamper;
            f.subjects = {stack.id, stack.layers[std::size_t(stud.layer)].parts.front()};
            f.unit = "mm";
            f.inputs = {{"male end", stud.stud_mm, "mm"},
                        {"clamped", stud.clamped_mm, "mm"},
                        {"depth of the thread", stud.depth_mm, "mm"}};
            f.variant = "bottoms";
            f.measured = stud.shim_mm;
            f.limit = 0;
            f.margin = -stud.shim_mm;
            f.severity = stud.shim_mm > 1e-9 ? Severity::stop : Severity::pass;
            if (f.severity == Severity::stop) {
                f.fixes.push_back(
                    fixBy({stack.id, StackChangeKind::shim, stud.layer, std::ceil(stud.shim_mm * 10 - 1e-9) / 10}));
                if (const double left = cutStudTo_mm(stud); left > 0)
                    f.fixes.push_back(fixBy({stack.id, StackChangeKind::cutStud, stud.layer, left}));
            } else {
                f.variant = "engagement";
                f.measured = stud.engagement_mm;
                f.limit = stud.least_mm;
                f.margin = stud.engagement_mm - stud.least_mm;
                if (f.margin < -1e-9) f.severity = Severity::watch;
            }
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordDampers(const Build &build, const Finding &f) {
    const double a = inputOf(f, f.unit == "%" ? "free height" : "male end"), b = inputOf(f, "clamped");
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]), f.unit == "%" ? fmt::format("{:.0f}", *f.measured) : oneDecimal(*f.measured),
        f.unit == "%" ? fmt::format("{:.0f}", *f.limit) : oneDecimal(*f.limit), oneDecimal(a), oneDecimal(b)};
    if (f.variant == "bottoms")
        return {{"{0}: a {3} mm male end bottoms out before the board is clamped", words},
                {"Shims of {1} mm make up the difference, or that much is cut off it.", words}};
    if (f.variant == "engagement")
        return {{"{0}: a male end holds {1} mm only", words}, {"{2} mm of thread wanted: a longer one.", words}};
    if (f.variant == "loose")
        return {{"{0}: dampers squeezed by {1} % hardly hold", words},
                {"{2} % or more wanted: {3} mm free, {4} mm clamped.", words}};
    return {{"{0}: dampers squeezed by {1} % no longer damp", words},
            {"{2} % at most wanted: {3} mm free, {4} mm clamped.", words}};
}

std::span<const Rule> stackRules() {
    static const std::array<Rule, 3> rules{{
        {RuleId::stkHeight,
         "Room under the plate above",
         "A stack that is too high bends the plate or crushes a plug; what varies most decides whether it closes.",
         "tolerance chain: worst case and root-sum-square of independent errors; common practice for the limits, "
         "no "
         "source",
         Stage::stack,
         {Limit::stackAir, Limit::stackAirLow, Limit::closeChance, Limit::plateTolerance, Limit::boardTolerance,
          Limit::damperTolerance, Limit::spacerTolerance, Limit::standoffTolerance, Limit::partTolerance},
         needs(Need::stacks),
         judgeStackHeight,
         wordStackHeight},
        {RuleId::stkGap,
         "Air between boards",
         "What stands up on one board and hangs down from the next meets where nobody sees it; each place is "
         "looked "
         "at.",
         kTrade,
         Stage::stack,
         {Limit::stackAir, Limit::stackAirLow, Limit::wireEnds},
         needs(Need::stacks),
         judgeStackGaps,
         wordStackGap},
        {RuleId::stkDamper,
         "Dampers and male ends",
         "A damper damps only while it can give; a male end that bottoms out holds nothing.",
         kTrade,
         Stage::stack,
         {Limit::damperLeast, Limit::damperMost, Limit::engagementSteel, Limit::engagementAluminium,
          Limit::engagementPlastic},
         needs(Need::stacks),
         judgeDampers,
         wordDampers},
    }};
    return rules;
}

} // namespace waxis
