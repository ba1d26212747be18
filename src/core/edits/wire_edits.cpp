#include "core/edits/wire_edits.h"

#include "core/links/link_report.h"
#include "core/pins/nets.h"
#include "core/wiring/core_gauge.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string message) { return Failure{EditError{std::move(message)}}; }

Wire *wireIn(Build &build, const std::string &id) {
    const auto at = std::find_if(build.wires.begin(), build.wires.end(), [&](const Wire &w) { return w.id == id; });
    return at == build.wires.end() ? nullptr : &*at;
}

template <class Change>
EditResult onWire(const Build &build, const std::string &id, Change &&change) {
    Build next = build;
    Wire *wire = wireIn(next, id);
    if (!wire) return refuse(fmt::format("There is no wire \"{}\" in this build.", id));
    if (std::string why = change(*wire); !why.empty()) return refuse(std::move(why));
    return next;
}

std::string portText(const Build &build, const WireEnd &end) { return displayName(build, end.part) + ", " + end.port; }

std::string missingEnd(const Build &build, const WireEnd &end) {
    if (!findPart(build, end.part)) return fmt::format("There is no part \"{}\" in this build.", end.part);
    if (!portOf(build, end)) return fmt::format("{} has no port \"{}\".", displayName(build, end.part), end.port);
    return {};
}

Wire newWire(const Build &build, const WireEnd &from, const WireEnd &to) {
    Wire wire;
    wire.from = from;
    wire.to = to;
    wire.id = freshId(build, "w-" + from.part);
    wire.name = displayName(build, from.part) + " to " + displayName(build, to.part);
    const Port *a = portOf(build, from), *b = portOf(build, to);
    if (a->kind == PortKind::coax || b->kind == PortKind::coax) wire.lay = WireLay::coax;
    return wire;
}

} // namespace

EditResult connectPorts(const Build &build, const WireEnd &from, const WireEnd &to) {
    for (const WireEnd *end : {&from, &to})
        if (auto why = missingEnd(build, *end); !why.empty()) return refuse(std::move(why));
    if (from.part == to.part) return refuse("A wire runs from one part to another.");
    Wire wire = newWire(build, from, to);
    wire.cores = proposeCores(build, from, to);
    if (wire.cores.empty())
        return refuse(fmt::format("{} and {} have no pins that belong together and are free.", portText(build, from),
                                  portText(build, to)));
    Build next = build;
    next.wires.push_back(std::move(wire));
    return next;
}

EditResult connectPins(const Build &build, const WireEnd &from, const std::string &fromPin, const WireEnd &to,
                       const std::string &toPin) {
    for (const auto &[end, pin] : {std::pair{&from, &fromPin}, std::pair{&to, &toPin}}) {
        if (auto why = missingEnd(build, *end); !why.empty()) return refuse(std::move(why));
        if (pinIndex(*portOf(build, *end), *pin) < 0)
            return refuse(fmt::format("{} has no pin \"{}\".", portText(build, *end), *pin));
    }
    if (from.part == to.part) return refuse("A wire runs from one part to another.");
    Build next = build;
    for (auto &wire : next.wires) {
        const bool forward = wire.from == from && wire.to == to, back = wire.from == to && wire.to == from;
        if (!forward && !back) continue;
        const WireCore core{forward ? fromPin : toPin, forward ? toPin : fromPin, {}, {}};
        for (const auto &known : wire.cores)
            if (known.fromPin == core.fromPin && known.toPin == core.toPin)
                return refuse("These pins are joined already.");
        wire.cores.push_back(core);
        return next;
    }
    Wire wire = newWire(build, from, to);
    wire.cores.push_back({fromPin, toPin, {}, {}});
    next.wires.push_back(std::move(wire));
    return next;
}

EditResult removeWire(const Build &build, const std::string &wire) {
    Build next = build;
    if (std::erase_if(next.wires, [&](const Wire &w) { return w.id == wire; }) == 0)
        return refuse(fmt::format("There is no wire \"{}\" in this build.", wire));
    return next;
}

EditResult removeCore(const Build &build, const std::string &wire, int core) {
    const Wire *found = findWire(build, wire);
    if (found && found->cores.size() == 1 && core == 0) return removeWire(build, wire);
    return onWire(build, wire, [&](Wire &w) -> std::string {
        if (core < 0 || std::size_t(core) >= w.cores.size()) return "The wire has no such core.";
        w.cores.erase(w.cores.begin() + core);
        // What sat in it goes along; the others keep their cores.
        std::erase_if(w.inserts, [&](const WireInsert &insert) { return insert.core == core; });
        for (auto &insert : w.inserts) insert.core -= insert.core > core;
        return {};
    });
}

