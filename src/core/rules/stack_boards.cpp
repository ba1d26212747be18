// STK-6 to STK-8: insulation, order of mating, the flat cable between two boards.
#include "core/build/chain.h"
#include "core/edits/hung_on.h"
#include "core/findings/input.h"
#include "core/rules/rule.h"
#include "core/stack/report.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

static void judgeInsulation(const Build &build, const Practice &practice, const Derived &derived,
                            std::vector<Finding> &out) {
    for (const auto &report : derived.stacks) {
        const Stack *stack = findStack(build, report.stack);
        if (!stack) continue;
        for (const auto &bare : report.bare) {
            Finding f;
            f.rule = RuleId::stkInsulation;
            f.subjects = {bare.board, bare.other};
            f.unit = "mm";
            f.variant = bare.hardware ? "hardware" : "carbon";
            f.measured = bare.air_mm;
            const Limit limit = bare.hardware ? Limit::hardwareBareGap : Limit::bareGap;
            f.practiceLimit = limit;
            f.limit = practice[limit];
            f.margin = bare.air_mm - *f.limit;
            f.severity = f.margin >= -1e-9 ? Severity::pass : bare.air_mm < 1e-6 ? Severity::stop : Severity::watch;
            if (bare.sheet && f.severity != Severity::pass) {
                // With a sheet between, only what pierces it matters.
                f.severity = bare.air_mm < -1e-6 ? Severity::watch : Severity::pass;
                f.margin = bare.air_mm;
            }
            f.from_mm = bare.at_mm;
            f.inputs = {{"air", bare.air_mm, "mm"}};
            if (f.severity != Severity::pass && !bare.hardware && !bare.sheet) {
                Fix fix;
                fix.part = stack->id;
                fix.change = StackChange{stack->id, StackChangeKind::sheet, frameLayer(*stack) + 1, 0.2};
                f.fixes.push_back(fix);
            }
            out.push_back(std::move(f));
        }
        // Held off the carbon by metal alone.
        const int seat = frameLayer(*stack);
        for (std::size_t i = 0; i < stack->layers.size(); ++i) {
            const StackLayer &layer = stack->layers[i];
            if (layer.role != LayerRole::board || std::abs(int(i) - seat) != 1) continue;
            const std::string carrier = carrierOf(build, *stack);
            const auto &plates = build.frame->plates;
            const auto plate =
                std::find_if(plates.begin(), plates.end(), [&](const Plate &p) { return p.id == carrier; });
            const Material *stuff =
                plate == plates.end() ? nullptr : findMaterial(plate->material, build.frame->materials);
            if (!stuff || !stuff->conducts) continue;
            Finding f;
            f.rule = RuleId::stkInsulation;
            f.variant = "flat";
            f.subjects = {layer.parts.front(), carrier};
            f.unit = "mm";
            f.measured = 0;
            f.limit = practice[Limit::bareGap];
            f.practiceLimit = Limit::bareGap;
            f.margin = -*f.limit;
            f.severity = Severity::stop;
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordInsulation(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]),
                                         oneDecimal(std::max(0.0, *f.measured)), oneDecimal(*f.limit)};
    if (f.variant == "flat")
        return {{"{0} lies on {1} without an insulating spacer", words},
                {"Carbon conducts: put nylon spacers or dampers under it.", words}};
    if (f.variant == "hardware")
        return {{"{1} is {2} mm from bare metal of {0}",
                 {withinSentence(words[0]), displayName(build, f.subjects[1]), words[2], words[3]}},
                {"{3} mm wanted: nylon hardware, or an insulating washer.", words}};
    if (f.severity == Severity::stop)
        return {{"Bare metal under {0} touches {1}", {withinSentence(words[0]), words[1], words[2], words[3]}},
                {"Carbon conducts: cut wire ends shorter, lift the board, or lay an insulating sheet.", words}};
    return {{"{0} has {2} mm of air between bare metal and {1}", words},
            {"{3} mm wanted, or an insulating sheet.", words}};
}

