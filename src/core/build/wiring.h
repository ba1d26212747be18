// Wires: what connects which pins, where it is led, and from what it is made.
#pragma once

#include "core/geometry/pose.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// How the cores of one wire lie together.
enum class WireLay { loose, twisted, shielded, flat, coax };

/// From what it is made. `asSupplied`: the lead that came with one of its ends, else from stock.
enum class WireMake { asSupplied, stock, readyMade };

struct WireEnd {
    std::string part;
    std::string port;
    bool operator==(const WireEnd &) const = default;
};

/// One conductor. Pins are named by their signals; where a port has a signal twice, "GND#2" is the second.
struct WireCore {
    std::string fromPin, toPin;
    std::optional<int> gauge_AWG; ///< none: the wire's
    std::string colour;           ///< empty: the custom of its signal
    bool operator==(const WireCore &) const = default;
};

/// A place that the wire is led by: a pass-through, arm or tie by id, or a free point in the frame's axes.
struct RouteStop {
    std::string at;
    Vec3 point_mm = Vec3::Zero(); ///< used when `at` is empty
    bool operator==(const RouteStop &) const = default;
};

/// Something that sits in a core of a wire: a fuse, a diode, a capacitor in series.
struct WireInsert {
    std::string type;    ///< id of a part type
    int core = 0;        ///< index in Wire::cores; -1: round all of them, as ferrites are
    double at = 0.5;     ///< where, as a share of the way
    bool turned = false; ///< diodes: against the way from `from` to `to`
    bool operator==(const WireInsert &) const = default;
};

/// What is put on an end where neither the part's lead nor the cable brings it.
struct WirePlug {
    std::string family;          ///< as Port::connector
    int ways = 0;                ///< 0: as many as the port has pins
    bool turned = false;         ///< put on the other way round
    std::optional<Vec3> size_mm; ///< along the lead, across, in height
    bool operator==(const WirePlug &) const = default;
};

/// Conductors that run together from one port to another: one route, one row of the cut list for each core.
struct Wire {
    std::string id;
    std::string name;
    WireEnd from, to;
    std::vector<WireCore> cores;
    WireLay lay = WireLay::loose;
    std::optional<int> gauge_AWG; ///< none: the supplied lead's, else as thick as its signals usually are
    double twistPitch_mm = 0;     ///< twisted: length of one turn; 0: the usual eight diameters
    WireMake make = WireMake::asSupplied;
    std::optional<double> readyMade_mm; ///< length of the ready-made cable at hand
    std::vector<RouteStop> stops;       ///< in order from `from`
    std::string bundle;                 ///< wires with the same word here are led together
    int splices = 0;
    bool sleeved = false;
    bool edgesTaped = false; ///< the edges that it lies on are taped over
    std::vector<WireInsert> inserts;
    std::optional<WirePlug> fromPlug, toPlug;

    // Copied in a hundred files; the code of it is made in one.
    Wire();
    Wire(const Wire &);
    Wire(Wire &&) noexcept;
    Wire &operator=(const Wire &);
    Wire &operator=(Wire &&) noexcept;
    ~Wire();
    bool operator==(const Wire &) const;
};

/// Where wires are tied down to the frame.
struct TiePoint {
    std::string id;
    Vec3 position_mm = Vec3::Zero();
    bool operator==(const TiePoint &) const = default;
};

} // namespace waxis
