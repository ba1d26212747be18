#include "core/instructions/step_words.h"

#include "core/base/by_id.h"
#include "core/instructions/step_names.h"
#include "core/rules/name_list.h"
#include "core/rules/wording.h"

#include <algorithm>
#include <fmt/format.h>

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

/// Of several screws or posts of the frame what they are; empty: something else.
std::string memberKind(const Build &build, const Step &step) {
    const auto all = [&](auto is) { return std::all_of(step.things.begin(), step.things.end(), is); };
    if (all([&](const std::string &id) { return byId(build.frame->standoffs, id) != nullptr; })) return "standoff";
    const FrameScrew *first = byId(build.frame->screws, step.things.front());
    const bool alike = first && all([&](const std::string &id) {
                           const FrameScrew *screw = byId(build.frame->screws, id);
                           return screw && screw->thread == first->thread;
                       });
    return alike ? first->thread + " screw" : std::string();
}

/// Of several parts of one type how many, else their names.
std::string severalNames(const Build &build, const std::vector<std::string> &ids) {
    constexpr std::size_t kNamed = 2;
    const Part *first = ids.size() > kNamed ? findPart(build, ids.front()) : nullptr;
    const bool alike = first && std::all_of(ids.begin(), ids.end(), [&](const std::string &id) {
                           const Part *part = findPart(build, id);
                           return part && part->type == first->type;
                       });
    const PartType *type = alike ? typeOf(build, *first) : nullptr;
    return type ? fmt::format("{} x {}", ids.size(), type->name) : listNames(build, ids);
}

/// What it rests on, without the screws that it is put over.
std::vector<std::string> seatOf(const Build &build, const Step &step) {
    std::vector<std::string> seat;
    for (const auto &id : step.onto) {
        const Part *part = findPart(build, id);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (!type || !type->fastener || type->fastener->form != FastenerForm::screw) seat.push_back(id);
    }
    return seat.empty() ? step.onto : seat;
}

/// Of what is put together in the hand: what carries, with how many posts and screws, and what else.
std::string assemblyName(const Build &build, const Step &step) {
    std::size_t posts = 0, screws = 0;
    std::vector<std::string> with;
    for (std::size_t i = 1; i < step.things.size(); ++i) {
        const std::string &id = step.things[i];
        if (byId(build.frame->standoffs, id))
            ++posts;
        else if (byId(build.frame->screws, id))
            ++screws;
        else
            with.push_back(nameWithin(build, id));
    }
    if (posts > 0) with.push_back(fmt::format("{} x standoff", posts));
    if (screws > 0) with.push_back(fmt::format("{} x screw", screws));
    const std::string head = displayName(build, step.things.front());
    return with.empty() ? head : fmt::format("{} with {}", head, listWords(with));
}

Sentence wordFit(const Build &build, const Step &step) {
    constexpr std::size_t kNamed = 2;
    const Part *part = findPart(build, step.things.front());
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    std::string what = listNamesFirst(build, step.things);
    if (!step.asOne && step.things.size() > kNamed)
        if (const std::string kind = type ? type->name : memberKind(build, step); !kind.empty())
            what = fmt::format("{} x {}", step.things.size(), kind);
    if (step.asOne) what = assemblyName(build, step);
    if (step.base) return {"Begin with {0}", {listNames(build, step.things)}};
    const std::vector<std::string> words{what, severalNames(build, seatOf(build, step)),
                                         std::string(wayWord(step.from)), listNames(build, step.stuckBehind)};
    if (!step.stuckBehind.empty()) return {"{0} does not go in: {3} in the way", words};
    if (step.asOne)
        return step.onto.empty() ? Sentence{"{0}, put together in the hand, {2}", words}
                                 : Sentence{"{0}, put together in the hand, onto {1}, {2}", words};
    return step.onto.empty() ? Sentence{"{0}, {2}", words} : Sentence{"{0} onto {1}, {2}", words};
}

Sentence wordTakeDown(const Build &build, const Step &step) {
    std::vector<std::string> names;
    for (const auto &id : step.off) names.push_back(operationName(build, id));
    return {"Take down first: {0}", {listWords(names)}};
}

Sentence wordSlip(const Build &build, const Step &step) {
    const auto wires = wiresOf(step);
    if (wires.empty()) return {"Press the rims into the holes of {0}", {listNames(build, step.onto)}};
    return {"Slip on before both ends are closed: sleeve and shrink for {0}", {listNames(build, wires)}};
}

Sentence wordTrim(const Build &build, const Step &step) {
    if (!step.inHand) return {"Cut off flush, a little at a time: {0}", {listNames(build, step.things)}};
    return {"Cut to length in the hand: {0}", {listNames(build, step.things)}};
}

Sentence wordInsulate(const Build &build, const Step &step) {
    if (step.joints.empty()) return {"Lay the insulating sheet onto {0}", {listNames(build, step.onto)}};
    return {"Look for bridges, then cover what is bare at {0}: {1}",
            {listNames(build, partsOf(step)), listNames(build, wiresOf(step))}};
}

Sentence wordChange(const Build &build, const Step &step) {
    const std::vector<std::string> words{displayName(build, step.loadCase), listNames(build, step.off),
                                         listNames(build, step.things)};
    if (step.off.empty()) return {"For {0}: {2} on", words};
    return step.things.empty() ? Sentence{"For {0}: {1} off", words} : Sentence{"For {0}: {1} off, {2} on", words};
}

} // namespace

Sentence wordStep(const Build &build, const Step &step) {
    const std::vector<std::string> joined{listNames(build, wiresOf(step)), listNames(build, partsOf(step)),
                                          std::to_string(step.things.size())};
    switch (step.kind) {
    case OperationKind::takeDown: return wordTakeDown(build, step);
    case OperationKind::slip: return wordSlip(build, step);
    case OperationKind::splice: return {"In the hand, splice and shrink: {0}", joined};
    case OperationKind::trim: return wordTrim(build, step);
    case OperationKind::dryFit:
        return {step.beside.empty() ? "Try dry, stick nothing down yet: {0} on {1}"
                                    : "Try dry, stick nothing down yet: {0} on {1}, with {2} beside",
                {listNames(build, step.things), listNames(build, step.onto), listNames(build, step.beside)}};
    case OperationKind::balance:
        return {"Find the balance with everything laid in place, before {0} is stuck down",
                {listNames(build, step.things)}};
    case OperationKind::measure:
        return {"Measure the gap over {1}, and choose {0} by it",
                {listNames(build, step.things), listNames(build, step.onto)}};
    case OperationKind::loop:
        return {"Lead the strap for {0} through {1}", {listNames(build, step.things), listNames(build, step.onto)}};
    case OperationKind::lead: return {"Lead through {1}: {0}", {joined[0], listNames(build, step.onto)}};
    case OperationKind::insulate: return wordInsulate(build, step);
    case OperationKind::lock:
        return {"Tighten the screws of {0}, crosswise: {1} that were left loose",
                {listNames(build, step.onto), joined[2]}};
    case OperationKind::change: return wordChange(build, step);
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
        case Gate::flight:
            if (step.loadCase.empty()) return {"Weigh, balance and hover", {}};
            return {"Weigh, balance and hover: {0}", {displayName(build, step.loadCase)}};
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
