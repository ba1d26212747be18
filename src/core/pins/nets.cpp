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

static std::string supplyAt(const PartType &type, const Port &port, std::size_t pin) {
    const Signal signal = signalAt(type, port, pin);
    if (port.kind == PortKind::usb && signal.kind == SignalKind::supply && type.kind != PartKind::powerBank)
        return "USB";
    return supplyName(signal);
}

static std::string supplyAt(const PartType *type, const WireEnd &end, std::string_view pin) {
    const Port *port = type ? findPort(*type, end.port) : nullptr;
    const int index = port ? pinIndex(*port, pin) : -1;
    return index < 0 ? supplyName(signalOf(pin)) : supplyAt(*type, *port, std::size_t(index));
}

PowerNets powerNets(const Build &build) {
    PowerNets nets;
    std::map<std::string, int, std::less<>> partIndex;
    std::vector<const PartType *> types;
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        partIndex.emplace(build.parts[i].id, int(i));
        types.push_back(typeOf(build, build.parts[i]));
        const PartType *type = types.back();
        if (!type) continue;
        for (const auto &port : type->ports) {
            if (port.kind == PortKind::card || port.kind == PortKind::lens) continue;
            for (std::size_t p = 0; p < port.pins.size(); ++p)
                if (auto name = supplyAt(*type, port, p); !name.empty())
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
            const int a =
                nets.find(from->second, supplyAt(types[std::size_t(from->second)], wire.from, wire.cores[c].fromPin));
            const int b = nets.find(to->second, supplyAt(types[std::size_t(to->second)], wire.to, wire.cores[c].toPin));
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

/// Whether every pin of that supply says that it takes it.
static bool onlyTakes(const PartType &type, const std::string &supply) {
    bool takes = false;
    for (const auto &port : type.ports)
        for (std::size_t p = 0; p < port.pins.size(); ++p) {
            if (supplyName(signalAt(type, port, p)) != supply) continue;
            if (port.pins[p].kind != SignalKind::supplyIn) return false;
            takes = true;
        }
    return takes;
}

const PowerOutput *outputOf(const PartType &type, const std::string &supply) {
    if (!type.electrical || supply == "GND" || supply == "BAT") return nullptr;
    const auto volts = signalOf(supply).supply_V;
    if (!volts) return nullptr;
    for (const auto &output : type.electrical->outputs)
        if (std::abs(output.voltage_V - *volts) < 0.05) return onlyTakes(type, supply) ? nullptr : &output;
    return nullptr;
}

} // namespace waxis
