#include "core/instructions/step_words.h"

#include "core/base/by_id.h"
#include "core/rules/name_list.h"
#include "core/rules/wording.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace waxis {

namespace {

std::string_view wayWord(const Vec3 &from) {
    constexpr double kPlain = 0.9;
    if (from.z() > kPlain) return "from above";
    if (from.z() < -kPlain) return "from below";
    if (from.x() > kPlain) return "from ahead";
    if (from.x() < -kPlain) return "from behind";
    if (from.y() > kPlain) return "from the left";
    if (from.y() < -kPlain) return "from the right";
    return from.z() >= 0 ? "slanting from above" : "slanting from below";
}

std::vector<std::string> wiresOf(const Step &step) {
    std::vector<std::string> wires;
    for (const auto &joint : step.joints)
        if (std::find(wires.begin(), wires.end(), joint.wire) == wires.end()) wires.push_back(joint.wire);
    return wires;
}

std::vector<std::string> partsOf(const Step &step) {
    std::vector<std::string> parts;
    for (const auto &joint : step.joints)
        if (std::find(parts.begin(), parts.end(), joint.part) == parts.end()) parts.push_back(joint.part);
    return parts;
}

Sentence wordFit(const Build &build, const Step &step) {
    constexpr std::size_t kNamed = 2;
    const Part *part = findPart(build, step.things.front());
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    std::string what = listNamesFirst(build, step.things);
    if (!step.asOne && step.things.size() > kNamed && type)
        what = fmt::format("{} x {}", step.things.size(), type->name);
    if (step.base) return {"Begin with {0}", {listNames(build, step.things)}};
    const std::vector<std::string> words{what, listNames(build, step.onto), std::string(wayWord(step.from)),
                                         listNames(build, step.stuckBehind)};
    if (!step.stuckBehind.empty()) return {"{0} does not go in: {3} in the way", words};
    if (step.asOne)
        return step.onto.empty() ? Sentence{"{0}, put together in the hand, {2}", words}
                                 : Sentence{"{0}, put together in the hand, onto {1}, {2}", words};
    return step.onto.empty() ? Sentence{"{0}, {2}", words} : Sentence{"{0} onto {1}, {2}", words};
}

/// A step within a sentence.
std::string stepName(const Build &build, const AssemblyPlan &plan, std::size_t step, const std::string &thing) {
    const Step &s = plan.steps[step];
    const std::string parts = listNames(build, partsOf(s));
    switch (s.kind) {
    case OperationKind::prepare: return "cutting the leads";
    case OperationKind::fit: return thing.empty() ? listNames(build, s.things) : nameWithin(build, thing);
    case OperationKind::solder: return "the joints at " + parts;
    case OperationKind::plug: return "the plugs at " + parts;
    case OperationKind::snap: return "the antenna plugs at " + parts;
    case OperationKind::tie: return "tying the wires";
    case OperationKind::check:
        return s.gate == Gate::train   ? "the first power"
               : s.gate == Gate::rails ? "measuring what " + listNames(build, s.onto) + " gives"
               : s.gate == Gate::end   ? "the checks"
                                       : "the first flight";
    case OperationKind::own: return wordStep(build, s).text();
    }
    return s.id;
}

/// What everybody knows: a part is there before it is joined, and all of it before it is checked and flies.
bool goesWithoutSaying(const Step &step) {
    return step.kind == OperationKind::tie || step.gate == Gate::end || step.gate == Gate::flight;
}

} // namespace

