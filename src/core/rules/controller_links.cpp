// LNK: what a controller has ports, outputs and channels for.
#include "core/edits/wire_edits.h"
#include "core/findings/input.h"
#include "core/links/channels.h"
#include "core/links/link_report.h"
#include "core/links/port_kinds.h"
#include "core/rules/electrical.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>

namespace waxis {

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
            if (!isSerialPort(*type, port)) continue;
            const bool joined = std::any_of(build.wires.begin(), build.wires.end(), [&](const Wire &w) {
                const bool from = w.from == WireEnd{part.id, port.id}, to = w.to == WireEnd{part.id, port.id};
                if (!from && !to) return false;
                return std::any_of(w.cores.begin(), w.cores.end(), [&](const WireCore &c) {
                    const SignalKind kind = signalAt(build, {part.id, port.id}, from ? c.fromPin : c.toPin).kind;
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
    const bool some = derived.links->freeSerial > 0; // the last one taken is worth knowing, some left are no matter
    f.severity = f.margin < 0       ? Severity::stop
                 : !waiting.empty() ? Severity::unknown
                 : some             ? Severity::pass
                                    : Severity::note;
    f.variant = f.margin < 0 ? "few" : waiting.empty() ? "left" : "waiting";
    out.push_back(std::move(f));
}

static FindingText wordSerialPorts(const Build &build, const Finding &f) {
    const std::string names = listNamesFirst(build, f.subjects);
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
    Finding order;
    order.rule = RuleId::lnkMotors;
    order.variant = "order";
    order.severity = Severity::pass;
    int asked = 0;
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
            ++asked;
            if (pin != motor.number) {
                if (order.subjects.empty()) order.from_mm = order.to_mm = f.from_mm;
                order.subjects.push_back(motor.mount);
                order.inputs.push_back({"number", double(motor.number), ""});
                order.inputs.push_back({"output", double(pin), ""});
            }
            continue;
        }
        out.push_back(std::move(f));
    }
    if (asked == 0) return;
    // One of them on the wrong output is two: the craft tips over whichever they are.
    if (!order.subjects.empty()) {
        order.severity = Severity::stop;
        order.margin = -double(order.subjects.size());
    }
    order.unit = "motors";
    order.measured = double(order.subjects.size());
    order.limit = 0;
    out.push_back(std::move(order));
}

static FindingText wordMotorOutputs(const Build &build, const Finding &f) {
    if (f.variant == "order") {
        std::string which;
        for (std::size_t m = 0; m < f.subjects.size(); ++m)
            which += fmt::format("{}{}, number {:g}, on output {:g}", m ? "; " : "", motorName(build, f.subjects[m]),
                                 f.inputs[2 * m].value, f.inputs[2 * m + 1].value);
        return {{"Motors hang on outputs of other numbers: {0}", {which}},
                {"The craft would tip over at take-off: change the wires, or reassign the outputs in the controller. "
                 "Propellers off on the bench.",
                 {}}};
    }
    const std::string motor = motorName(build, f.subjects[0]);
    if (f.variant == "no-esc")
        return {{"The {0} has no speed controller yet", {motor}}, {"Lead its three wires to one.", {}}};
    return {{"{0} gets no signal for the {1}", {displayName(build, f.subjects.back()), motor}},
            {"Lead the controller's output M{0} to it.", {fmt::format("{:g}", inputOf(f, "number"))}}};
}

static void judgeChannels(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    // Receivers with one pin for each channel: flight takes four, each switched thing one more.
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::receiver) continue;
        int channels = 0;
        for (const auto &port : type->ports)
            for (std::size_t p = 0; p < port.pins.size(); ++p)
                channels += signalAt(*type, port, p).kind == SignalKind::channel;
        if (channels == 0) continue;
        const int wanted = int(derived.links->wanted.size());
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
    return {
        {"{0} has {1} channels; {2} are wanted",
         {displayName(build, f.subjects[0]), fmt::format("{:g}", *f.measured), fmt::format("{:g}", *f.limit)}},
        {"Four for flight, one for the mode, and one for each axis, lamp and switch that is aboard: take a receiver "
         "with more, or a serial one.",
         {}}};
}

static void judgeHalves(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &fault : derived.links->faults) {
        if (fault.fault != LinkFault::halfSerial) continue;
        const Wire *wire = findWire(build, fault.wires[0]);
        const PartType *type = typeOfId(build, fault.part);
        if (!wire || !type) continue;
        const bool tells = fault.value > 0;
        const bool informs = type->kind == PartKind::gps || type->kind == PartKind::receiver;
        Finding f;
        f.rule = RuleId::lnkHalf;
        f.variant = tells ? "tells" : "hears";
        f.subjects = {fault.part, fault.wires[0]};
        f.severity = !tells && informs ? Severity::stop : Severity::watch;
        f.margin = -1;
        // The pin that is left, led to what answers it at the other end.
        const WireEnd own{fault.part, fault.port};
        const bool atFrom = wire->from == own;
        const auto isLeft = [&](const std::string &pin) {
            const SignalKind kind = signalAt(build, own, pin).kind;
            return pin != fault.pin && (kind == SignalKind::serialTx || kind == SignalKind::serialRx);
        };
        Build without = build;
        std::erase_if(without.wires, [&](const Wire &w) { return w.id == wire->id; });
        for (const auto &core : proposeCores(without, wire->from, wire->to))
            if (isLeft(atFrom ? core.fromPin : core.toPin)) {
                WireChange join;
                join.kind = WireChange::Kind::joinPins;
                join.wire = wire->id;
                join.part = core.fromPin;
                join.pin = core.toPin;
                f.fixes.emplace_back(std::string(), join);
            }
        out.push_back(std::move(f));
    }
}

