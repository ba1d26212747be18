// Changes of wires, each a function Build -> Build.
#pragma once

#include "core/edits/part_edits.h"

namespace waxis {

/// A new wire between two ports with the cores that belong together; refused when nothing fits. Its name is made from
/// the parts' names.
EditResult connectPorts(const Build &build, const WireEnd &from, const WireEnd &to);

/// One pin to one pin: a core of the wire that runs between the two ports already, else a wire of its own.
EditResult connectPins(const Build &build, const WireEnd &from, const std::string &fromPin, const WireEnd &to,
                       const std::string &toPin);

EditResult removeWire(const Build &build, const std::string &wire);
/// The last core takes the wire with it.
EditResult removeCore(const Build &build, const std::string &wire, int core);
/// Leads one end of a core to another pin of the same port. Where that pin's core of this wire is, the two change
/// places.
EditResult movePin(const Build &build, const std::string &wire, int core, bool atFrom, const std::string &pin);

/// Everything of a wire but its id and ends.
EditResult changeWire(const Build &build, const std::string &wire, const Wire &next);
EditResult setGauge(const Build &build, const std::string &wire, std::optional<int> awg);
EditResult setStops(const Build &build, const std::string &wire, std::vector<RouteStop> stops);

/// Feeds `load` from another output or pack: its supply core is led to `source` (a part) and `supply` ("5V", "BAT").
/// Signals stay where they are.
EditResult moveSupply(const Build &build, const std::string &load, const std::string &source,
                      const std::string &supply);

EditResult addTie(const Build &build, const Vec3 &position_mm);
EditResult moveTie(const Build &build, const std::string &tie, const Vec3 &position_mm);
EditResult removeTie(const Build &build, const std::string &tie);
/// Of a pass-through, or of all holes in the walls of an arm.
EditResult setHoleEdge(const Build &build, const std::string &pass, HoleEdge edge);

/// Forgets stops at pass-throughs, arms and ties that are no longer there.
void dropLostStops(Build &build);

/// A change that a finding proposes.
struct WireChange {
    enum class Kind {
        gauge,
        stock,
        twist,
        grommet,
        movePin,
        supply,
        port,
        tie,
        leaveOut,
        joinPins,
        sleeve,
        tapeEdges,
        dropInsert,
        turnInsert,
        dropStop,
        liftCore
    };
    Kind kind = Kind::gauge;
    std::string wire; ///< grommet: the pass-through; supply: the load
    int gauge_AWG = 0;
    int core = 0; ///< dropInsert, turnInsert: index of the insert; dropStop: of the stop
    bool atFrom = false;
    /// supply: source and its supply; movePin: the pin; port: the port it moves to; joinPins: the pins at both ends
    std::string part, pin;
    Vec3 at_mm = Vec3::Zero(); ///< tie
};
EditResult applyWireChange(const Build &build, const WireChange &change);
/// "Use AWG 14", "Put a grommet into ..."
struct Sentence;
Sentence wordWireChange(const Build &build, const WireChange &change);

} // namespace waxis
