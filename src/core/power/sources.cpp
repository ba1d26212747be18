// Who gives: packs, power banks, a computer's socket, and what regulators make of them. A regulator gives while it is
// fed itself.
#include "core/power/circuit.h"

#include <algorithm>

namespace waxis {

namespace {

// A port of a computer: USB 2.0, 4.75 to 5.25 V, 500 mA (universal serial bus specification 2.0, section 7.2, from
// memory).
constexpr double kUsbLeast_V = 4.75, kUsb_V = 5, kUsbMost_V = 5.25, kUsbLimit_A = 0.5;

} // namespace

void Circuit::addRail(int node, Rail rail) {
    sourceRail_.emplace(node, int(report_.rails.size()));
    sourceNode_.push_back(node);
    report_.rails.push_back(std::move(rail));
}

void Circuit::findSources() {
    const auto &nodes = report_.nets.nodes;
    for (std::size_t n = 0; n < nodes.size(); ++n) {
        const PartType &type = typeAt(nodes[n].part);
        if (type.kind != PartKind::battery || nodes[n].supply != "BAT" || !type.electrical) continue;
        Rail rail;
        rail.part = idAt(nodes[n].part);
        rail.output = "BAT";
        const CellVolts volts = cellVolts(*type.electrical);
        const int cells = type.electrical->cells.value_or(0);
        rail.least_V = cells * volts.empty_V;
        rail.nominal_V = cells * volts.nominal_V;
        rail.most_V = cells * volts.full_V;
        rail.limit_A = type.electrical->continuous_A;
        addRail(int(n), std::move(rail));
    }
    for (std::size_t n = 0; n < nodes.size(); ++n) {
        const PowerOutput *output = outputOf(typeAt(nodes[n].part), nodes[n].supply);
        if (!output) continue;
        Rail rail;
        rail.part = idAt(nodes[n].part);
        rail.output = output->id;
        rail.least_V = rail.nominal_V = rail.most_V = output->voltage_V;
        rail.limit_A = output->limit_A;
        addRail(int(n), std::move(rail));
    }
    // A computer on the socket of what a load case names.
    for (std::size_t n = 0; n < nodes.size(); ++n) {
        if (nodes[n].supply != "USB") continue;
        const std::string &id = idAt(nodes[n].part);
        if (std::none_of(loadCases_.begin(), loadCases_.end(), [&](const LoadCase &c) { return c.usb == id; }))
            continue;
        Rail rail;
        rail.part = id;
        rail.output = "USB";
        rail.least_V = kUsbLeast_V;
        rail.nominal_V = kUsb_V;
        rail.most_V = kUsbMost_V;
        rail.limit_A = kUsbLimit_A;
        addRail(int(n), std::move(rail));
    }
}

/// Whether some source that gives reaches an input of the part: "USB" feeds no more than 5 V.
bool Circuit::isFed(int part, double output_V) {
    bool asked = false, wired = false;
    for (std::size_t n = 0; n < report_.nets.nodes.size(); ++n) {
        const PowerNode &node = report_.nets.nodes[n];
        if (node.part != part || node.supply == "GND" || node.supply == "BZ-" || outputOf(typeAt(part), node.supply))
            continue;
        const bool usb = node.supply == "USB";
        if (usb && output_V > kUsbMost_V) continue;
        if (!usb) {
            asked = true;
            wired |= !report_.nets.edges[n].empty();
        }
        for (std::size_t r = 0; r < report_.rails.size(); ++r) {
            if (report_.nets.net[std::size_t(sourceNode_[r])] != report_.nets.net[n] || !gives(int(r))) continue;
            std::vector<int> order;
            if (reached(sourceNode_[r], order).contains(int(n))) return true;
        }
    }
    // Where nobody has wired the input yet, its loads are worked out as they will be.
    return !asked || (!wired && loadCases_[case_].usb.empty());
}

bool Circuit::gives(int index) {
    if (const auto known = gives_.find(index); known != gives_.end()) return known->second;
    const Rail &rail = report_.rails[std::size_t(index)];
    const int part = partIndex_.at(rail.part);
    const LoadCase &now = loadCases_[case_];
    if (!isHere(part)) return gives_[index] = false;
    if (rail.output == "USB") return gives_[index] = now.usb == rail.part;
    const PartKind kind = typeAt(part).kind;
    if (kind == PartKind::powerBank) return gives_[index] = true;
    // On the bench with the computer's cable the pack is off, unless the case names it.
    if (kind == PartKind::battery) return gives_[index] = now.usb.empty() || now.battery == rail.part;
    gives_[index] = false; // a regulator that feeds itself gives nothing
    return gives_[index] = isFed(part, rail.nominal_V);
}

/// All copper that is aboard and joined to a node, nearest first, and whence it was reached.
std::map<int, Circuit::Came> Circuit::reached(int node, std::vector<int> &order) const {
    std::map<int, Came> came{{node, {}}};
    order = {node};
    for (std::size_t at = 0; at < order.size(); ++at)
        for (const auto &edge : report_.nets.edges[std::size_t(order[at])])
            if (isHere(report_.nets.nodes[std::size_t(edge.other)].part) &&
                came.emplace(edge.other, Came{order[at], edge.wire, edge.core}).second)
                order.push_back(edge.other);
    return came;
}

/// Whether a part's ground is joined to that of the source; parts or sources without a ground pin are not asked.
bool Circuit::sharesGround(int part, int sourceNode) const {
    const auto &nets = report_.nets;
    const int own = nets.find(part, "GND"), back = nets.find(nets.nodes[std::size_t(sourceNode)].part, "GND");
    if (own < 0 || back < 0 || nets.net[std::size_t(own)] == nets.net[std::size_t(back)]) return true;
    // A buzzer's minus is switched by the controller.
    for (std::size_t n = 0; n < nets.nodes.size(); ++n)
        if (nets.nodes[n].supply == "BZ-" && nets.net[n] == nets.net[std::size_t(own)]) return true;
    return false;
}

} // namespace waxis
