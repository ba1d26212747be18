#include "core/links/link_report.h"

#include "core/pins/nets.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace waxis {

namespace {

bool isPair(SignalKind a, SignalKind b, SignalKind x, SignalKind y) { return (a == x && b == y) || (a == y && b == x); }

/// Whether two signals may be joined; voltages of supplies are another matter.
bool fits(const Signal &a, const Signal &b) {
    using K = SignalKind;
    if (isPair(a.kind, b.kind, K::serialTx, K::serialRx) || isPair(a.kind, b.kind, K::motor, K::pulse) ||
        isPair(a.kind, b.kind, K::servo, K::pulse) || isPair(a.kind, b.kind, K::channel, K::pulse) ||
        isPair(a.kind, b.kind, K::telemetry, K::serialRx) || isPair(a.kind, b.kind, K::buzzer, K::ground))
        return true;
    if (a.kind != b.kind) return false;
    switch (a.kind) {
    case K::serialTx:
    case K::serialRx: return false;
    case K::videoLink:
    case K::usb:
    case K::other: return a.plain == b.plain;
    case K::cell:
    case K::motor: return a.number == b.number;
    case K::ground:
    case K::supply:
    case K::phase:
    case K::busData:
    case K::busClock:
    case K::servo:
    case K::pulse:
    case K::channel:
    case K::video:
    case K::telemetry:
    case K::current:
    case K::lampData:
    case K::buzzer: return true;
    }
    return false;
}

bool isSerialPort(const Port &port) {
    bool tx = false, rx = false;
    for (const auto &pin : port.pins) {
        tx |= signalOf(pin.signal).kind == SignalKind::serialTx;
        rx |= signalOf(pin.signal).kind == SignalKind::serialRx;
    }
    return tx && rx && port.kind != PortKind::usb;
}

bool isBusPort(const Port &port) {
    return std::any_of(port.pins.begin(), port.pins.end(),
                       [](const Pin &p) { return signalOf(p.signal).kind == SignalKind::busData; });
}

/// The other end of a wire, or null when it does not end at this port.
const WireEnd *otherEnd(const Wire &wire, const WireEnd &end) {
    if (wire.from == end) return &wire.to;
    if (wire.to == end) return &wire.from;
    return nullptr;
}

class Reporter {
public:
    explicit Reporter(const Build &build) : build_(build) {}

    LinkReport run() {
        for (const auto &wire : build_.wires) lookAtCores(wire);
        lookForSecondUse();
        lookAtGrounds();
        lookAtCompasses();
        listSerialPorts();
        followMotors();
        mapChannels();
        return std::move(report_);
    }

private:
    LinkFinding &add(LinkFault fault, const Wire &wire, int core) {
        LinkFinding finding;
        finding.fault = fault;
        finding.wires = {wire.id};
        finding.core = core;
        if (core >= 0) {
            finding.fromPin = wire.cores[std::size_t(core)].fromPin;
            finding.toPin = wire.cores[std::size_t(core)].toPin;
        }
        finding.part = wire.from.part;
        finding.port = wire.from.port;
        report_.faults.push_back(std::move(finding));
        return report_.faults.back();
    }

    void lookAtCores(const Wire &wire) {
        const Port *from = portOf(build_, wire.from), *to = portOf(build_, wire.to);
        bool data = false, clock = false;
        if (wire.lay == WireLay::coax) return; // antenna leads have no pins
        for (std::size_t c = 0; c < wire.cores.size(); ++c) {
            const WireCore &core = wire.cores[c];
            const int a = from ? pinIndex(*from, core.fromPin) : -1, b = to ? pinIndex(*to, core.toPin) : -1;
            if (a < 0 || b < 0) {
                LinkFinding &f = add(LinkFault::noPin, wire, int(c));
                const bool near = a < 0;
                f.part = near ? wire.from.part : wire.to.part;
                f.port = near ? wire.from.port : wire.to.port;
                f.pin = near ? core.fromPin : core.toPin;
                continue;
            }
            const Signal x = signalOf(core.fromPin), y = signalOf(core.toPin);
            data |= x.kind == SignalKind::busData;
            clock |= x.kind == SignalKind::busClock;
            if (isPair(x.kind, y.kind, SignalKind::supply, SignalKind::ground)) {
                add(LinkFault::shortCircuit, wire, int(c));
                continue;
            }
            if (!fits(x, y)) {
                const bool serial =
                    (x.kind == SignalKind::serialTx || x.kind == SignalKind::serialRx) && x.kind == y.kind;
                const bool bus = isPair(x.kind, y.kind, SignalKind::busData, SignalKind::busClock);
                add(serial || bus ? LinkFault::sameWay : LinkFault::mismatch, wire, int(c));
                continue;
            }
            const Pin &p = from->pins[std::size_t(a)], &q = to->pins[std::size_t(b)];
            if (p.level_V && q.level_V && !carriesPower(x.kind) && std::abs(*p.level_V - *q.level_V) > 0.5) {
                LinkFinding &f = add(LinkFault::level, wire, int(c));
                f.value = std::max(*p.level_V, *q.level_V);
                f.limit = std::min(*p.level_V, *q.level_V);
            }
            if (p.inverted != q.inverted && !carriesPower(x.kind)) add(LinkFault::inversion, wire, int(c));
        }
        if (data != clock) add(LinkFault::halfBus, wire, -1);
    }

