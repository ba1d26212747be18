// LNK: what talks to what, pin by pin.
#include "core/findings/input.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"

#include "core/links/link_report.h"
#include "core/links/port_kinds.h"
#include "core/wiring/routing.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <fmt/format.h>

namespace waxis {

namespace {

Finding linkFinding(RuleId rule, const Build &build, const Derived &derived, const LinkFinding &fault,
                    Severity severity, const char *variant) {
    Finding f;
    f.rule = rule;
    f.severity = severity;
    f.variant = fmt::format("{}{}{}", variant, fault.core >= 0 ? "-" : "", fault.core >= 0 ? fault.fromPin : fault.pin);
    f.subjects = fault.wires;
    if (!fault.part.empty()) f.subjects.push_back(fault.part);
    for (std::size_t w = 0; w < build.wires.size() && w < derived.routes.size(); ++w)
        if (!fault.wires.empty() && build.wires[w].id == fault.wires[0] && derived.routes[w].points_mm.size() >= 2) {
            f.from_mm = derived.routes[w].points_mm.front();
            f.to_mm = derived.routes[w].points_mm.back();
        }
    return f;
}

bool startsWith(const Finding &f, std::string_view what) { return std::string_view(f.variant).starts_with(what); }

/// The core that a finding is about, by the pin in its variant.
const WireCore *coreOf(const Build &build, const Finding &f, int *index = nullptr) {
    const Wire *wire = f.subjects.empty() ? nullptr : findWire(build, f.subjects[0]);
    const auto dash = f.variant.find('-');
    if (!wire || dash == std::string::npos) return nullptr;
    const std::string pin = f.variant.substr(dash + 1);
    for (std::size_t c = 0; c < wire->cores.size(); ++c)
        if (wire->cores[c].fromPin == pin) {
            if (index) *index = int(c);
            return &wire->cores[c];
        }
    return nullptr;
}

/// The pin where a core belongs: of the far port, else of the near one; of the wire's own other cores, or free.
std::optional<Fix> rightPin(const Build &build, const Wire &wire, int core) {
    const Port *port = portOf(build, wire.to);
    if (!port) return std::nullopt;
    const auto cores = proposeCores(
        [&] {
            Build without = build;
            std::erase_if(without.wires, [&](const Wire &w) { return w.id == wire.id; });
            return without;
        }(),
        wire.from, wire.to);
    for (const auto &proposed : cores)
        if (proposed.fromPin == wire.cores[std::size_t(core)].fromPin &&
            proposed.toPin != wire.cores[std::size_t(core)].toPin) {
            Fix fix;
            fix.change =
                WireChange{WireChange::Kind::movePin, wire.id, 0, core, false, {}, proposed.toPin, Vec3::Zero()};
            return fix;
        }
    for (const auto &proposed : cores)
        if (proposed.toPin == wire.cores[std::size_t(core)].toPin &&
            proposed.fromPin != wire.cores[std::size_t(core)].fromPin) {
            Fix fix;
            fix.change =
                WireChange{WireChange::Kind::movePin, wire.id, 0, core, true, {}, proposed.fromPin, Vec3::Zero()};
            return fix;
        }
    return std::nullopt;
}

/// Where the right pin is taken by another wire that lies wrong as well: the two change places.
std::optional<Fix> changedPlaces(const Build &build, const LinkReport &links, const Wire &wire, int core) {
    for (const auto &other : links.faults) {
        if (other.core < 0 || other.wires[0] == wire.id) continue;
        Build without = build;
        std::erase_if(without.wires, [&](const Wire &w) { return w.id == other.wires[0]; });
        auto fix = rightPin(without, wire, core);
        const EditResult next = fix ? applyFix(build, *fix) : EditResult(build);
        const Wire *second = fix && next ? findWire(*next, other.wires[0]) : nullptr;
        if (!second || std::size_t(other.core) >= second->cores.size()) continue;
        if (const auto back = rightPin(*next, *second, other.core)) {
            fix->then.push_back(*back);
            return fix;
        }
    }
    return std::nullopt;
}

} // namespace

/// What lnkCross calls a fault of a joint; null for faults that other rules tell.
static const char *crossingWord(LinkFault fault) {
    switch (fault) {
    case LinkFault::sameWay: return "same";
    case LinkFault::shortCircuit: return "short";
    case LinkFault::cannotAnswer: return "deaf";
    case LinkFault::boot: return "boot";
    case LinkFault::mismatch: return "mismatch";
    default: return nullptr;
    }
}

/// The serial cores of a wire that lie straight, for people: "RX with RX".
static std::vector<std::string> straightCores(const Build &build, const Wire &wire) {
    std::vector<std::string> joints;
    for (const auto &core : wire.cores) {
        const SignalKind kind = signalAt(build, wire.from, core.fromPin).kind;
        if ((kind == SignalKind::serialTx || kind == SignalKind::serialRx) &&
            kind == signalAt(build, wire.to, core.toPin).kind)
            joints.push_back(core.fromPin + " with " + core.toPin);
    }
    return joints;
}

/// Both cores of a serial link that lies straight are put right by one change.
static bool isToldOfItsWire(const std::vector<Finding> &out, std::size_t first, const Finding &f) {
    return f.variant.starts_with("same") &&
           std::any_of(out.begin() + std::ptrdiff_t(first), out.end(), [&](const Finding &g) {
               return g.variant.starts_with("same") && g.subjects[0] == f.subjects[0];
           });
}

static void judgeCrossing(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    const std::size_t first = out.size();
    for (const auto &fault : derived.links->faults) {
        const char *word = crossingWord(fault.fault);
        if (!word) continue;
        const Wire *wire = findWire(build, fault.wires[0]);
        // A control wire on a pin that only listens sets nothing, and the picture comes all the same.
        const Severity severity = fault.fault == LinkFault::cannotAnswer ? Severity::watch : Severity::stop;
        Finding f = linkFinding(RuleId::lnkCross, build, derived, fault, severity, word);
        if (wire && fault.fault == LinkFault::sameWay && isVideo(signalAt(build, wire->from, fault.fromPin).kind))
            f.variant = "picture-" + fault.fromPin;
        if (isToldOfItsWire(out, first, f)) continue;
        if (wire) {
            auto fix = rightPin(build, *wire, fault.core);
            if (!fix) fix = changedPlaces(build, *derived.links, *wire, fault.core);
            if (fix) f.fixes.push_back(std::move(*fix));
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordCrossing(const Build &build, const Finding &f) {
    const WireCore *core = coreOf(build, f);
    const std::vector<std::string> words{displayName(build, f.subjects[0]), core ? core->fromPin : std::string(),
                                         core ? core->toPin : std::string()};
    if (startsWith(f, "same")) {
        const Wire *wire = findWire(build, f.subjects[0]);
        auto joints = wire ? straightCores(build, *wire) : std::vector<std::string>{};
        if (joints.empty()) joints.push_back(words[1] + " with " + words[2]);
        return {{"{0} joins {1}", {words[0], listWords(joints)}},
                {"Transmit goes to receive and receive to transmit; neither end hears the other like this.", {}}};
    }
    if (startsWith(f, "picture"))
        return {{"{0} joins {1} with {2}: two of one side", words},
                {"The picture comes out of a camera and goes into a sender: one end gives, the other takes.", {}}};
    if (startsWith(f, "deaf"))
        return {{"{0} leads the control wire to {2}, which only listens", words},
                {"Power and channel cannot be set from the controller: a transmit pad drives such a wire.", {}}};
    if (startsWith(f, "boot"))
        return {{"{0} joins {1} with {2}: a boot pin", words},
                {"It is held at power-on to load firmware; with something on it the board may not start.", {}}};
    if (startsWith(f, "short"))
        return {
            {"{0} joins {1} with {2}: a short circuit", words},
            {"Take the wire off before any power. First power through a current-limiting plug, propellers off.", {}}};
    return {{"{0} joins {1} with {2}", words}, {"These two have nothing to say to each other.", {}}};
}

static void judgeCommonGround(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults)
        if (fault.fault == LinkFault::noGround) {
            LinkFinding plain = fault;
            plain.pin.clear();
            Finding f = linkFinding(RuleId::lnkGround, build, derived, plain, Severity::stop, "ground");
            f.subjects.push_back(fault.pin);
            out.push_back(std::move(f));
        }
}

static FindingText wordCommonGround(const Build &build, const Finding &f) {
    return {{"{0} carries a signal, but its ends share no ground", {displayName(build, f.subjects[0])}},
            {"Join ground as well. With two packs: ground and signal, never the supplies.", {}}};
}

static void judgePinUse(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults)
        if (fault.fault == LinkFault::usedTwice) {
            Finding f = linkFinding(RuleId::lnkOnce, build, derived, fault, Severity::stop, "");
            f.variant = fault.port + "/" + fault.pin;
            // A second serial device wants the next free port.
            if (const Wire *second = findWire(build, fault.wires[1])) {
                const bool atFrom = second->from == WireEnd{fault.part, fault.port};
                Build without = build;
                std::erase_if(without.wires, [&](const Wire &w) { return w.id == second->id; });
                const auto port = proposePort(without, atFrom ? second->to : second->from, fault.part);
                if (port && port->port != fault.port) {
                    Fix fix;
                    fix.change =
                        WireChange{WireChange::Kind::port, second->id, 0, 0, atFrom, {}, port->port, Vec3::Zero()};
                    f.fixes.push_back(fix);
                }
            }
            out.push_back(std::move(f));
        }
}

static FindingText wordPinUse(const Build &build, const Finding &f) {
    return {{"{0} and {1} share a pin: {2}, {3}",
             {displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]), nameWithin(build, f.subjects[2]),
              f.variant}},
            {"A signal pin takes one wire: lead the second to a free port.", {}}};
}