EditResult movePin(const Build &build, const std::string &wire, int core, bool atFrom, const std::string &pin) {
    const Wire *found = findWire(build, wire);
    if (found) {
        const Port *port = portOf(build, atFrom ? found->from : found->to);
        if (!port || pinIndex(*port, pin) < 0) return refuse(fmt::format("The port has no pin \"{}\".", pin));
    }
    return onWire(build, wire, [&](Wire &w) -> std::string {
        if (core < 0 || std::size_t(core) >= w.cores.size()) return "The wire has no such core.";
        auto held = [&](WireCore &c) -> std::string & { return atFrom ? c.fromPin : c.toPin; };
        std::string &mine = held(w.cores[std::size_t(core)]);
        for (auto &other : w.cores)
            if (held(other) == pin) held(other) = mine;
        held(w.cores[std::size_t(core)]) = pin;
        return {};
    });
}

EditResult changeWire(const Build &build, const std::string &wire, const Wire &next) {
    if (next.cores.empty()) return refuse("A wire needs a core.");
    return onWire(build, wire, [&](Wire &w) -> std::string {
        const Wire before = w;
        w = next;
        w.id = before.id;
        w.from = before.from;
        w.to = before.to;
        return {};
    });
}

static bool comesWithAPart(const Build &build, const Wire &wire) {
    for (const WireEnd *end : {&wire.from, &wire.to}) {
        const Part *part = findPart(build, end->part);
        const PartType *type = part ? typeOf(build, *part) : nullptr;
        if (type && std::any_of(type->leads.begin(), type->leads.end(),
                                [&](const SuppliedLead &lead) { return lead.port == end->port; }))
            return true;
    }
    return false;
}

EditResult setGauge(const Build &build, const std::string &wire, std::optional<int> awg) {
    if (awg && (*awg < 0 || *awg > 40)) return refuse("A gauge from 0 to 40 expected.");
    return onWire(build, wire, [&](Wire &w) -> std::string {
        w.gauge_AWG.reset();
        for (auto &core : w.cores) core.gauge_AWG.reset();
        // A lead that came with a part has the gauge that it has: another one is cut new.
        const bool other = std::any_of(w.cores.begin(), w.cores.end(),
                                       [&](const WireCore &core) { return awg && gaugeOf(build, w, core) != *awg; });
        if (other && w.make == WireMake::asSupplied && comesWithAPart(build, w)) w.make = WireMake::stock;
        w.gauge_AWG = awg;
        return {};
    });
}

EditResult setStops(const Build &build, const std::string &wire, std::vector<RouteStop> stops) {
    return onWire(build, wire, [&](Wire &w) -> std::string {
        w.stops = std::move(stops);
        return {};
    });
}

