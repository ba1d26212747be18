#include "core/pins/nets.h"

#include <algorithm>
#include <cmath>

namespace waxis {

std::string supplyName(const Signal &signal) {
    if (signal.kind == SignalKind::ground) return "GND";
    if (signal.kind == SignalKind::buzzer) return "BZ-";
    if (signal.kind != SignalKind::supply) return {};
    return signal.supply_V ? signal.plain : "BAT";
}

int PowerNets::find(int part, const std::string &supply) const {
    const auto at = std::lower_bound(nodes.begin(), nodes.end(), PowerNode{part, supply});
    return at != nodes.end() && at->part == part && at->supply == supply ? int(at - nodes.begin()) : -1;
}

PowerNets powerNets(const Build &build) {
    PowerNets nets;
    std::map<std::string, int, std::less<>> partIndex;
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        partIndex.emplace(build.parts[i].id, int(i));
        const PartType *type = typeOf(build, build.parts[i]);
        if (!type) continue;
        for (const auto &port : type->ports) {
            if (port.kind == PortKind::usb || port.kind == PortKind::card || port.kind == PortKind::lens) continue;
            for (const auto &pin : port.pins)
                if (auto name = supplyName(signalOf(pin.signal)); !name.empty())
                    nets.nodes.push_back({int(i), std::move(name)});
        }
    }
    std::sort(nets.nodes.begin(), nets.nodes.end());
    nets.nodes.erase(std::unique(nets.nodes.begin(), nets.nodes.end()), nets.nodes.end());
    nets.edges.resize(nets.nodes.size());
    for (std::size_t w = 0; w < build.wires.size(); ++w) {
        const Wire &wire = build.wires[w];
        const auto from = partIndex.find(wire.from.part), to = partIndex.find(wire.to.part);
        if (from == partIndex.end() || to == partIndex.end()) continue;
        for (std::size_t c = 0; c < wire.cores.size(); ++c) {
            const int a = nets.find(from->second, supplyName(signalOf(wire.cores[c].fromPin)));
            const int b = nets.find(to->second, supplyName(signalOf(wire.cores[c].toPin)));
            if (a < 0 || b < 0) continue;
            nets.edges[std::size_t(a)].push_back({int(w), int(c), b});
            nets.edges[std::size_t(b)].push_back({int(w), int(c), a});
        }
    }
    nets.net.assign(nets.nodes.size(), -1);
    int count = 0;
    for (std::size_t start = 0; start < nets.nodes.size(); ++start) {
        if (nets.net[start] >= 0) continue;
        std::vector<int> todo{int(start)};
        nets.net[start] = count;
        while (!todo.empty()) {
            const int node = todo.back();
            todo.pop_back();
            for (const auto &edge : nets.edges[std::size_t(node)])
                if (nets.net[std::size_t(edge.other)] < 0) {
                    nets.net[std::size_t(edge.other)] = count;
                    todo.push_back(edge.other);
                }
        }
        ++count;
    }
    return nets;
}

const PowerOutput *outputOf(const PartType &type, const std::string &supply) {
    if (!type.electrical || supply == "GND" || supply == "BAT") return nullptr;
    const auto volts = signalOf(supply).supply_V;
    if (!volts) return nullptr;
    for (const auto &output : type.electrical->outputs)
        if (std::abs(output.voltage_V - *volts) < 0.05) return &output;
    return nullptr;
}

} // namespace waxis