static void judgeLevel(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults) {
        if (fault.fault == LinkFault::level) {
            Finding f = linkFinding(RuleId::lnkLevel, build, derived, fault, Severity::watch, "level");
            f.unit = "V";
            f.measured = fault.value;
            f.limit = fault.limit;
            f.margin = fault.limit - fault.value;
            out.push_back(std::move(f));
        }
        if (fault.fault == LinkFault::inversion)
            out.push_back(linkFinding(RuleId::lnkLevel, build, derived, fault, Severity::stop, "inverted"));
    }
}

static FindingText wordLevel(const Build &build, const Finding &f) {
    const WireCore *core = coreOf(build, f);
    const std::string wire = displayName(build, f.subjects[0]),
                      pin = core ? core->fromPin + " to " + core->toPin : std::string();
    if (startsWith(f, "level"))
        return {{"{0}, {1}: {2} V meets {3} V", {wire, pin, oneDecimal(*f.measured), oneDecimal(*f.limit)}},
                {"Put a divider or level shifter between, or choose an input that bears it.", {}}};
    return {{"{0}, {1}: one end is inverted", {wire, pin}},
            {"Choose a port that inverts, or set inversion where the controller offers it.", {}}};
}

/// Whether a controller aboard could take a compass; true while there is none.
static bool hasBus(const Build &build) {
    bool any = false;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::flightController) continue;
        any = true;
        for (const auto &port : type->ports)
            if (isBusPort(*type, port)) return true;
    }
    return !any;
}

