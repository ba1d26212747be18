// What is joined to what by wires and by the copper of boards: supplies and grounds.
#pragma once

#include "core/pins/signal.h"

#include <map>
#include <string>
#include <vector>

namespace waxis {

/// All pins of one supply (or of ground) of one part: they are one piece of copper. `supply` is "BAT", "5V"... or
/// "GND".
struct PowerNode {
    int part = 0; ///< index in Build::parts
    std::string supply;
    auto operator<=>(const PowerNode &) const = default;
};

/// A supply core between two nodes.
struct PowerEdge {
    int wire = 0; ///< index in Build::wires
    int core = 0;
    int other = 0; ///< node at the far end
};

/// The name under which a supply's pins are one node: "+", "VBAT", "VIN" and "HOT" are "BAT"; grounds are "GND". Empty
/// for signals.
std::string supplyName(const Signal &signal);

struct PowerNets {
    std::vector<PowerNode> nodes;
    std::vector<std::vector<PowerEdge>> edges; ///< by node
    std::vector<int> net;                      ///< by node: which connected piece it belongs to
    /// -1 when the part has no such supply on any port.
    int find(int part, const std::string &supply) const;
};
/// Card and lens ports play no part. What comes in by a USB socket is a supply of its own, "USB"; a power bank gives
/// its outputs there.
PowerNets powerNets(const Build &build);

/// Output of a part that a supply of its own name is: regulators, controllers, speed controllers with a regulator. Null
/// when the node is an input.
const PowerOutput *outputOf(const PartType &type, const std::string &supply);

} // namespace waxis
