// STK-3, STK-4: screws of stacks and of motors.
#include "core/build/chain.h"
#include "core/findings/input.h"
#include "core/remedies/stack_changes.h"
#include "core/rules/rule.h"
#include "core/stack/motor_screws.h"
#include "core/stack/report.h"
#include "core/stack/stock.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

/// What all that is said of a stack's screws has in common.
Finding screwFinding(const Stack &stack, const StackReport &report) {
    const ScrewReport &screw = report.screw;
    Finding f;
    f.rule = RuleId::stkScrew;
    f.subjects = {stack.id};
    f.unit = "mm";
    f.inputs = {
        {"grip", screw.task.grip_mm, "mm"},
        {screw.task.nut ? "nut" : "thread wanted", screw.task.nut ? screw.task.nut_mm : screw.task.engagement_mm, "mm"},
        {"least", screw.choice.least_mm, "mm"},
        {"grip, +-", screw.tolerance_mm, "mm"}};
    if (screw.choice.most_mm) f.inputs.push_back({"most", *screw.choice.most_mm, "mm"});
    if (screw.placed) f.inputs.push_back({"length", screw.placed->length_mm, "mm"});
    if (screw.choice.best_mm) f.inputs.push_back({"suggested", *screw.choice.best_mm, "mm"});
    f.limit = screw.choice.least_mm;
    const double z = stack.headsOutside ? report.chain.top_mm : report.chain.bottom_mm;
    f.from_mm = report.chain.X_FrameBase * Vec3(0, 0, z);
    if (screw.choice.best_mm && !(screw.placed && screw.placed->length_mm == *screw.choice.best_mm))
        f.fixes.push_back(fixBy(screwChange(report, *screw.choice.best_mm)));
    return f;
}

/// A placed part may stand for a set.
int piecesIn(const Build &build, const std::vector<std::string> &parts) {
    int pieces = 0;
    for (const auto &id : parts) {
        const Part *part = findPart(build, id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        pieces += type && type->fastener ? std::max(1, type->fastener->pieces) : 1;
    }
    return pieces;
}

/// Of what is there or not, whatever its length.
Finding withoutLength(Finding f, const char *variant, Severity severity) {
    f.variant = variant;
    f.severity = severity;
    f.margin = -1;
    f.measured.reset();
    f.limit.reset();
    f.fixes.clear();
    return f;
}

/// What is too long can be cut, as long as enough is left.
void offerCut(Finding &f, const Stack &stack, const ScrewReport &screw) {
    constexpr double kStep_mm = 0.5, kMost_mm = 8; // more is another screw
    const double cut = std::ceil(screw.now->outside_mm / kStep_mm - 1e-9) * kStep_mm;
    if (cut > 0 && cut <= kMost_mm && screw.placed->length_mm - cut >= screw.choice.least_mm - 1e-9)
        f.fixes.push_back(fixBy({stack.id, StackChangeKind::cutScrew, -1, stack.cut_mm + cut}));
}

/// The verdict on the length of screws that are there.
void judgeLength(Finding &f, const Stack &stack, const ScrewReport &screw) {
    f.measured = screw.placed->length_mm;
    const auto outside = [&](const char *variant, Severity severity) {
        f.variant = variant;
        f.severity = severity;
        f.margin = -screw.now->outside_mm;
    };
    switch (screw.now->verdict) {
    case ScrewVerdict::short_: outside("short", Severity::stop); break;
    case ScrewVerdict::strikes:
        outside("strikes", Severity::stop);
        f.subjects.push_back(screw.task.meets);
        offerCut(f, stack, screw);
        break;
    case ScrewVerdict::bottoms:
        outside("bottoms", Severity::stop);
        offerCut(f, stack, screw);
        if (screw.now->outside_mm <= 3) // under the heads
            f.fixes.push_back(fixBy({stack.id, StackChangeKind::shim, stack.headsOutside ? int(stack.layers.size()) : 0,
                                     std::ceil(screw.now->outside_mm * 10 - 1e-9) / 10}));
        break;
    case ScrewVerdict::long_:
        outside("long", Severity::watch);
        offerCut(f, stack, screw);
        break;
    case ScrewVerdict::good:
        f.variant = "length";
        f.severity = Severity::pass;
        f.margin = screw.placed->length_mm - screw.choice.least_mm;
        if (stack.cut_mm > 0) f.inputs.push_back({"cut off", stack.cut_mm, "mm"});
        f.fixes.clear();
        break;
    }
    f.inputs.push_back({screw.task.nut ? "past the nut" : "in the thread", screw.now->beyond_mm, "mm"});
}

} // namespace

static void judgeStackScrews(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &stack : build.stacks) {
        const StackReport *report = reportOf(derived.stacks, stack.id);
        if (!report || !report->screw.wanted || !report->screw.task.thread) continue;
        const ScrewReport &screw = report->screw;
        Finding f = screwFinding(stack, *report);
        if (screw.endMissing) {
            StackChange change{stack.id, StackChangeKind::nut, -1, 0};
            change.thread = screw.task.thread->name;
            out.push_back(withoutLength(f, "no-nut", Severity::watch));
            out.back().fixes = {fixBy(change)};
        }
        for (const auto &layer : stack.layers)
            if (const int nuts = piecesIn(build, layer.parts), screws = piecesIn(build, stack.screws);
                layer.role == LayerRole::nut && nuts < screws) {
                Finding few = withoutLength(f, "few-nuts", Severity::stop);
                few.measured = nuts;
                few.limit = screws;
                few.margin = *few.measured - *few.limit;
                few.unit = "";
                out.push_back(std::move(few));
            }
        for (std::size_t i = 0; i < stack.layers.size(); ++i)
            if (!report->layers[i].held && stack.layers[i].role == LayerRole::board) {
                out.push_back(withoutLength(f, "loose", Severity::stop));
                out.back().subjects = {stack.layers[i].parts.front(), stack.id};
            }
        if (!screw.placed) {
            f.variant = "choose";
            f.severity = Severity::note;
            f.margin = 0;
        } else if (screw.now)
            judgeLength(f, stack, screw);
        else
            continue;
        out.push_back(std::move(f));
    }
}

static FindingText wordStackScrew(const Build &build, const Finding &f) {
    const auto input = [&](std::string_view name) { return maybeInput(f, name); };
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
    if (f.variant == "few-nuts")
        return {{"{0}: {1} nuts for {2} screws",
                 {displayName(build, f.subjects[0]), wholeNumber(*f.measured), wholeNumber(*f.limit)}},
                {"A corner that nothing holds shakes the others loose: a nut for every screw.", words}};
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
        if (screws.clamped.size() > 1) f.inputs.push_back({"things clamped", double(screws.clamped.size()), ""});
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
            f.fixes.push_back(fixBy(change));
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
    const double length = maybeInput(f, "length").value_or(0), grip = maybeInput(f, "grip").value_or(0),
                 thread = maybeInput(f, "thread").value_or(3);
    const auto best = maybeInput(f, "suggested");
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

std::span<const Rule> stackScrewsRules() {
    static const std::array<Rule, 2> rules{{
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
    }};
    return rules;
}

} // namespace waxis
