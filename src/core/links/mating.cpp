#include "core/links/mating.h"

#include "core/catalog/plug_body.h"
#include "core/pins/signal.h"

#include <algorithm>
#include <cmath>

namespace waxis {

static const SuppliedLead *leadOf(const Build &build, const WireEnd &end) {
    const Part *part = findPart(build, end.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type) return nullptr;
    const auto at = std::find_if(type->leads.begin(), type->leads.end(),
                                 [&](const SuppliedLead &lead) { return lead.port == end.port; });
    return at == type->leads.end() ? nullptr : &*at;
}

std::optional<PlugOnWire> plugOn(const Build &build, const Wire &wire, bool atFrom) {
    if (const auto &own = atFrom ? wire.fromPlug : wire.toPlug)
        return PlugOnWire{own->family, own->ways, own->turned, own->size_mm};
    // The far end of the lead that came with the other part.
    if (wire.make != WireMake::asSupplied) return std::nullopt;
    const SuppliedLead *lead = leadOf(build, atFrom ? wire.to : wire.from);
    if (!lead || lead->plug.empty()) return std::nullopt;
    return PlugOnWire{lead->plug, int(lead->pins.size()), false, lead->plugSize_mm};
}

std::optional<Vec3> plugBodyOn(const Build &build, const Wire &wire, bool atFrom) {
    const auto plug = plugOn(build, wire, atFrom);
    if (plug && plug->size_mm) return plug->size_mm;
    // What the builder crimps is threaded bare; a ready-made cable comes with what goes into its sockets.
    if (!plug && wire.make != WireMake::readyMade) return std::nullopt;
    const Port *port = portOf(build, atFrom ? wire.from : wire.to);
    if (!port) return std::nullopt;
    return plugBody_mm(plug && !plug->family.empty() ? plug->family : port->connector,
                       plug && plug->ways > 0 ? plug->ways : int(port->pins.size()));
}

std::vector<TurnedPins> turnedPins(const Port &port) {
    std::vector<TurnedPins> list;
    const auto rows = std::size_t(std::max(1, port.rows));
    const std::size_t count = port.pins.size(), columns = count / rows;
    if (columns * rows != count) return list;
    // Turned about its middle the first pin of the first row comes to lie on the last of the last.
    for (std::size_t p = 0; p < count; ++p)
        if (const std::size_t other = count - 1 - p; port.pins[p].signal != port.pins[other].signal)
            list.push_back({pinName(port, p), pinName(port, other)});
    return list;
}

bool passes(const Vec3 &plug, const Vec2 &sides, double circle_mm) {
    // The smallest face goes first.
    std::array<double, 3> own{plug.x(), plug.y(), plug.z()};
    std::sort(own.begin(), own.end());
    const double low = std::min(sides.x(), sides.y()), high = std::max(sides.x(), sides.y());
    return (own[0] <= low && own[1] <= high) || std::hypot(own[0], own[1]) <= circle_mm;
}

} // namespace waxis
