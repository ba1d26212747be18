// Changes of wires that findings propose: applied, and said in words.
#include "core/base/sentence.h"
#include "core/edits/wire_edits.h"
#include "core/pins/signal.h"

#include <fmt/format.h>

namespace waxis {

template <class Change>
static EditResult withWire(const Build &build, const WireChange &change, const Change &apply) {
    Build next = build;
    for (auto &wire : next.wires)
        if (wire.id == change.wire) {
            apply(wire);
            return next;
        }
    return Failure{EditError{fmt::format("There is no wire \"{}\" in this build.", change.wire)}};
}

EditResult applyWireChange(const Build &build, const WireChange &change) {
    switch (change.kind) {
    case WireChange::Kind::gauge: return setGauge(build, change.wire, change.gauge_AWG);
    case WireChange::Kind::stock:
        return withWire(build, change, [](Wire &w) {
            w.make = WireMake::stock;
            w.readyMade_mm.reset();
        });
    case WireChange::Kind::twist: return withWire(build, change, [](Wire &w) { w.lay = WireLay::twisted; });
    case WireChange::Kind::grommet: return setHoleEdge(build, change.wire, HoleEdge::grommet);
    case WireChange::Kind::movePin: return movePin(build, change.wire, change.core, change.atFrom, change.pin);
    case WireChange::Kind::supply: return moveSupply(build, change.wire, change.part, change.pin);
    case WireChange::Kind::port:
        return withWire(build, change, [&](Wire &w) { (change.atFrom ? w.from : w.to).port = change.pin; });
    case WireChange::Kind::tie: return addTie(build, change.at_mm);
    case WireChange::Kind::leaveOut: return removeWire(build, change.wire);
    case WireChange::Kind::joinPins: {
        const Wire *wire = findWire(build, change.wire);
        if (!wire) break;
        return connectPins(build, wire->from, change.part, wire->to, change.pin);
    }
    case WireChange::Kind::sleeve: return withWire(build, change, [](Wire &w) { w.sleeved = true; });
    case WireChange::Kind::tapeEdges: return withWire(build, change, [](Wire &w) { w.edgesTaped = true; });
    case WireChange::Kind::dropInsert:
        return withWire(build, change, [&](Wire &w) {
            if (std::size_t(change.core) < w.inserts.size()) w.inserts.erase(w.inserts.begin() + change.core);
        });
    case WireChange::Kind::turnInsert:
        return withWire(build, change, [&](Wire &w) {
            if (std::size_t(change.core) < w.inserts.size())
                w.inserts[std::size_t(change.core)].turned = !w.inserts[std::size_t(change.core)].turned;
        });
    case WireChange::Kind::dropStop:
        return withWire(build, change, [&](Wire &w) {
            if (std::size_t(change.core) < w.stops.size()) w.stops.erase(w.stops.begin() + change.core);
        });
    case WireChange::Kind::liftCore: return removeCore(build, change.wire, change.core);
    }
    return Failure{EditError{"There is no such change."}};
}

Sentence wordWireChange(const Build &build, const WireChange &change) {
    switch (change.kind) {
    case WireChange::Kind::gauge:
        return {"Use AWG {0} for {1}", {std::to_string(change.gauge_AWG), displayName(build, change.wire)}};
    case WireChange::Kind::stock: return {"Cut {0} new from stock", {displayName(build, change.wire)}};
    case WireChange::Kind::twist: return {"Twist {0}", {displayName(build, change.wire)}};
    case WireChange::Kind::grommet: return {"Put a grommet into {0}", {change.wire}};
    case WireChange::Kind::movePin: {
        const Wire *wire = findWire(build, change.wire);
        const Port *port = wire ? portOf(build, change.atFrom ? wire->from : wire->to) : nullptr;
        std::string was;
        if (wire && std::size_t(change.core) < wire->cores.size())
            was = change.atFrom ? wire->cores[std::size_t(change.core)].fromPin
                                : wire->cores[std::size_t(change.core)].toPin;
        if (!port) return {"Move {0} to {1}", {was, change.pin}};
        return {
            "Move pin {0} to {1}, {2}",
            {std::to_string(pinIndex(*port, was) + 1), std::to_string(pinIndex(*port, change.pin) + 1), change.pin}};
    }
    case WireChange::Kind::supply:
        return {"Feed {0} from {1}, {2}",
                {displayName(build, change.wire), displayName(build, change.part), change.pin}};
    case WireChange::Kind::port: return {"Lead {0} to {1}", {displayName(build, change.wire), change.pin}};
    case WireChange::Kind::tie: return {"Tie it down there", {}};
    case WireChange::Kind::leaveOut: return {"Leave {0} out", {displayName(build, change.wire)}};
    case WireChange::Kind::joinPins:
        return {"Join {1} with {2} in {0}", {displayName(build, change.wire), change.part, change.pin}};
    case WireChange::Kind::sleeve: return {"Sleeve {0}", {displayName(build, change.wire)}};
    case WireChange::Kind::tapeEdges: return {"Tape the edges under {0}", {displayName(build, change.wire)}};
    case WireChange::Kind::dropInsert: return {"Take it out of {0}", {displayName(build, change.wire)}};
    case WireChange::Kind::turnInsert: return {"Turn it round in {0}", {displayName(build, change.wire)}};
    case WireChange::Kind::liftCore: {
        const Wire *wire = findWire(build, change.wire);
        const bool there = wire && std::size_t(change.core) < wire->cores.size();
        return {
            "Lift {1} of {0}",
            {displayName(build, change.wire), there ? wire->cores[std::size_t(change.core)].fromPin : std::string()}};
    }
    case WireChange::Kind::dropStop: return {"Let {0} find its own way there", {displayName(build, change.wire)}};
    }
    return {};
}

} // namespace waxis
