// What a step takes, how it is done, and where it can hurt.
#include "core/balance/case_balance.h"
#include "core/build/folding.h"
#include "core/catalog/fastener_types.h"
#include "core/instructions/step_names.h"
#include "core/instructions/step_words.h"
#include "core/rules/name_list.h"
#include "core/rules/wording.h"
#include "core/wiring/pad_joints.h"
#include "core/wiring/wire_report.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace waxis {

namespace {

bool isNylon(const std::string &material) { return material.find("nylon") != std::string::npos; }

/// Screws of a step, drawn or not: how many of metal and how many of nylon.
std::pair<int, int> screwsOf(const Build &build, const Step &step) {
    int metal = 0, nylon = 0;
    for (const auto &piece : step.takes)
        if (piece.item.starts_with("screw")) (isNylon(piece.material) ? nylon : metal) += piece.pieces;
    for (const auto &id : step.things) {
        const Part *part = findPart(build, id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (type && type->fastener)
            ++(isNylon(materialOf(*type)) ? nylon : metal);
        else if (step.kind == OperationKind::lock &&
                 std::any_of(build.frame->screws.begin(), build.frame->screws.end(),
                             [&](const FrameScrew &screw) { return screw.id == id; }))
            ++metal;
    }
    return {metal, nylon};
}

template <class Is>
bool isAll(const Build &build, const Step &step, Is is) {
    return !step.things.empty() && std::all_of(step.things.begin(), step.things.end(), [&](const std::string &id) {
        const Part *part = findPart(build, id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        return type && type->fastener && is(type->fastener->form);
    });
}

/// How screws are turned in; common practice, no source.
std::vector<const char *> screwAdvice(const Build &build, const Step &step) {
    std::vector<const char *> lines;
    const bool locks = step.kind == OperationKind::lock;
    const bool nuts = isAll(build, step, [](FastenerForm form) {
        return form == FastenerForm::nut || form == FastenerForm::lockNut || form == FastenerForm::thinLockNut;
    });
    if (!locks && !nuts && (step.kind != OperationKind::fit || step.tool != Tool::driver)) return lines;
    // Screws of a stack whose heads are under it are put through only: its nuts tighten them.
    for (const auto &stack : build.stacks)
        if (!locks && !stack.headsOutside && !step.things.empty() &&
            std::find(stack.screws.begin(), stack.screws.end(), step.things.front()) != stack.screws.end())
            return lines;
    constexpr int kPattern = 3;
    const auto [metal, nylon] = screwsOf(build, step);
    if (step.loose && !locks) {
        lines.push_back("Turned in loosely: a later step calls them up again.");
    } else if (metal >= kPattern) {
        lines.push_back("All in loosely, then crosswise. Thread lock only where metal meets metal, never on nylon or "
                        "polycarbonate: one stays dry, the others get theirs one by one, the dry one last.");
    }
    if (nylon > 0) lines.push_back("Nylon: finger tight and a little more, no thread lock.");
    return lines;
}

void addLead(const Build &build, const Step &step, const WireReport &report, const Wire &wire,
             std::vector<Sentence> &lines) {
    lines.push_back({wire.lay == WireLay::twisted && step.twisting ? "{0}: {1} mm, {2} cores AWG {3}, twisted"
                                                                   : "{0}: {1} mm, {2} cores AWG {3}",
                     {displayName(build, wire.id), wholeNumber(report.cut_mm), std::to_string(wire.cores.size()),
                      std::to_string(report.gauge_AWG)}});
}

void addPins(const Build &build, const Step &step, const Wire &wire, std::vector<Sentence> &lines) {
    std::string pins;
    for (const auto &joint : step.joints) {
        if (joint.wire != wire.id) continue;
        const bool atFrom = wire.from.part == joint.part && wire.from.port == joint.port;
        for (const auto &core : wire.cores) {
            const std::string &pin = atFrom ? core.fromPin : core.toPin;
            pins += fmt::format("{}{}{}", pins.empty() ? "" : ", ", pin,
                                core.colour.empty() ? "" : " (" + core.colour + ")");
        }
    }
    lines.push_back(pins.empty() ? Sentence{"{0}", {displayName(build, wire.id)}}
                                 : Sentence{"{0}: {1}", {displayName(build, wire.id), pins}});
}

/// Pads that take much heat, and wires that share one.
void addJointAdvice(const Build &build, const Step &step, std::vector<Sentence> &lines) {
    if (step.kind != OperationKind::solder) return;
    std::vector<std::string> heavy, shared;
    for (const auto &joint : padJoints(build)) {
        const bool here = std::any_of(step.joints.begin(), step.joints.end(), [&](const JointEnd &end) {
            return end.part == joint.part && end.port == joint.port;
        });
        if (!here) continue;
        if (joint.heat() == SolderHeat::heavy && std::find(heavy.begin(), heavy.end(), joint.pin) == heavy.end())
            heavy.push_back(joint.pin);
        if (joint.cores.size() > 1) shared.push_back(fmt::format("{} ({} wires)", joint.pin, joint.cores.size()));
    }
    std::vector<std::string> twisted;
    for (const auto &id : step.twisting ? wiresOf(step) : std::vector<std::string>{})
        if (const Wire *wire = findWire(build, id); wire && wire->lay == WireLay::twisted)
            twisted.push_back(nameWithin(build, id));
    if (!twisted.empty()) lines.push_back({"Twist when this end is joined: {0}", {listWords(twisted)}});
    if (!shared.empty()) lines.push_back({"Twisted and tinned together first: {0}", {listWords(shared)}});
    if (!heavy.empty()) lines.push_back({"Broad tip and more heat: {0}", {listWords(heavy)}});
}

void addBalance(const Build &build, const Derived &derived, const Step &step, std::vector<Sentence> &lines) {
    for (const auto &balance : *derived.balance)
        if (balance.loadCase.id == step.loadCase && balance.offset_mm) {
            const double ahead_mm = balance.offset_mm->x();
            lines.push_back({ahead_mm >= 0 ? "Planned: {0} mm ahead of the thrust centre."
                                           : "Planned: {0} mm behind the thrust centre.",
                             {oneDecimal(std::abs(ahead_mm))}});
        }
    if (!foldingArms(build).empty()) lines.push_back({"Once with the arms out, once folded.", {}});
}

} // namespace

std::vector<Sentence> wordTakes(const Build &build, const Derived &derived, const Step &step) {
    std::vector<Sentence> lines;
    for (const auto &piece : step.takes) lines.push_back({"{0} x {1}", {std::to_string(piece.pieces), piece.name}});
    // Members of a frame and placed fasteners, kind by kind.
    const bool drawnScrews = std::none_of(step.things.begin(), step.things.end(), [&](const std::string &id) {
        const Part *part = findPart(build, id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        return part && !(type && type->fastener);
    });
    if (step.kind == OperationKind::fit && step.tool == Tool::driver && step.side < 0 && drawnScrews)
        lines.push_back({"Tape over the heads holds them while the craft is turned over.", {}});
    std::map<std::string, int> drawn;
    for (const auto &id : step.things)
        if (const Part *part = findPart(build, id))
            if (const PartType *type = typeOf(build, *part); type && type->fastener) ++drawn[type->name];
    for (const auto &[name, count] : drawn) lines.push_back({"{0} x {1}", {std::to_string(count), name}});
    for (const auto &id : wiresOf(step))
        for (std::size_t w = 0; w < build.wires.size() && w < derived.wiring->wires.size(); ++w) {
            if (build.wires[w].id != id) continue;
            if (step.kind == OperationKind::prepare)
                addLead(build, step, derived.wiring->wires[w], build.wires[w], lines);
            else if (!partsOf(step).front().empty())
                addPins(build, step, build.wires[w], lines);
        }
    addJointAdvice(build, step, lines);
    for (const char *advice : screwAdvice(build, step)) lines.push_back({advice, {}});
    if (step.kind == OperationKind::tie) lines.push_back({"Tails cut off flush: a cut end scratches.", {}});
    if (step.kind == OperationKind::balance) addBalance(build, derived, step, lines);
    return lines;
}

Sentence wordCaution(const Build &build, const Step &step) {
    switch (step.kind) {
    case OperationKind::prepare:
    case OperationKind::splice:
    case OperationKind::solder:
        return {
            "Hot tip and fumes: fresh air, hair and sleeves away, pack unplugged. Carbon conducts: nothing bare may "
            "touch it.",
            {}};
    case OperationKind::trim: return {"What is cut off flies: glasses on, and count the pieces.", {}};
    case OperationKind::takeDown:
        return {"Pack unplugged, propellers off. Wick the old solder away, and look whether holes and pads are sound.",
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
        break;
    case OperationKind::change:
    case OperationKind::slip:
    case OperationKind::dryFit:
    case OperationKind::balance:
    case OperationKind::measure:
    case OperationKind::loop:
    case OperationKind::lead:
    case OperationKind::insulate:
    case OperationKind::lock:
    case OperationKind::plug:
    case OperationKind::snap:
    case OperationKind::tie:
    case OperationKind::own: break;
    }
    if (step.hasFlown) return {"It has flown: propellers off and pack unplugged first.", {}};
    return {"", {}};
}

} // namespace waxis