static void judgeHiddenPlugs(const Build &, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &report : derived.stacks)
        for (const auto &plug : report.hidden) {
            Finding f;
            f.rule = RuleId::stkOrder;
            f.subjects = {plug.board, plug.under};
            f.variant = plug.port;
            f.severity = Severity::note;
            f.margin = 0;
            out.push_back(std::move(f));
        }
}

static FindingText wordHiddenPlugs(const Build &build, const Finding &f) {
    const std::vector<std::string> words{nameWithin(build, f.subjects[0]), nameWithin(build, f.subjects[1]), f.variant};
    return {{"\"{2}\" is under {0}: mate it before the board goes in", words},
            {"Nobody reaches it over {1} any more; turn the board over, or plug it first and pull once.", words}};
}

static void judgeHarness(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &report : derived.stacks) {
        const Stack *stack = findStack(build, report.stack);
        for (const auto &harness : report.harnesses) {
            Finding f;
            f.rule = RuleId::stkHarness;
            f.subjects = {harness.boardA, harness.boardB};
            f.unit = "deg";
            f.measured = harness.turn_deg;
            f.limit = 45;
            f.margin = 45 - harness.turn_deg;
            f.inputs = {{"flat cable", harness.length_mm, "mm"},
                        {"turn for straight ports", harness.bestTurn_deg, "deg"},
                        {"flat cable then", harness.bestLength_mm, "mm"}};
            f.from_mm = harness.a_mm;
            f.to_mm = harness.b_mm;
            f.variant = harness.turn_deg > 45 ? "turn" : harness.halfTwist ? "twist" : "straight";
            f.severity = f.variant == "straight" ? Severity::pass : Severity::note;
            if (f.variant == "turn" && stack)
                for (std::size_t i = 0; i < stack->layers.size(); ++i)
                    if (stack->layers[i].role == LayerRole::board && stack->layers[i].parts.front() == harness.boardB &&
                        harness.bestTurn_deg != 0) {
                        Fix fix;
                        fix.part = harness.boardB;
                        fix.change = StackChange{stack->id, StackChangeKind::turn, int(i), harness.bestTurn_deg};
                        f.fixes.push_back(fix);
                    }
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordHarness(const Build &build, const Finding &f) {
    const double length = maybeInput(f, "flat cable").value_or(0), then = maybeInput(f, "flat cable then").value_or(0),
                 turn = maybeInput(f, "turn for straight ports").value_or(0);
    const std::vector<std::string> words{
        nameWithin(build, f.subjects[0]),   nameWithin(build, f.subjects[1]),
        fmt::format("{:.0f}", *f.measured), fmt::format("{:.0f}", length),
        fmt::format("{:.0f}", then),        std::abs(turn) > 135 ? "180°" : turn > 0 ? "left 90°" : "right 90°"};
    if (f.variant == "twist")
        return {{"The flat cable from {0} to {1} needs half a twist", words},
                {"One of the boards is upside down: {3} mm of cable, pins the other way round.", words}};
    return {{"The plugs of {0} and {1} open {2}° apart: {3} mm of flat cable", words},
            {"With {1} turned {5} they meet with {4} mm; the angles to enter change with it.", words}};
}

std::span<const Rule> stackBoardsRules() {
    static const std::array<Rule, 3> rules{{
        {RuleId::stkInsulation,
         "Insulation",
         "Carbon and metal conduct: nothing soldered may touch them, not even when a board flexes.",
         kTrade,
         Stage::stack,
         {Limit::bareGap, Limit::hardwareBareGap, Limit::wireEnds},
         needs(Need::stacks),
         judgeInsulation,
         wordInsulation},
        {RuleId::stkOrder,
         "Plugs on the hidden side",
         "A plug under a board can be mated only before the board goes in.",
         kTrade,
         Stage::stack,
         {},
         needs(Need::stacks),
         judgeHiddenPlugs,
         wordHiddenPlugs},
        {RuleId::stkHarness,
         "Flat cable between boards",
         "A flat cable does not turn corners: ports that open alike need the shortest one.",
         kTrade,
         Stage::stack,
         {},
         needs(Need::stacks),
         judgeHarness,
         wordHarness},
    }};
    return rules;
}

} // namespace waxis