    /// Signal pins take one wire; supplies, grounds and buses may be shared.
    void lookForSecondUse() {
        std::map<std::pair<std::string, std::string>, std::vector<const Wire *>> users;
        for (const auto &wire : build_.wires)
            for (const auto &core : wire.cores)
                for (const auto &[end, pin] :
                     {std::pair{&wire.from, &core.fromPin}, std::pair{&wire.to, &core.toPin}}) {
                    const SignalKind kind = signalOf(*pin).kind;
                    if (carriesPower(kind) || kind == SignalKind::busData || kind == SignalKind::busClock ||
                        kind == SignalKind::lampData || kind == SignalKind::telemetry)
                        continue;
                    users[{end->part + "/" + end->port, *pin}].push_back(&wire);
                }
        for (const auto &[place, wires] : users) {
            if (wires.size() < 2 || neverTogether(wires)) continue;
            LinkFinding &f = add(LinkFault::usedTwice, *wires[1], -1);
            f.wires = {wires[0]->id, wires[1]->id};
            const auto slash = place.first.find('/');
            f.part = place.first.substr(0, slash);
            f.port = place.first.substr(slash + 1);
            f.pin = place.second;
        }
    }
    bool neverTogether(const std::vector<const Wire *> &wires) const {
        const auto cases = effectiveLoadCases(build_);
        auto aboard = [&](const Wire &w, const LoadCase &c) {
            const Part *a = findPart(build_, w.from.part), *b = findPart(build_, w.to.part);
            return a && b && isAboard(*a, c) && isAboard(*b, c);
        };
        return std::none_of(cases.begin(), cases.end(), [&](const LoadCase &c) {
            return std::count_if(wires.begin(), wires.end(), [&](const Wire *w) { return aboard(*w, c); }) > 1;
        });
    }

    void lookAtGrounds() {
        const PowerNets nets = powerNets(build_);
        auto groundNet = [&](const std::string &part) {
            for (std::size_t i = 0; i < build_.parts.size(); ++i)
                if (build_.parts[i].id == part)
                    if (const int node = nets.find(int(i), "GND"); node >= 0) return nets.net[std::size_t(node)];
            return -1;
        };
        for (const auto &wire : build_.wires) {
            const bool signal = std::any_of(wire.cores.begin(), wire.cores.end(), [](const WireCore &c) {
                const SignalKind kind = signalOf(c.fromPin).kind;
                return !carriesPower(kind) && kind != SignalKind::phase && kind != SignalKind::buzzer &&
                       kind != SignalKind::other;
            });
            if (!signal || wire.lay == WireLay::coax) continue;
            const int a = groundNet(wire.from.part), b = groundNet(wire.to.part);
            if (a >= 0 && b >= 0 && a != b) add(LinkFault::noGround, wire, -1).pin = wire.to.part;
        }
    }

    void lookAtCompasses() {
        for (const auto &part : build_.parts) {
            const PartType *type = typeOf(build_, part);
            if (!type || type->kind != PartKind::gps) continue;
            for (const auto &port : type->ports) {
                if (!isBusPort(port)) continue;
                const bool joined = std::any_of(build_.wires.begin(), build_.wires.end(), [&](const Wire &w) {
                    return otherEnd(w, {part.id, port.id}) &&
                           std::any_of(w.cores.begin(), w.cores.end(), [](const WireCore &c) {
                               return signalOf(c.fromPin).kind == SignalKind::busData;
                           });
                });
                if (joined) continue;
                LinkFinding finding;
                finding.fault = LinkFault::noCompass;
                finding.part = part.id;
                finding.port = port.id;
                report_.faults.push_back(finding);
            }
        }
    }

    void listSerialPorts() {
        for (const auto &part : build_.parts) {
            const PartType *type = typeOf(build_, part);
            if (!type || type->kind != PartKind::flightController) continue;
            for (const auto &port : type->ports) {
                if (!isSerialPort(port)) continue;
                SerialPort serial{part.id, port.id, {}};
                for (const auto &wire : build_.wires)
                    if (const WireEnd *other = otherEnd(wire, {part.id, port.id}))
                        for (const auto &core : wire.cores) {
                            const SignalKind kind = signalOf(wire.from == *other ? core.toPin : core.fromPin).kind;
                            if (kind == SignalKind::serialTx || kind == SignalKind::serialRx)
                                serial.usedBy = other->part;
                        }
                report_.freeSerial += serial.usedBy.empty();
                report_.serial.push_back(std::move(serial));
            }
        }
    }