static void judgeBus(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults) {
        if (fault.fault == LinkFault::halfBus)
            out.push_back(linkFinding(RuleId::lnkBus, build, derived, fault, Severity::stop, "half"));
        // A compass that is not used needs no bus.
        if (fault.fault == LinkFault::noCompass && practice.follows("compass", "used") && !build.wires.empty()) {
            Finding f = linkFinding(RuleId::lnkBus, build, derived, fault, Severity::watch,
                                    hasBus(build) ? "compass" : "no-bus");
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordBus(const Build &build, const Finding &f) {
    if (startsWith(f, "no-bus"))
        return {{"The compass of {0} has nowhere to go: no controller aboard has a bus",
                 {nameWithin(build, f.subjects[0])}},
                {"Take a controller with SDA and SCL; or choose \"compass not used\" in the practice.", {}}};
    if (startsWith(f, "compass"))
        return {{"The compass of {0} is not connected", {nameWithin(build, f.subjects[0])}},
                {"It takes two wires more, SDA and SCL; or choose \"compass not used\" in the practice.", {}}};
    return {{"{0} has only one of the two bus wires", {displayName(build, f.subjects[0])}},
            {"A bus needs data and clock.", {}}};
}

static void judgePinOrder(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults)
        if (fault.fault == LinkFault::noPin) {
            Finding f = linkFinding(RuleId::lnkPins, build, derived, fault, Severity::stop, "");
            f.variant = "no-pin";
            f.subjects = {fault.wires[0], fault.part};
            f.variant += ":" + fault.port + "/" + fault.pin;
            out.push_back(std::move(f));
        }
    // A ready-made or supplied cable with plugs at both ends runs straight: what crosses has to be moved in the
    // housing.
    for (const auto &wire : build.wires) {
        const Port *from = portOf(build, wire.from), *to = portOf(build, wire.to);
        if (!from || !to || wire.lay == WireLay::coax) continue;
        const bool plugged = from->kind != PortKind::pads && to->kind != PortKind::pads;
        if (!plugged || from->pins.size() != to->pins.size()) continue;
        int moves = 0;
        bool supplyMoves = false;
        for (const auto &core : wire.cores) {
            if (pinIndex(*from, core.fromPin) == pinIndex(*to, core.toPin)) continue;
            ++moves;
            supplyMoves |= signalAt(build, wire.from, core.fromPin).kind == SignalKind::supply;
        }
        const Part *a = findPart(build, wire.from.part), *b = findPart(build, wire.to.part);
        const auto confirmed = [&](const Part *p) {
            const KitEntry *entry = p ? findKitEntry(build, p->type) : nullptr;
            return entry && entry->pinsConfirmed;
        };
        Finding f;
        f.rule = RuleId::lnkPins;
        f.subjects = {wire.id};
        f.variant = "order";
        f.measured = moves;
        f.inputs = {{"pins to move", double(moves), ""},
                    {"both orders read", confirmed(a) && confirmed(b) ? 1.0 : 0.0, ""}};
        // Plugged in as it comes it would lay the supply on another pin.
        const bool burns = supplyMoves && !(confirmed(a) && confirmed(b));
        f.severity = burns ? Severity::stop : moves > 0 ? Severity::note : Severity::pass;
        if (burns) f.variant = "supply";
        out.push_back(std::move(f));
    }
}

static FindingText wordPinOrder(const Build &build, const Finding &f) {
    if (startsWith(f, "no-pin"))
        return {{"{0} ends at a pin that is not there: {1}, {2}",
                 {displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1]), f.variant.substr(7)}},
                {"Choose a pin of the port as it is printed on the part in hand.", {}}};
    std::string moves;
    if (const Wire *wire = findWire(build, f.subjects[0])) {
        const Port *from = portOf(build, wire->from), *to = portOf(build, wire->to);
        for (const auto &core : wire->cores)
            if (from && to && pinIndex(*from, core.fromPin) != pinIndex(*to, core.toPin))
                moves += fmt::format("{}{} to {}", moves.empty() ? "" : ", ", pinIndex(*from, core.fromPin) + 1,
                                     pinIndex(*to, core.toPin) + 1);
    }
    if (startsWith(f, "supply"))
        return {
            {"{0}, plugged in as it comes, lays the supply on a signal pin", {displayName(build, f.subjects[0])}},
            {"Move pin {0} in the housing first. Read both orders off the parts and confirm them in Kit.", {moves}}};
    return {{"{0}: the pin orders differ", {displayName(build, f.subjects[0])}},
            {"Move pin {0} in the housing before plugging in; compare both with what is printed.", {moves}}};
}

std::span<const Rule> signalsRules() {
    static const std::array<Rule, 6> rules{{
        {RuleId::lnkCross,
         "Pins that do not belong together",
         "Transmit goes to receive; anything else is silence, or smoke.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::routes, Need::links),
         judgeCrossing,
         wordCrossing},
        {RuleId::lnkGround,
         "Common ground",
         "A signal is a voltage against ground: without a common one it says nothing.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::routes, Need::links),
         judgeCommonGround,
         wordCommonGround},
        {RuleId::lnkOnce,
         "Pins used once",
         "Two transmitters on one pin garble each other.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::routes, Need::links),
         judgePinUse,
         wordPinUse},
        {RuleId::lnkLevel,
         "Levels and inversion",
         "Too high a level kills an input slowly; an inverted line is not understood.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::routes, Need::links),
         judgeLevel,
         wordLevel},
        {RuleId::lnkBus,
         "Bus of the compass",
         "A compass talks over two wires of its own.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::routes, Need::links),
         judgeBus,
         wordBus},
        {RuleId::lnkPins,
         "Pin order",
         "Pin orders differ between revisions of one model: what is printed on the part counts.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::routes, Need::links),
         judgePinOrder,
         wordPinOrder},
    }};
    return rules;
}

} // namespace waxis
