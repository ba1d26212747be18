// LNK: what talks to what, pin by pin.
#include "core/findings/input.h"
#include "core/rules/rule.h"

#include "core/links/link_report.h"
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

/// The pin of the far port where a core belongs: of the wire's own other cores, or free.
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
    return std::nullopt;
}

} // namespace

static void judgeCrossing(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults) {
        const bool same = fault.fault == LinkFault::sameWay, shorted = fault.fault == LinkFault::shortCircuit;
        if (!same && !shorted && fault.fault != LinkFault::mismatch) continue;
        Finding f = linkFinding(RuleId::lnkCross, build, derived, fault, Severity::stop,
                                same      ? "same"
                                : shorted ? "short"
                                          : "mismatch");
        const Wire *wire = findWire(build, fault.wires[0]);
        if (wire)
            if (auto fix = rightPin(build, *wire, fault.core)) f.fixes.push_back(*fix);
        out.push_back(std::move(f));
    }
}

static FindingText wordCrossing(const Build &build, const Finding &f) {
    const WireCore *core = coreOf(build, f);
    const std::string wire = displayName(build, f.subjects[0]);
    const std::string from = core ? core->fromPin : std::string(), to = core ? core->toPin : std::string();
    if (startsWith(f, "same"))
        return {{"{0} joins {1} with {2}", {wire, from, to}},
                {"Transmit goes to receive and receive to transmit; neither end hears the other like this.", {}}};
    if (startsWith(f, "short"))
        return {
            {"{0} joins {1} with {2}: a short circuit", {wire, from, to}},
            {"Take the wire off before any power. First power through a current-limiting plug, propellers off.", {}}};
    return {{"{0} joins {1} with {2}", {wire, from, to}}, {"These two have nothing to say to each other.", {}}};
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

static void judgeBus(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults) {
        if (fault.fault == LinkFault::halfBus)
            out.push_back(linkFinding(RuleId::lnkBus, build, derived, fault, Severity::stop, "half"));
        // A compass that is not used needs no bus.
        if (fault.fault == LinkFault::noCompass && practice.follows("compass", "used") && !build.wires.empty()) {
            Finding f = linkFinding(RuleId::lnkBus, build, derived, fault, Severity::watch, "compass");
            out.push_back(std::move(f));
        }
    }
}

static FindingText wordBus(const Build &build, const Finding &f) {
    if (startsWith(f, "compass"))
        return {{"The compass of {0} is not connected", {nameWithin(build, f.subjects[0])}},
                {"It takes two wires more, SDA and SCL; or choose \"compass not used\" in the practice.", {}}};
    return {{"{0} has only one of the two bus wires", {displayName(build, f.subjects[0])}},
            {"A bus needs data and clock.", {}}};
}

static void judgeSerialPorts(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    if (derived.links->serial.empty() || build.wires.empty()) return;
    // Parts that want a serial port and have no wire at it.
    std::vector<std::string> waiting;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || (type->kind != PartKind::receiver && type->kind != PartKind::gps &&
                      type->kind != PartKind::digitalVideoUnit))
            continue;
        for (const auto &port : type->ports) {
            const bool serial = pinIndex(port, "TX") >= 0 && pinIndex(port, "RX") >= 0;
            if (!serial) continue;
            const bool joined = std::any_of(build.wires.begin(), build.wires.end(), [&](const Wire &w) {
                const bool from = w.from == WireEnd{part.id, port.id}, to = w.to == WireEnd{part.id, port.id};
                if (!from && !to) return false;
                return std::any_of(w.cores.begin(), w.cores.end(), [&](const WireCore &c) {
                    const SignalKind kind = signalOf(from ? c.fromPin : c.toPin).kind;
                    return kind == SignalKind::serialTx || kind == SignalKind::serialRx;
                });
            });
            if (!joined) waiting.push_back(part.id);
        }
    }
    Finding f;
    f.rule = RuleId::lnkPorts;
    f.subjects = waiting;
    f.measured = derived.links->freeSerial;
    f.limit = double(waiting.size());
    f.unit = "ports";
    f.margin = *f.measured - *f.limit;
    f.inputs = {{"serial ports", double(derived.links->serial.size()), ""},
                {"free", double(derived.links->freeSerial), ""}};
    f.severity = f.margin < 0 ? Severity::stop : waiting.empty() ? Severity::note : Severity::unknown;
    f.variant = f.margin < 0 ? "few" : waiting.empty() ? "left" : "waiting";
    out.push_back(std::move(f));
}