    /// From each motor back: phase wires, speed controller, the signal wire at it, the controller's pin.
    void followMotors() {
        for (const auto &mount : build_.frame->motorMounts) {
            MotorLink link{mount.id, mount.number, {}, {}};
            std::string escPort;
            for (const auto &wire : build_.wires) {
                if (roleOf(wire) != WireRole::phase) continue;
                for (const auto &[motor, esc] : {std::pair{&wire.from, &wire.to}, std::pair{&wire.to, &wire.from}}) {
                    const Part *part = findPart(build_, motor->part);
                    const PartType *type = part ? typeOf(build_, *part) : nullptr;
                    if (!type || type->kind != PartKind::motor || part->placement.site != mount.id) continue;
                    link.esc = esc->part;
                    escPort = esc->port;
                }
            }
            const Part *esc = findPart(build_, link.esc);
            const PartType *type = esc ? typeOf(build_, *esc) : nullptr;
            if (type) link.output = controllerPin(*esc, *type, escPort);
            report_.motors.push_back(std::move(link));
        }
    }

    std::string controllerPin(const Part &esc, const PartType &type, const std::string &motorPort) const {
        // A board for several motors numbers its motor ports; "m3" answers to "M3".
        std::string wanted = motorPort;
        std::transform(wanted.begin(), wanted.end(), wanted.begin(),
                       [](unsigned char c) { return char(std::toupper(c)); });
        const bool several = type.kind == PartKind::fourInOneEsc;
        for (const auto &wire : build_.wires)
            for (const auto &core : wire.cores)
                for (const bool forward : {true, false}) {
                    const WireEnd &near = forward ? wire.to : wire.from, &far = forward ? wire.from : wire.to;
                    const std::string &nearPin = forward ? core.toPin : core.fromPin;
                    const std::string &farPin = forward ? core.fromPin : core.toPin;
                    if (near.part != esc.id || far.part == esc.id) continue;
                    const SignalKind kind = signalOf(nearPin).kind;
                    if (several ? kind == SignalKind::motor && signalOf(nearPin).plain == wanted
                                : kind == SignalKind::pulse)
                        return farPin;
                }
        return {};
    }

    void mapChannels() {
        for (const auto &wire : build_.wires)
            for (const auto &core : wire.cores)
                if (signalOf(core.fromPin).kind == SignalKind::channel ||
                    signalOf(core.toPin).kind == SignalKind::channel)
                    report_.channels.emplace_back(wire.from.part + "/" + core.fromPin, wire.to.part + "/" + core.toPin);
    }

    const Build &build_;
    LinkReport report_;
};

/// The number of the motor that a speed controller or motor belongs to; 0 when unknown.
int motorNumberAt(const Build &build, const LinkReport &links, const std::string &part) {
    for (const auto &link : links.motors)
        if (link.esc == part) return link.number;
    const Part *found = findPart(build, part);
    for (const auto &mount : build.frame->motorMounts)
        if (found && found->placement.site == mount.id) return mount.number;
    return 0;
}

} // namespace

LinkReport linkReport(const Build &build) { return Reporter(build).run(); }

std::vector<std::string> usedPins(const Build &build, const WireEnd &end, const std::string &exceptWire) {
    std::vector<std::string> pins;
    for (const auto &wire : build.wires) {
        if (wire.id == exceptWire) continue;
        for (const auto &core : wire.cores) {
            if (wire.from == end) pins.push_back(core.fromPin);
            if (wire.to == end) pins.push_back(core.toPin);
        }
    }
    return pins;
}

