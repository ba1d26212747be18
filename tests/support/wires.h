// Small wired builds for tests.
#pragma once

#include "core/edits/wire_edits.h"
#include "support/builds.h"

namespace waxis::test {

inline Port portAt(const std::string &id, Vec3 position, Vec3 direction, std::vector<std::string> names,
                   PortKind kind = PortKind::pads) {
    Port port;
    port.id = id;
    port.kind = kind;
    port.position_mm = position;
    port.direction = direction;
    for (const auto &name : names) port.pins.push_back({name, {}, false});
    return port;
}

/// A small box with one port on its side.
inline void addBoard(Build &build, const std::string &id, Vec3 at, std::vector<Port> ports,
                     PartKind kind = PartKind::other, std::optional<Electrical> electrical = {}) {
    addBox(build, id, {10, 10, 4}, at, 5, kind);
    build.types.edit([&](TypeTable &types) {
        auto &type = typeIn(types, id);
        type.ports = std::move(ports);
        type.electrical = electrical;
    });
}

inline Wire wireBetween(const std::string &id, WireEnd from, WireEnd to,
                        std::vector<std::pair<std::string, std::string>> pins) {
    Wire wire;
    wire.id = id;
    wire.name = id;
    wire.from = std::move(from);
    wire.to = std::move(to);
    for (auto &[a, b] : pins) wire.cores.push_back({a, b, {}, {}});
    return wire;
}

inline Electrical takes(double least_V, double most_V, double typical_A, double peak_A) {
    Electrical e;
    e.supplyMin_V = least_V;
    e.supplyMax_V = most_V;
    e.typical_A = catalogueValue(typical_A);
    e.peak_A = catalogueValue(peak_A);
    return e;
}

inline Electrical pack(int cells, double capacity_mAh, double continuous_A) {
    Electrical e;
    e.cells = cells;
    e.capacity_mAh = capacity_mAh;
    e.continuous_A = continuous_A;
    e.cellFull_V = 4.2;
    return e;
}

inline Electrical regulator(double volts, double limit_A, std::optional<double> efficiency) {
    Electrical e;
    e.supplyMin_V = volts + 1;
    e.supplyMax_V = 60;
    e.outputs.push_back({"out", volts, limit_A, efficiency});
    return e;
}

} // namespace waxis::test