static FindingText wordSerialPorts(const Build &build, const Finding &f) {
    std::string names;
    for (std::size_t i = 0; i < f.subjects.size(); ++i)
        names += (i ? ", " : "") + (i ? nameWithin(build, f.subjects[i]) : displayName(build, f.subjects[i]));
    const std::string free = fmt::format("{:g}", inputOf(f, "free")),
                      all = fmt::format("{:g}", inputOf(f, "serial ports"));
    if (f.variant == "left")
        return {{"{0} of {1} serial ports left", {free, all}}, {"What else can be fitted depends on them.", {}}};
    if (f.variant == "few")
        return {
            {"{0} serial ports too few", {fmt::format("{:g}", -f.margin)}},
            {"{0} would each need one; {1} are free. Leave one out, or take a controller with more.", {names, free}}};
    return {{"{0} has no serial port yet", {names}},
            {"{0} of {1} are free: connect it in the Wire stage.", {free, all}}};
}

static void judgeMotorOutputs(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    if (build.wires.empty()) return;
    for (const auto &motor : derived.links->motors) {
        Finding f;
        f.rule = RuleId::lnkMotors;
        f.subjects = {motor.mount};
        if (!motor.esc.empty()) f.subjects.push_back(motor.esc);
        for (const auto &mount : build.frame->motorMounts)
            if (mount.id == motor.mount) f.from_mm = f.to_mm = mount.position_mm;
        const int pin = signalOf(motor.output).number;
        f.inputs = {{"number", double(motor.number), ""}, {"output", double(pin), ""}};
        if (motor.esc.empty())
            f.variant = "no-esc", f.severity = Severity::unknown;
        else if (motor.output.empty())
            f.variant = "no-signal", f.severity = Severity::stop;
        else if (motor.number == 0 || signalOf(motor.output).kind != SignalKind::motor)
            f.severity = Severity::pass;
        else {
            f.variant = "order";
            f.measured = pin;
            f.limit = motor.number;
            f.severity = pin == motor.number ? Severity::pass : Severity::stop;
            f.margin = pin == motor.number ? 0 : -1;
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordMotorOutputs(const Build &build, const Finding &f) {
    const std::string motor = motorName(build, f.subjects[0]);
    if (f.variant == "no-esc")
        return {{"The {0} has no speed controller yet", {motor}}, {"Lead its three wires to one.", {}}};
    if (f.variant == "no-signal")
        return {{"{0} gets no signal for the {1}", {displayName(build, f.subjects[1]), motor}},
                {"Lead the controller's output M{0} to it.", {fmt::format("{:g}", inputOf(f, "number"))}}};
    return {{"The {0} is number {1} and hangs on output {2}",
             {motor, fmt::format("{:g}", *f.limit), fmt::format("{:g}", *f.measured)}},
            {"The craft would tip over at take-off: change the wires, or reassign the outputs in the controller. "
             "Propellers "
             "off on the bench.",
             {}}};
}

static void judgeChannels(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    // Receivers with one pin for each channel: flight takes four, each switched thing one more.
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::receiver) continue;
        int channels = 0;
        for (const auto &port : type->ports)
            for (const auto &pin : port.pins) channels += signalOf(pin.signal).kind == SignalKind::channel;
        if (channels == 0) continue;
        int wanted = 5; // four for flight, one for the mode
        for (const auto &other : build.parts) {
            const PartType *thing = typeOf(build, other);
            if (thing && (thing->kind == PartKind::gimbal || thing->kind == PartKind::payloadCamera)) ++wanted;
        }
        Finding f;
        f.rule = RuleId::lnkChannels;
        f.subjects = {part.id};
        f.unit = "channels";
        f.measured = channels;
        f.limit = wanted;
        f.margin = channels - wanted;
        f.severity = f.margin < 0 ? Severity::watch : Severity::pass;
        f.inputs = {{"joined", double(derived.links->channels.size()), ""}};
        out.push_back(std::move(f));
    }
}

static FindingText wordChannels(const Build &build, const Finding &f) {
    return {{"{0} has {1} channels; {2} are wanted",
             {displayName(build, f.subjects[0]), fmt::format("{:g}", *f.measured), fmt::format("{:g}", *f.limit)}},
            {"Four for flight, one for the mode, and one for each gimbal and camera switch: take a receiver with more, "
             "or a "
             "serial one.",
             {}}};
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
        for (const auto &core : wire.cores) moves += pinIndex(*from, core.fromPin) != pinIndex(*to, core.toPin);
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
        f.severity = moves > 0 ? Severity::note : Severity::pass;
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
    return {{"{0}: the pin orders differ", {displayName(build, f.subjects[0])}},
            {"Move pin {0} in the housing before plugging in; compare both with what is printed.", {moves}}};
}

std::span<const Rule> signalsRules() {
    static const std::array<Rule, 9> rules{{
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
        {RuleId::lnkPorts,
         "Serial ports",
         "Their number decides what can be fitted.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::links),
         judgeSerialPorts,
         wordSerialPorts},
        {RuleId::lnkMotors,
         "Motor outputs",
         "An output that turns another motor than the controller believes tips the craft over.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::links),
         judgeMotorOutputs,
         wordMotorOutputs},
        {RuleId::lnkChannels,
         "Channels of the receiver",
         "Each function needs a channel of its own.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::links),
         judgeChannels,
         wordChannels},
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
