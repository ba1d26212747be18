#include "core/links/link_report.h"

#include "core/links/channels.h"
#include "core/links/joint.h"
#include "core/links/port_kinds.h"
#include "core/pins/nets.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace waxis {

namespace {

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
        lookForHalves();
        report_.channels = channelLinks(build_);
        report_.wanted = wantedFunctions(build_);
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

    static LinkFault faultOf(Joint joint) {
        switch (joint) {
        case Joint::sameWay: return LinkFault::sameWay;
        case Joint::shortCircuit: return LinkFault::shortCircuit;
        case Joint::cannotAnswer: return LinkFault::cannotAnswer;
        case Joint::boot: return LinkFault::boot;
        case Joint::cellTap: return LinkFault::balanceTap;
        case Joint::right:
        case Joint::mismatch: break;
        }
        return LinkFault::mismatch;
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
            const Signal x = signalAt(build_, wire.from, core.fromPin), y = signalAt(build_, wire.to, core.toPin);
            data |= x.kind == SignalKind::busData;
            clock |= x.kind == SignalKind::busClock;
            const Joint joint = jointOf(x, y);
            if (joint != Joint::right) {
                add(faultOf(joint), wire, int(c));
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
                    if (!takesOneWire(signalAt(build_, *end, *pin).kind)) continue;
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
            const bool signal = std::any_of(wire.cores.begin(), wire.cores.end(), [&](const WireCore &c) {
                const SignalKind kind = signalAt(build_, wire.from, c.fromPin).kind;
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
                if (!isBusPort(*type, port)) continue;
                const bool joined = std::any_of(build_.wires.begin(), build_.wires.end(), [&](const Wire &w) {
                    return otherEnd(w, {part.id, port.id}) &&
                           std::any_of(w.cores.begin(), w.cores.end(), [&](const WireCore &c) {
                               return signalAt(build_, w.from, c.fromPin).kind == SignalKind::busData;
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
                if (!isSerialPort(*type, port)) continue;
                SerialPort serial{part.id, port.id, {}};
                for (const auto &wire : build_.wires)
                    if (const WireEnd *other = otherEnd(wire, {part.id, port.id}))
                        for (const auto &core : wire.cores) {
                            const bool forward = !(wire.from == *other);
                            const SignalKind kind =
                                signalAt(build_, forward ? wire.from : wire.to, forward ? core.fromPin : core.toPin)
                                    .kind;
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
                if (roleOf(build_, wire) != WireRole::phase) continue;
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
                    const Signal signal = signalAt(build_, near, nearPin);
                    if (several ? signal.kind == SignalKind::motor && signal.plain == wanted
                                : signal.kind == SignalKind::pulse)
                        return farPin;
                }
        return {};
    }

    /// A device that has both pins and uses one of them: of its ports that go to a controller.
    void lookForHalves() {
        for (const auto &part : build_.parts) {
            const PartType *type = typeOf(build_, part);
            if (!type || type->kind == PartKind::flightController) continue;
            for (const auto &port : type->ports)
                if (isSerialPort(*type, port)) lookForHalf({part.id, port.id});
        }
    }
    void lookForHalf(const WireEnd &device) {
        const Wire *carrier = nullptr;
        std::string tells, hears;
        for (const auto &wire : build_.wires) {
            const WireEnd *other = otherEnd(wire, device);
            if (!other) continue;
            for (const auto &core : wire.cores) {
                const std::string &pin = wire.from == device ? core.fromPin : core.toPin,
                                  &farPin = wire.from == device ? core.toPin : core.fromPin;
                const Signal own = signalAt(build_, device, pin);
                if (jointOf(own, signalAt(build_, *other, farPin)) != Joint::right) return; // said as a joint
                if (own.kind == SignalKind::serialTx) tells = pin, carrier = &wire;
                if (own.kind == SignalKind::serialRx) hears = pin, carrier = &wire;
            }
        }
        if (!carrier || tells.empty() == hears.empty()) return;
        LinkFinding &f = add(LinkFault::halfSerial, *carrier, -1);
        f.part = device.part;
        f.port = device.port;
        f.pin = tells.empty() ? hears : tells;
        f.value = tells.empty() ? 0 : 1; // 1: it tells and does not hear
    }

    const Build &build_;
    LinkReport report_;
};

} // namespace

LinkReport linkReport(const Build &build) { return Reporter(build).run(); }

} // namespace waxis