EditResult moveSupply(const Build &build, const std::string &load, const std::string &source,
                      const std::string &supply) {
    const Part *part = findPart(build, load), *giver = findPart(build, source);
    const PartType *type = part ? typeOf(build, *part) : nullptr, *gives = giver ? typeOf(build, *giver) : nullptr;
    if (!type || !gives) return refuse("There is no such part in this build.");
    if (load == source) return refuse("A part cannot feed itself.");
    // Where the load takes its supply: the pin that is wired now, else its first.
    WireEnd inlet;
    std::string inletPin;
    for (const auto &port : type->ports)
        for (std::size_t i = 0; i < port.pins.size(); ++i) {
            const Signal signal = signalAt(*type, port, i);
            if (signal.kind != SignalKind::supply || port.kind == PortKind::usb) continue;
            if (outputOf(*type, supplyName(signal))) continue;
            if (!inletPin.empty()) continue;
            inlet = {load, port.id};
            inletPin = pinName(port, i);
        }
    if (inletPin.empty()) return refuse(fmt::format("{} takes no supply.", displayName(build, load)));
    Build next = build;
    Wire old;
    for (auto &wire : next.wires)
        for (std::size_t c = 0; c < wire.cores.size(); ++c) {
            const bool from = wire.from.part == load, to = wire.to.part == load;
            if (!from && !to) continue;
            const Signal own =
                signalAt(build, from ? wire.from : wire.to, from ? wire.cores[c].fromPin : wire.cores[c].toPin);
            if (own.kind != SignalKind::supply || outputOf(*type, supplyName(own)) || !old.id.empty()) continue;
            inlet = from ? wire.from : wire.to;
            inletPin = from ? wire.cores[c].fromPin : wire.cores[c].toPin;
            // Types can change under their wires: a port that is gone is no place to solder to.
            if (auto why = missingEnd(build, inlet); !why.empty()) return refuse(std::move(why));
            old = wire;
            const WireEnd &far = from ? wire.to : wire.from;
            // Another pin of the same port at the source: only that end of the core moves.
            if (far.part == source)
                if (const Port *port = findPort(*gives, far.port))
                    for (std::size_t i = 0; i < port->pins.size(); ++i)
                        if (supplyName(signalAt(*gives, *port, i)) == supply) {
                            (from ? wire.cores[c].toPin : wire.cores[c].fromPin) = pinName(*port, i);
                            return next;
                        }
            wire.cores.erase(wire.cores.begin() + std::ptrdiff_t(c));
        }
    std::erase_if(next.wires, [&](const Wire &w) {
        return w.cores.empty() ||
               (w.cores.size() == 1 && signalAt(build, w.from, w.cores[0].fromPin).kind == SignalKind::ground);
    });
    // The port of the source with that supply and, if there is one, a ground beside it.
    WireEnd outlet;
    std::string outletPin;
    bool grounded = false;
    for (const auto &port : gives->ports) {
        if (port.kind == PortKind::usb) continue;
        for (std::size_t i = 0; i < port.pins.size(); ++i) {
            if (supplyName(signalAt(*gives, port, i)) != supply) continue;
            const bool ground = pinIndex(port, "GND") >= 0 || pinIndex(port, "-") >= 0;
            if (!outletPin.empty() && (grounded || !ground)) continue;
            outlet = {source, port.id};
            outletPin = pinName(port, i);
            grounded = ground;
        }
    }
    if (outletPin.empty()) return refuse(fmt::format("{} gives no {}.", displayName(build, source), supply));
    Wire wire = newWire(next, outlet, inlet);
    wire.cores.push_back({outletPin, inletPin, {}, {}});
    const Port &out = *portOf(build, outlet), &in = *portOf(build, inlet);
    for (const char *name : {"GND", "-"})
        for (const char *other : {"GND", "-"})
            if (wire.cores.size() == 1 && pinIndex(out, name) >= 0 && pinIndex(in, other) >= 0)
                wire.cores.push_back({name, other, {}, {}});
    next.wires.push_back(std::move(wire));
    return next;
}

EditResult addTie(const Build &build, const Vec3 &position_mm) {
    if (!position_mm.allFinite()) return refuse("A place in millimetres expected.");
    Build next = build;
    next.ties.push_back({freshId(build, "tie-1"), position_mm});
    return next;
}

EditResult moveTie(const Build &build, const std::string &tie, const Vec3 &position_mm) {
    if (!position_mm.allFinite()) return refuse("A place in millimetres expected.");
    Build next = build;
    for (auto &t : next.ties)
        if (t.id == tie) {
            t.position_mm = position_mm;
            return next;
        }
    return refuse(fmt::format("There is no tie \"{}\" in this build.", tie));
}

EditResult removeTie(const Build &build, const std::string &tie) {
    Build next = build;
    if (std::erase_if(next.ties, [&](const TiePoint &t) { return t.id == tie; }) == 0)
        return refuse(fmt::format("There is no tie \"{}\" in this build.", tie));
    dropLostStops(next);
    return next;
}

EditResult setHoleEdge(const Build &build, const std::string &pass, HoleEdge edge) {
    Build next = build;
    bool found = false;
    next.frame.edit([&](Frame &frame) {
        for (auto &p : frame.passThroughs)
            if (p.id == pass) {
                p.edge = edge;
                found = true;
            }
        for (auto &arm : frame.arms)
            for (auto &hole : arm.holes)
                if (arm.id == pass) {
                    hole.edge = edge;
                    found = true;
                }
    });
    if (!found) return refuse(fmt::format("There is no pass-through or hole in \"{}\" in this frame.", pass));
    return next;
}

void dropLostStops(Build &build) {
    const auto ids = allIds(build);
    for (auto &wire : build.wires)
        std::erase_if(wire.stops, [&](const RouteStop &s) {
            return !s.at.empty() && std::find(ids.begin(), ids.end(), s.at) == ids.end();
        });
}

} // namespace waxis
