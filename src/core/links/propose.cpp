// What a new wire would join, and where a part could be led.
#include "core/links/joint.h"
#include "core/links/link_report.h"
#include "core/links/port_kinds.h"

#include <algorithm>
#include <set>

namespace waxis {

/// The number of the motor that a speed controller or motor belongs to; 0 when unknown.
static int motorNumberAt(const Build &build, const LinkReport &links, const std::string &part) {
    for (const auto &link : links.motors)
        if (link.esc == part) return link.number;
    const Part *found = findPart(build, part);
    for (const auto &mount : build.frame->motorMounts)
        if (found && found->placement.site == mount.id) return mount.number;
    return 0;
}

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
    auto isTaken = [](const std::vector<std::string> &used, const std::string &pin, SignalKind kind) {
        if (carriesPower(kind) || kind == SignalKind::busData || kind == SignalKind::busClock) return false;
        return std::find(used.begin(), used.end(), pin) != used.end();
    };
    std::set<std::size_t> taken;
    for (std::size_t i = 0; i < a->pins.size(); ++i) {
        const std::string pin = pinName(*a, i);
        const Signal x = signalAt(build, from, pin);
        if (isTaken(usedA, pin, x.kind)) continue;
        std::optional<std::size_t> best;
        int bestScore = 0;
        for (std::size_t j = 0; j < b->pins.size(); ++j) {
            const std::string other = pinName(*b, j);
            const Signal y = signalAt(build, to, other);
            if (taken.contains(j) || isTaken(usedB, other, y.kind) || jointOf(x, y) != Joint::right) continue;
            int score = 1;
            if (x.plain == y.plain) score = 3;
            if (x.kind == SignalKind::supply) {
                // The same voltage, or nothing: another one is for a person to decide.
                if (x.supply_V != y.supply_V) continue;
                score = 3;
            }
            const bool outward = x.kind == SignalKind::motor && y.kind == SignalKind::pulse;
            if (outward || (x.kind == SignalKind::pulse && y.kind == SignalKind::motor)) {
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
        for (const auto &core : cores) score += carriesPower(signalAt(build, end, core.fromPin).kind) ? 1 : 10;
        score -= 0.1 * double(port.pins.size() - cores.size());
        const bool onlyGround = std::all_of(cores.begin(), cores.end(), [&](const WireCore &core) {
            return signalAt(build, end, core.fromPin).kind == SignalKind::ground;
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
        needs.serial += isSerialPort(type, port);
        needs.bus |= isBusPort(type, port);
        for (std::size_t p = 0; p < port.pins.size(); ++p) needs.video |= isVideo(signalAt(type, port, p).kind);
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
