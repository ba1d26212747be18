// Connectors with the pins that such parts usually have, and on which side of the part one sits.
#pragma once

#include "core/catalog/part_type.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

enum class Side { fore, aft, left, right, top, under };
inline constexpr int kSides = 6;

/// A ready-made connector. The pins are customs of the trade, no source.
struct PinSet {
    std::string_view id;    ///< of the port that it becomes: "serial", "battery" ...
    std::string_view title; ///< as one says it at the bench
    PortKind kind = PortKind::pads;
    std::string_view pins; ///< signals with a blank between; of coaxial ones the connector
    Side side = Side::fore;
    Vec3 room_mm = Vec3::Zero(); ///< see Port::fullSize_mm
};

/// All of them.
std::span<const PinSet> pinSets();
/// Those that a part of this kind usually has, one of each, in the order in which one looks for them.
std::vector<const PinSet *> usualPinSets(PartKind kind);
const PinSet *findPinSet(std::string_view id);

/// The side that the port looks to; the nearest of the six.
Side sideOf(const Port &port);
/// Puts the port onto that side, where the other ports leave most room; a part without firm bodies has it in its
/// middle.
void putOnSide(Port &port, Side side, const PartType &type);
/// A connector for the part, with an id of its own there. It is not added.
Port connectorFor(const PinSet &set, const PartType &type);
Port connectorFor(const PinSet &set, const PartType &type, Side side);

/// After connectors were taken out: supplied leads of those go too, bands whose antenna port is gone take the first
/// coaxial one that is left (none: an antenna on the board).
void mendReferences(PartType &type);

/// The pins as one types them: "5V GND TX RX"; of coaxial ones the connector.
std::string pinsText(const Port &port);
/// Reads them back; false, and the port is as it was, for none or more than 40 pins, signs that no signal has, and
/// signals of more than 12 letters.
bool setPins(Port &port, std::string_view text);

/// Connectors out of one cell of a table, with "/" or "|" between: the id or title of a ready-made one, or its pins
/// ("5V GND TX RX"), or "coax" with a connector behind it. They take the place of the type's plugs, sockets, pads and
/// coaxial connectors; lens, card, buttons and USB stay. What cannot be read is returned as a sentence, and the type
/// is as it was.
std::string setConnectors(PartType &type, std::string_view text);

} // namespace waxis