Sentence wordStep(const Build &build, const Step &step) {
    const std::vector<std::string> joined{listNames(build, wiresOf(step)), listNames(build, partsOf(step)),
                                          std::to_string(step.things.size())};
    switch (step.kind) {
    case OperationKind::prepare: return {"Cut, strip and tin in the hand: {0}", joined};
    case OperationKind::fit: return wordFit(build, step);
    case OperationKind::solder: return {step.inHand ? "In the hand, solder to {1}: {0}" : "Solder to {1}: {0}", joined};
    case OperationKind::plug: return {step.inHand ? "In the hand, plug into {1}: {0}" : "Plug into {1}: {0}", joined};
    case OperationKind::snap: return {step.inHand ? "In the hand, put onto {1}: {0}" : "Put onto {1}: {0}", joined};
    case OperationKind::tie:
        return {step.things.size() == 1 ? "Tie the wires down in one place" : "Tie the wires down in {2} places",
                joined};
    case OperationKind::check:
        switch (step.gate) {
        case Gate::train: return {"Check the power train, and first power through a limiter", {}};
        case Gate::rails: return {"Power {0} alone, and measure what it gives", {listNames(build, step.onto)}};
        case Gate::end: return {"Check everything without propellers", {}};
        case Gate::flight: return {"Weigh, balance and hover", {}};
        case Gate::none: break;
        }
        return {"Check", {}};
    case OperationKind::own: {
        const OwnStep *own = byId(build.ownSteps, step.id);
        return {"{0}", {own ? own->text : step.id}};
    }
    }
    return {"{0}", {step.id}};
}

std::vector<Sentence> wordTakes(const Build &build, const Derived &derived, const Step &step) {
    std::vector<Sentence> lines;
    for (const auto &piece : step.takes) lines.push_back({"{0} x {1}", {std::to_string(piece.pieces), piece.name}});
    // Members of a frame and placed fasteners, kind by kind.
    if (step.kind == OperationKind::fit && step.tool == Tool::driver && step.side < 0 && step.takes.empty())
        lines.push_back({"Tape over the heads holds them while the craft is turned over.", {}});
    std::map<std::string, int> drawn;
    for (const auto &id : step.things)
        if (const Part *part = findPart(build, id))
            if (const PartType *type = typeOf(build, *part); type && type->fastener) ++drawn[type->name];
    for (const auto &[name, count] : drawn) lines.push_back({"{0} x {1}", {std::to_string(count), name}});
    for (const auto &id : wiresOf(step))
        for (std::size_t w = 0; w < build.wires.size() && w < derived.wiring->wires.size(); ++w) {
            if (build.wires[w].id != id) continue;
            const Wire &wire = build.wires[w];
            const WireReport &report = derived.wiring->wires[w];
            if (step.kind == OperationKind::prepare) {
                lines.push_back({"{0}: {1} mm, {2} cores AWG {3}",
                                 {displayName(build, id), wholeNumber(report.cut_mm), std::to_string(wire.cores.size()),
                                  std::to_string(report.gauge_AWG)}});
                continue;
            }
            std::string pins;
            for (const auto &joint : step.joints) {
                if (joint.wire != id) continue;
                const bool atFrom = wire.from.part == joint.part && wire.from.port == joint.port;
                for (const auto &core : wire.cores) {
                    const std::string &pin = atFrom ? core.fromPin : core.toPin;
                    pins += fmt::format("{}{}{}", pins.empty() ? "" : ", ", pin,
                                        core.colour.empty() ? "" : " (" + core.colour + ")");
                }
            }
            lines.push_back(pins.empty() ? Sentence{"{0}", {displayName(build, id)}}
                                         : Sentence{"{0}: {1}", {displayName(build, id), pins}});
        }
    return lines;
}

Sentence wordCaution(const Build &build, const Step &step) {
    switch (step.kind) {
    case OperationKind::prepare:
    case OperationKind::solder:
        return {
            "Hot tip and fumes: fresh air, hair and sleeves away, pack unplugged. Carbon conducts: nothing bare may "
            "touch it.",
            {}};
    case OperationKind::check:
        switch (step.gate) {
        case Gate::train:
        case Gate::rails:
        case Gate::end:
            return {
                "Propellers off. A shorted lithium pack burns: limiter between pack and craft, a place where it may "
                "burn. No transmitter without its antenna; what it may send, local law decides.",
                {}};
        case Gate::flight:
            return {"Propellers cut: arm at a distance, nobody in front or under. Where and how one may fly, local law "
                    "decides.",
                    {}};
        case Gate::none: break;
        }
        return {"", {}};
    case OperationKind::fit:
        for (const auto &id : step.things) {
            const Part *part = findPart(build, id);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            if (type && type->kind == PartKind::propeller)
                return {"Propellers last, pack unplugged: each by its motor's direction.", {}};
            if (type && type->kind == PartKind::battery)
                return {"A lithium pack that is crushed or shorted burns: no edge under it, not plugged in yet.", {}};
        }
        return {"", {}};
    case OperationKind::plug:
    case OperationKind::snap:
    case OperationKind::tie:
    case OperationKind::own: return {"", {}};
    }
    return {"", {}};
}

