// STK-1 to STK-5: room under the plate above, air between boards, screws, motor screws, dampers and male ends.
#include "core/build/chain.h"
#include "core/remedies/stack_changes.h"
#include "core/rules/rule.h"
#include "core/rules/stack_air.h"
#include "core/stack/motor_screws.h"
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

Fix changeFix(const StackChange &change) {
    Fix fix;
    fix.part = change.stack;
    fix.change = change;
    return fix;
}

const StackReport *reportOf(const Derived &derived, const std::string &stack) {
    for (const auto &report : derived.stacks)
        if (report.stack == stack) return &report;
    return nullptr;
}

} // namespace

static void judgeStackHeight(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    for (const auto &stack : build.stacks) {
        const StackReport *report = reportOf(derived, stack.id);
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
    auto input = [&](std::string_view name) {
        for (const auto &i : f.inputs)
            if (i.name == name) return i.value;
        return 0.0;
    };
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
        const StackReport *report = reportOf(derived, stack.id);
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
                            f.fixes.push_back(changeFix({stack.id, StackChangeKind::spacer, int(i), h}));
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

static void judgeStackScrews(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &stack : build.stacks) {
        const StackReport *report = reportOf(derived, stack.id);
        if (!report || !report->screw.wanted || !report->screw.task.thread) continue;
        const ScrewReport &screw = report->screw;
        Finding f;
        f.rule = RuleId::stkScrew;
        f.subjects = {stack.id};
        f.unit = "mm";
        f.inputs = {{"grip", screw.task.grip_mm, "mm"},
                    {screw.task.nut ? "nut" : "thread wanted",
                     screw.task.nut ? screw.task.nut_mm : screw.task.engagement_mm, "mm"},
                    {"least", screw.choice.least_mm, "mm"},
                    {"grip, +-", screw.tolerance_mm, "mm"}};
        if (screw.choice.most_mm) f.inputs.push_back({"most", *screw.choice.most_mm, "mm"});
        if (screw.placed) f.inputs.push_back({"length", screw.placed->length_mm, "mm"});
        if (screw.choice.best_mm) f.inputs.push_back({"suggested", *screw.choice.best_mm, "mm"});
        f.limit = screw.choice.least_mm;
        const double z = stack.headsOutside ? report->chain.top_mm : report->chain.bottom_mm;
        f.from_mm = report->chain.X_FrameBase * Vec3(0, 0, z);
        if (screw.choice.best_mm && !(screw.placed && screw.placed->length_mm == *screw.choice.best_mm))
            f.fixes.push_back(changeFix(screwChange(*report, *screw.choice.best_mm)));
        if (screw.endMissing) {
            Finding nut = f;
            nut.variant = "no-nut";
            nut.severity = Severity::watch;
            nut.margin = -1;
            nut.measured.reset();
            nut.limit.reset();
            StackChange change{stack.id, StackChangeKind::nut, -1, 0};
            change.thread = screw.task.thread->name;
            nut.fixes = {changeFix(change)};
            out.push_back(std::move(nut));
        }
        for (std::size_t i = 0; i < stack.layers.size(); ++i)
            if (!report->layers[i].held && stack.layers[i].role == LayerRole::board) {
                Finding loose = f;
                loose.variant = "loose";
                loose.severity = Severity::stop;
                loose.subjects = {stack.layers[i].parts.front(), stack.id};
                loose.measured.reset();
                loose.limit.reset();
                loose.margin = -1;
                loose.fixes.clear();
                out.push_back(std::move(loose));
            }
        if (!screw.placed) {
            f.variant = "choose";
            f.severity = Severity::note;
            f.margin = 0;
            out.push_back(std::move(f));
            continue;
        }
        if (!screw.now) continue;
        f.measured = screw.placed->length_mm;
        f.margin = screw.placed->length_mm - screw.choice.least_mm;
        switch (screw.now->verdict) {
        case ScrewVerdict::short_:
            f.variant = "short";
            f.severity = Severity::stop;
            f.margin = -screw.now->outside_mm;
            break;
        case ScrewVerdict::strikes:
            f.variant = "strikes";
            f.severity = Severity::stop;
            f.margin = -screw.now->outside_mm;
            f.subjects.push_back(screw.task.meets);
            break;
        case ScrewVerdict::bottoms:
            f.variant = "bottoms";
            f.severity = Severity::stop;
            f.margin = -screw.now->outside_mm;
            {
                StackChange change{stack.id, StackChangeKind::shim, int(stack.layers.size()),
                                   std::ceil(screw.now->outside_mm * 10 - 1e-9) / 10};
                if (stack.headsOutside && screw.now->outside_mm <= 3) f.fixes.push_back(changeFix(change));
            }
            break;
        case ScrewVerdict::long_:
            f.variant = "long";
            f.severity = Severity::watch;
            f.margin = -screw.now->outside_mm;
            break;
        case ScrewVerdict::good:
            f.variant = "length";
            f.severity = Severity::pass;
            f.fixes.clear();
            break;
        }
        f.inputs.push_back({screw.task.nut ? "past the nut" : "in the thread", screw.now->beyond_mm, "mm"});
        out.push_back(std::move(f));
    }
}

static FindingText wordStackScrew(const Build &build, const Finding &f) {
    auto input = [&](std::string_view name) -> std::optional<double> {
        for (const auto &i : f.inputs)
            if (i.name == name) return i.value;
        return std::nullopt;
    };
    std::string thread = "M3", better, now;
    if (!f.fixes.empty() && f.fixes[0].as<StackChange>()) thread = f.fixes[0].as<StackChange>()->thread;
    const Stack *stack = findStack(build, f.subjects[0]);
    if (stack && !stack->screws.empty())
        if (const Part *part = findPart(build, stack->screws.front()))
            if (const PartType *type = typeOf(build, *part); type && type->fastener) thread = type->fastener->thread;
    if (const auto length = input("suggested")) better = fmt::format("{} x {:g}", thread, *length);
    if (const auto length = input("length")) now = fmt::format("{} x {:g}", thread, *length);
    const bool nut = input("nut").has_value();
    const std::vector<std::string> words{displayName(build, f.subjects[0]),
                                         now,
                                         better,
                                         oneDecimal(std::abs(f.margin)),
                                         oneDecimal(input("least").value_or(0)),
                                         f.subjects.size() > 1 ? nameWithin(build, f.subjects[1]) : "",
                                         oneDecimal(input("past the nut").value_or(input("in the thread").value_or(0))),
                                         oneDecimal(input("grip").value_or(0)),
                                         oneDecimal(input("nut").value_or(input("thread wanted").value_or(0)))};
    const Sentence none{"No length that is sold does: change a spacer or damper.", words};
    const Sentence use = better.empty() ? none : Sentence{"{2} does.", words};
    if (f.variant == "no-nut")
        return {{"{0}: nothing at the far end for the screws to turn into", words},
                {"Add nuts, or say that they end in threaded standoffs or in the frame.", words}};
    if (f.variant == "loose")
        return {{"{0} lies beyond the nuts of {5}: nothing holds it", words},
                {"Put it under the nuts, or nuts on top of it.", words}};
    if (f.variant == "choose")
        return {{"{0}: no screws chosen yet", words},
                better.empty() ? none : Sentence{"{2} fits: grip {7} mm and {8} mm of thread.", words}};
    if (f.variant == "short")
        return {nut ? Sentence{"{0}: {1} is {3} mm short of a full nut", words}
                    : Sentence{"{0}: {1} is {3} mm short in its thread", words},
                better.empty() ? none : Sentence{"At least {4} mm needed; {2} does.", words}};
    if (f.variant == "strikes") return {{"{0}: {1} stands {3} mm into {5}", words}, use};
    if (f.variant == "bottoms")
        return {{"{0}: {1} bottoms out {3} mm before it clamps", words},
                better.empty() ? Sentence{"Shims of {3} mm make up the difference.", words}
                               : Sentence{"{2} does, or shims of {3} mm.", words}};
    return {{"{0}: {1} stands {6} mm past its {5}",
             {words[0], words[1], words[2], words[3], words[4], nut ? "nut" : "thread", words[6]}},
            {"Weight for nothing, and sharp where wires pass.", words}};
}

static void judgeMotorScrews(const Build &, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    // Motors with the same screws through the same arm share one finding.
    std::vector<const MotorScrews *> seen;
    for (const auto &screws : derived.motorScrews) {
        auto alike = [&](const MotorScrews &other) { return sameTask(screws, other); };
        if (std::any_of(seen.begin(), seen.end(), [&](const MotorScrews *other) { return alike(*other); })) continue;
        seen.push_back(&screws);
        Finding f;
        f.rule = RuleId::stkMotorScrew;
        for (const auto &other : derived.motorScrews)
            if (alike(other)) f.subjects.push_back(other.motor);
        f.unit = "mm";
        f.practiceLimit = screws.thread->nominal_mm >= 3 ? Limit::motorEngagementM3 : Limit::motorEngagementM2;
        f.limit = screws.least_mm;
        f.inputs = {{"grip", screws.grip_mm, "mm"}, {"engagement wanted", screws.least_mm, "mm"}};
        if (screws.depth_mm) f.inputs.push_back({"depth of the motor's holes", *screws.depth_mm, "mm"});
        const auto length = screws.placed_mm ? screws.placed_mm : screws.best_mm;
        if (length) f.inputs.push_back({"length", *length, "mm"});
        f.inputs.push_back({"thread", screws.thread->nominal_mm, "mm"});
        if (screws.best_mm) f.inputs.push_back({"suggested", *screws.best_mm, "mm"});
        if (!screws.gripKnown) {
            f.variant = "grip";
            f.severity = Severity::unknown;
            f.limit.reset();
            out.push_back(std::move(f));
            continue;
        }
        auto offer = [&] {
            if (!screws.best_mm || screws.placed.empty()) return;
            StackChange change{screws.motor, StackChangeKind::motorScrew, -1, *screws.best_mm};
            change.thread = screws.thread->name;
            f.fixes.push_back(changeFix(change));
        };
        if (!screws.now) {
            f.variant = "none";
            f.severity = Severity::stop;
            f.measured = screws.depth_mm.value_or(0) - screws.reserve_mm;
            f.margin = *f.measured - screws.least_mm;
            out.push_back(std::move(f));
            continue;
        }
        f.measured = screws.now->engagement_mm;
        f.margin = screws.now->engagement_mm - screws.least_mm;
        switch (screws.now->verdict) {
        case MotorScrewVerdict::short_:
            f.variant = "short";
            f.severity = Severity::stop;
            offer();
            break;
        case MotorScrewVerdict::deep:
            f.variant = "deep";
            f.severity = Severity::stop;
            f.limit = *screws.depth_mm - screws.reserve_mm;
            f.margin = *f.limit - *f.measured;
            f.practiceLimit = Limit::motorReserve;
            offer();
            break;
        case MotorScrewVerdict::unknownDepth:
            f.variant = "depth";
            f.severity = Severity::unknown;
            break;
        case MotorScrewVerdict::good:
            f.variant = "engagement";
            f.severity = Severity::pass;
            if (screws.depth_mm)
                f.margin = std::min(f.margin, *screws.depth_mm - screws.reserve_mm - screws.now->engagement_mm);
            break;
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordMotorScrew(const Build &build, const Finding &f) {
    double length = 0, thread = 3, grip = 0;
    std::optional<double> best;
    for (const auto &i : f.inputs) {
        if (i.name == "length") length = i.value;
        if (i.name == "thread") thread = i.value;
        if (i.name == "grip") grip = i.value;
        if (i.name == "suggested") best = i.value;
    }
    const std::string name = fmt::format("M{:g}", thread);
    std::string who = nameWithin(build, f.subjects[0]);
    if (f.subjects.size() == 2) who += " and " + nameWithin(build, f.subjects[1]);
    if (f.subjects.size() > 2) who += fmt::format(" and {} others", f.subjects.size() - 1);
    const std::vector<std::string> words{who,
                                         fmt::format("{} x {:g}", name, length),
                                         oneDecimal(f.measured.value_or(0)),
                                         oneDecimal(f.limit.value_or(0)),
                                         oneDecimal(grip),
                                         best ? fmt::format("{} x {:g}", name, *best) : std::string()};
    const Sentence use =
        best ? Sentence{"{5} is right through {4} mm.", words}
             : Sentence{"No length that is sold is right through {4} mm: a washer or another arm.", words};
    if (f.variant == "grip")
        return {{"What the screws of {0} go through is not known", words},
                {"Fasten the motor onto its motor plate; an arm of {4} mm is a tube, not what a screw clamps.", words}};
    if (f.variant == "short") return {{"{1} is too short for {0}: it holds {2} mm only", words}, use};
    if (f.variant == "deep")
        return {{"{1} touches the windings of {0}: it goes {2} mm in, {3} mm at most", words}, use};
    if (f.variant == "none") return {{"No screw holds {0} without touching the windings", words}, use};
    return {{"How deep screws may go into {0} is not known", words},
            {"Enter the depth of its threaded holes in the part; {1} goes {2} mm in.", words}};
}

static void judgeDampers(const Build &build, const Practice &practice, const Derived &derived,
                         std::vector<Finding> &out) {
    for (const auto &stack : build.stacks) {
        const StackReport *report = reportOf(derived, stack.id);
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
                f.fixes.push_back(
                    changeFix({stack.id, StackChangeKind::squeeze, damper.layer, (least + most) / 2 / 100}));
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
            if (f.severity == Severity::stop)
                f.fixes.push_back(
                    changeFix({stack.id, StackChangeKind::shim, stud.layer, std::ceil(stud.shim_mm * 10 - 1e-9) / 10}));
            else {
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
    double a = 0, b = 0;
    for (const auto &i : f.inputs) {
        if (i.name == "free height" || i.name == "male end") a = i.value;
        if (i.name == "clamped") b = i.value;
    }
    const std::vector<std::string> words{
        displayName(build, f.subjects[0]), f.unit == "%" ? fmt::format("{:.0f}", *f.measured) : oneDecimal(*f.measured),
        f.unit == "%" ? fmt::format("{:.0f}", *f.limit) : oneDecimal(*f.limit), oneDecimal(a), oneDecimal(b)};
    if (f.variant == "bottoms")
        return {{"{0}: a {3} mm male end bottoms out before the board is clamped", words},
                {"Shims of {1} mm make up the difference.", words}};
    if (f.variant == "engagement")
        return {{"{0}: a male end holds {1} mm only", words}, {"{2} mm of thread wanted: a longer one.", words}};
    if (f.variant == "loose")
        return {{"{0}: dampers squeezed by {1} % hardly hold", words},
                {"{2} % or more wanted: {3} mm free, {4} mm clamped.", words}};
    return {{"{0}: dampers squeezed by {1} % no longer damp", words},
            {"{2} % at most wanted: {3} mm free, {4} mm clamped.", words}};
}

std::span<const Rule> stackRules() {
    static const std::array<Rule, 5> rules{{
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
        {RuleId::stkScrew,
         "Stack screws",
         "A thread that only just reaches the nut lets go; one that stands out into the next board breaks it.",
         "lengths ISO 888, nuts ISO 4032, 7040, 10511 (from memory); common practice for engagement, no source",
         Stage::stack,
         {Limit::nutPitches, Limit::screwBeyond, Limit::engagementSteel, Limit::engagementAluminium,
          Limit::engagementPlastic},
         needs(Need::stacks),
         judgeStackScrews,
         wordStackScrew},
        {RuleId::stkMotorScrew,
         "Motor screws",
         "Too short and the motor comes off; too long and the screw touches the windings and burns the speed "
         "controller.",
         kTrade,
         Stage::stack,
         {Limit::motorEngagementM3, Limit::motorEngagementM2, Limit::motorReserve},
         needs(Need::motorScrews),
         judgeMotorScrews,
         wordMotorScrew},
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