static FindingText wordHalves(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.subjects[0]), nameWithin(build, f.subjects[1])};
    if (f.variant == "tells")
        return {{"{0} speaks and hears nothing", words},
                {"Half of a serial link in {1}: it cannot be set up, and telemetry does not come back. Join the other "
                 "pin.",
                 words}};
    return {{"{0} hears and cannot speak", words},
            {"Half of a serial link in {1}: nothing comes from it. Join the other pin.", words}};
}

static bool steers(ChannelFunction function) {
    return function == ChannelFunction::roll || function == ChannelFunction::pitch ||
           function == ChannelFunction::throttle || function == ChannelFunction::yaw;
}

static void judgeFunctions(const Build &, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    std::vector<std::pair<std::string, std::string>> pairs;
    for (const auto &c : derived.links->channels)
        if (std::find(pairs.begin(), pairs.end(), std::pair{c.fromPart, c.toPart}) == pairs.end())
            pairs.emplace_back(c.fromPart, c.toPart);
    for (const auto &[from, to] : pairs) {
        Finding f;
        f.rule = RuleId::lnkFunctions;
        f.subjects = {from, to};
        f.severity = Severity::pass;
        f.variant = "map";
        bool silent = false;
        int crossed = 0;
        for (const auto &c : derived.links->channels) {
            if (c.fromPart != from || c.toPart != to) continue;
            silent |= c.sent == ChannelFunction::none || c.wanted == ChannelFunction::none;
            if (!c.isCrossed()) continue;
            ++crossed;
            f.severity =
                steers(c.sent) || steers(c.wanted) || f.severity == Severity::stop ? Severity::stop : Severity::watch;
            f.inputs.push_back({"sent", double(c.sent), ""});
            f.inputs.push_back({"wanted", double(c.wanted), ""});
        }
        f.measured = crossed;
        f.limit = 0;
        f.unit = "channels";
        f.margin = -crossed;
        if (crossed == 0 && silent) {
            f.severity = Severity::unknown;
            f.variant = "unstated";
        }
        out.push_back(std::move(f));
    }
}

static FindingText wordFunctions(const Build &build, const Finding &f) {
    const std::string receiver = displayName(build, f.subjects[0]), taker = nameWithin(build, f.subjects[1]);
    if (f.variant == "unstated")
        return {{"Which channel of {0} does what at {1} is not stated", {withinSentence(receiver), taker}},
                {"Enter the order at both ends in the inspector: roll and pitch that change places tip the craft over "
                 "at take-off.",
                 {}}};
    std::string which;
    for (std::size_t i = 0; i + 1 < f.inputs.size(); i += 2)
        which += fmt::format("{}{} goes where {} is expected", i ? ", " : "",
                             functionWord(ChannelFunction(int(f.inputs[i].value))),
                             functionWord(ChannelFunction(int(f.inputs[i + 1].value))));
    return {{"Channels of {0} are crossed at {1}: {2}", {withinSentence(receiver), taker, which}},
            {"Change the wires or the order in the radio. Check each stick on the bench, propellers off.", {}}};
}

std::span<const Rule> controllerLinksRules() {
    static const std::array<Rule, 5> rules{{
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
        {RuleId::lnkHalf,
         "Half a serial link",
         "A device that is not heard is not there; one that does not hear cannot be set up.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::links),
         judgeHalves,
         wordHalves},
        {RuleId::lnkFunctions,
         "Functions on channels",
         "The order of the channels is a custom that both ends have to share: roll on pitch tips the craft over.",
         kTrade,
         Stage::wire,
         {},
         needs(Need::links),
         judgeFunctions,
         wordFunctions},
    }};
    return rules;
}

} // namespace waxis