std::vector<Sentence> wordWhyHere(const Build &build, const AssemblyPlan &plan, std::size_t step) {
    std::map<BeforeReason, std::vector<std::string>> later, sooner;
    for (const auto &before : plan.reasons) {
        auto add = [](std::vector<std::string> &list, std::string name) {
            if (std::find(list.begin(), list.end(), name) == list.end()) list.push_back(std::move(name));
        };
        if (before.first == step && !goesWithoutSaying(plan.steps[before.second]))
            add(later[before.reason], stepName(build, plan, before.second, before.other));
        if (before.second == step) add(sooner[before.reason], stepName(build, plan, before.first, before.thing));
    }
    std::vector<Sentence> lines;
    auto say = [&](const std::map<BeforeReason, std::vector<std::string>> &from, BeforeReason reason,
                   const char *pattern) {
        if (const auto at = from.find(reason); at != from.end()) lines.push_back({pattern, {listWords(at->second)}});
    };
    say(later, BeforeReason::inTheWay, "before {0}, which would stand in its way");
    say(later, BeforeReason::tool, "before {0}, where driver, iron or fingers go");
    say(later, BeforeReason::heat, "before {0}, which heat harms");
    say(later, BeforeReason::process, "before {0}");
    say(sooner, BeforeReason::process, "after {0}");
    say(sooner, BeforeReason::heat, "after {0}, whose heat would harm it");
    say(later, BeforeReason::own, "before {0}, as you want it");
    return lines;
}

Sentence wordWhyNotBefore(const Build &build, const AssemblyPlan &plan, std::size_t step, std::size_t before) {
    // The shortest chain of reasons that leads from the other to the step.
    std::vector<int> from(plan.steps.size(), -1);
    std::vector<std::size_t> open{before};
    for (std::size_t k = 0; k < open.size() && from[step] < 0; ++k)
        for (std::size_t r = 0; r < plan.reasons.size(); ++r) {
            const auto &reason = plan.reasons[r];
            if (reason.first != open[k] || from[reason.second] >= 0 || reason.second == before) continue;
            from[reason.second] = int(r);
            open.push_back(reason.second);
        }
    if (from[step] < 0) return {"", {}};
    std::size_t at = step;
    while (plan.reasons[std::size_t(from[at])].first != before) at = plan.reasons[std::size_t(from[at])].first;
    const StepBefore &first = plan.reasons[std::size_t(from[at])];
    const std::vector<std::string> words{stepName(build, plan, before, first.thing),
                                         stepName(build, plan, at, first.other)};
    switch (first.reason) {
    case BeforeReason::rests: return {"{1} rests on {0}", words};
    case BeforeReason::inTheWay: return {"{1} would stand in the way of {0}", words};
    case BeforeReason::tool: return {"{1} would stand where driver, iron or fingers go for {0}", words};
    case BeforeReason::joint: return {"{1} is joined to {0}", words};
    case BeforeReason::heat: return {"the heat of {0} would harm {1}", words};
    case BeforeReason::process: return {"{0} is done before {1}", words};
    case BeforeReason::own: return {"you want {0} before {1}", words};
    }
    return {"", {}};
}

std::string_view toolWord(Tool tool) {
    switch (tool) {
    case Tool::hand: return "by hand";
    case Tool::driver: return "driver";
    case Tool::iron: return "soldering iron";
    case Tool::tape: return "tape";
    case Tool::ties: return "ties";
    case Tool::cutters: return "cutters";
    case Tool::meter: return "meter";
    }
    return "";
}

std::string_view sideWord(int side) {
    return side > 0 ? "craft upright" : side < 0 ? "craft upside down" : std::string_view();
}

std::string placeWord(const Build &build, const Step &step) {
    if (step.place == "arms") return "at the arms";
    if (step.place == "hand" || step.inHand) return "in the hand";
    if (step.place == "bench" || step.place.empty()) return "on the bench";
    if (step.place == "frame") return "at the frame";
    return nameWithin(build, step.place);
}

} // namespace waxis