std::vector<WireCore> proposeCores(const Build &build, const WireEnd &from, const WireEnd &to) {
    std::vector<WireCore> cores;
    const Port *a = portOf(build, from), *b = portOf(build, to);
    if (!a || !b) return cores;
    if (a->kind == PortKind::coax || b->kind == PortKind::coax) return {{"", "", {}, {}}};
    const auto usedA = usedPins(build, from), usedB = usedPins(build, to);
    const LinkReport links = linkReport(build);
    auto isTaken = [](const std::vector<std::string> &used, const std::string &pin) {
        const SignalKind kind = signalOf(pin).kind;
        if (carriesPower(kind) || kind == SignalKind::busData || kind == SignalKind::busClock) return false;
        return std::find(used.begin(), used.end(), pin) != used.end();
    };
    std::set<std::size_t> taken;
    for (std::size_t i = 0; i < a->pins.size(); ++i) {
        const std::string pin = pinName(*a, i);
        const Signal x = signalOf(pin);
        if (isTaken(usedA, pin)) continue;
        std::optional<std::size_t> best;
        int bestScore = 0;
        for (std::size_t j = 0; j < b->pins.size(); ++j) {
            const std::string other = pinName(*b, j);
            const Signal y = signalOf(other);
            if (taken.contains(j) || isTaken(usedB, other) || !fits(x, y)) continue;
            int score = 1;
            if (x.plain == y.plain) score = 3;
            if (x.kind == SignalKind::supply) {
                // The same voltage, or nothing: another one is for a person to decide.
                if (x.supply_V != y.supply_V) continue;
                score = 3;
            }
            // A camera's video goes to the camera input, a transmitter's comes from the output.
            const Part *source = findPart(build, from.part), *sink = findPart(build, to.part);
            const PartType *ts = source ? typeOf(build, *source) : nullptr, *tk = sink ? typeOf(build, *sink) : nullptr;
            if (x.kind == SignalKind::video && ts && tk) {
                for (const auto &[type, name] : {std::pair{ts, &y.plain}, std::pair{tk, &x.plain}}) {
                    if (type->kind == PartKind::flightCamera && *name == "CAM") score = 4;
                    if (type->kind == PartKind::flightCamera && *name == "VTX") score = 0;
                    if (type->kind == PartKind::videoTransmitter && *name == "VTX") score = 4;
                    if (type->kind == PartKind::videoTransmitter && *name == "CAM") score = 0;
                }
            }
            if (isPair(x.kind, y.kind, SignalKind::motor, SignalKind::pulse)) {
                const bool outward = x.kind == SignalKind::motor;
                const int number = motorNumberAt(build, links, outward ? to.part : from.part);
                const int pinNumber = outward ? x.number : y.number;
                if (number > 0) score = pinNumber == number ? 4 : 0;
            }
            if (score > bestScore) {
                bestScore = score;
                best = j;
            }
        }
        if (!best) continue;
        taken.insert(*best);
        cores.push_back({pin, pinName(*b, *best), {}, {}});
    }
    return cores;
}

std::optional<WireEnd> proposePort(const Build &build, const WireEnd &end, const std::string &part) {
    const Part *found = findPart(build, part);
    const PartType *type = found ? typeOf(build, *found) : nullptr;
    const Port *own = portOf(build, end);
    if (!type || !own) return std::nullopt;
    std::optional<WireEnd> best;
    double bestScore = 0;
    for (const auto &port : type->ports) {
        const WireEnd other{part, port.id};
        if ((own->kind == PortKind::coax) != (port.kind == PortKind::coax) || port.kind == PortKind::usb) continue;
        if (own->kind == PortKind::coax) {
            if (usedPins(build, other).empty()) return other;
            continue;
        }
        const auto cores = proposeCores(build, end, other);
        // Signals count before supplies, and a port with pins to spare is the worse one.
        double score = 0;
        for (const auto &core : cores) score += carriesPower(signalOf(core.fromPin).kind) ? 1 : 10;
        score -= 0.1 * double(port.pins.size() - cores.size());
        const bool onlyGround = std::all_of(cores.begin(), cores.end(), [](const WireCore &core) {
            return signalOf(core.fromPin).kind == SignalKind::ground;
        });
        if (onlyGround || score <= bestScore) continue;
        bestScore = score;
        best = other;
    }
    return best;
}

PortNeeds needsOf(const Build &build, const PartType &type) {
    PortNeeds needs;
    for (const auto &port : type.ports) {
        needs.serial += isSerialPort(port);
        needs.bus |= isBusPort(port);
        for (const auto &pin : port.pins) needs.video |= signalOf(pin.signal).kind == SignalKind::video;
    }
    if (type.electrical) {
        needs.least_V = type.electrical->supplyMin_V;
        needs.most_V = type.electrical->supplyMax_V;
        needs.peak_A = type.electrical->peak_A.value.value_or(type.electrical->typical_A.value.value_or(0));
    }
    for (const auto &serial : linkReport(build).serial)
        if (serial.usedBy.empty()) needs.freeSerial.push_back(serial.part + "/" + serial.port);
    for (const auto &part : build.parts) {
        const PartType *other = typeOf(build, part);
        if (!other || !other->electrical) continue;
        for (const auto &output : other->electrical->outputs)
            if (needs.least_V && needs.most_V && output.voltage_V >= *needs.least_V &&
                output.voltage_V <= *needs.most_V && output.limit_A >= needs.peak_A)
                needs.supplies.push_back(part.id + "/" + output.id);
        if (other->kind == PartKind::battery && other->electrical->cells && needs.most_V &&
            *other->electrical->cells * other->electrical->cellFull_V.value_or(4.2) <= *needs.most_V)
            needs.supplies.push_back(part.id);
    }
    return needs;
}

} // namespace waxis
