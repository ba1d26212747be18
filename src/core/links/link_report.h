// What talks to what: faults of connections, and which ports are left.
#pragma once

#include "core/build/build.h"
#include "core/pins/signal.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class LinkFault {
    sameWay,      ///< transmit to transmit, receive to receive, data to clock, video out to video out
    mismatch,     ///< signals that have nothing to do with each other
    noPin,        ///< the port has no such pin
    usedTwice,    ///< a signal pin with two wires
    level,        ///< 5 V into a 3.3 V input
    inversion,    ///< one end idles low, the other high
    noGround,     ///< no ground between two ends of a signal
    halfBus,      ///< one of the two bus wires only
    noCompass,    ///< a compass whose bus is not connected
    shortCircuit, ///< supply to ground
    cannotAnswer, ///< a control wire on a pin that only listens
    boot,         ///< a pin that is held at power-on
    balanceTap,   ///< a load that is fed at the balance plug
    halfSerial    ///< one of the two wires of a serial link only
};

struct LinkFinding {
    LinkFault fault = LinkFault::mismatch;
    std::vector<std::string> wires;
    std::string part, port, pin; ///< where; of half a serial link the device, and its pin that is left
    std::string fromPin, toPin;
    double value = 0, limit = 0; ///< volts where they matter; of half a serial link 1: it tells and does not hear
    int core = -1;
};

/// One serial port of a controller.
struct SerialPort {
    std::string part, port;
    std::string usedBy; ///< part; empty: free
};

/// A motor output and where it ends.
struct MotorLink {
    std::string mount;
    int number = 0;     ///< by the frame's numbering
    std::string output; ///< pin of the controller that ends at this motor's speed controller; empty: none
    std::string esc;
};

/// A channel on its way from the receiver to what it moves: by a wire each, or in order within a serial link.
struct ChannelLink {
    std::string from, to; ///< "rx/CH1", "fc/CH1"
    std::string fromPart, toPart;
    ChannelFunction sent = ChannelFunction::none, wanted = ChannelFunction::none; ///< none: not stated
    bool isCrossed() const {
        return sent != ChannelFunction::none && wanted != ChannelFunction::none && sent != wanted;
    }
};

struct LinkReport {
    std::vector<LinkFinding> faults;
    std::vector<SerialPort> serial; ///< of all controllers
    std::vector<MotorLink> motors;
    std::vector<ChannelLink> channels;
    std::vector<ChannelFunction> wanted; ///< by what is aboard, each once: flight, mode, gimbal axes, lamps...
    int freeSerial = 0;
};

LinkReport linkReport(const Build &build);

/// Cores that join two ports as they should be joined: grounds, supplies of the same voltage, transmit with receive,
/// bus, video, motor output `number` with a speed controller's input. Pins that other wires already use are left out.
std::vector<WireCore> proposeCores(const Build &build, const WireEnd &from, const WireEnd &to);

/// The port of `part` that suits `end` best, with nothing on it yet: a free serial port for a serial end, a bus for a
/// bus.
std::optional<WireEnd> proposePort(const Build &build, const WireEnd &end, const std::string &part);

/// Pins of a port that some wire ends at, but not `exceptWire`.
std::vector<std::string> usedPins(const Build &build, const WireEnd &end, const std::string &exceptWire = {});

/// What a part asks of the rest: serial ports, supply range, and what is still free for it.
struct PortNeeds {
    int serial = 0;
    bool bus = false, video = false;
    std::optional<double> least_V, most_V;
    double peak_A = 0;
    std::vector<std::string> freeSerial; ///< "fc/uart3"
    std::vector<std::string> supplies;   ///< "fc/5V" and packs, whose voltage suits
};
PortNeeds needsOf(const Build &build, const PartType &type);

} // namespace waxis
