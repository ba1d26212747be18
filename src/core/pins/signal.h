// What a pin's name says: which kind of signal it is and at what voltage.
#pragma once

#include "core/build/build.h"
#include "core/catalog/signal_kind.h"

#include <optional>
#include <string>
#include <string_view>

namespace waxis {

/// Which way a supply pin goes, where the part says so.
enum class SupplyWay { unstated, in, out };

struct Signal {
    SignalKind kind = SignalKind::other;
    std::optional<double> supply_V; ///< supplies with a fixed voltage; none: the pack's
    int number = 0;                 ///< of motor, servo, channel or cell
    std::string plain;              ///< the name without "#2"
    SupplyWay way = SupplyWay::unstated;
};

/// By the custom of the trade (no source): GND, -, BAT, +, 5V, 3V3, TX, RX, SDA, SCL, M1, S1, SIG, CH1, VIDEO, CAM,
/// VTX, LINK+, TLM, CUR, LED, DIN, BZ-, C0, D+, A, B, C. Anything else is `other`.
Signal signalOf(std::string_view pin);
/// Of a pin where it is: what the part type states, else the name, read by what the part is (VIDEO comes out of a
/// camera and goes into a sender; a sender's only serial wire is its control wire). Names that the port has not: by the
/// name.
Signal signalAt(const PartType &type, const Port &port, std::string_view pin);
Signal signalAt(const PartType &type, const Port &port, std::size_t pin);
/// The same for an end of a wire; by the name alone when part or port is not there.
Signal signalAt(const Build &build, const WireEnd &end, std::string_view pin);

/// What a wire of such signals is for: the one that matters most of its cores.
enum class WireRole { power, ground, signal, video, coax, phase, servo, balance };
WireRole roleOf(const Build &build, const Wire &wire);
bool carriesPower(SignalKind kind);
bool isVideo(SignalKind kind);

/// The colour that such a core usually has; a person may choose otherwise.
std::string_view customaryColour(const Signal &signal);

const Port *findPort(const PartType &type, const std::string &port);
/// Null when part, type or port is not there.
const Port *portOf(const Build &build, const WireEnd &end);
/// Index of a pin by its name ("GND", "GND#2"); -1 when the port has no such pin.
int pinIndex(const Port &port, std::string_view pin);
/// The name by which wires call the pin: its signal, with "#2" for the second of the same.
std::string pinName(const Port &port, std::size_t index);

} // namespace waxis
