#include "core/edits/usual_wires.h"

#include "core/edits/wire_edits.h"
#include "core/links/link_report.h"
#include "core/radio/connector.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

class Joiner {
public:
    Joiner(Build build, std::vector<std::string> *joined) : build_(std::move(build)), joined_(joined) {}

    Build work() {
        power();
        motors();
        signals();
        antennas();
        return std::move(build_);
    }

private:
    const PartType &typeAt(const Part &part) const { return *typeOf(build_, part); }

    std::vector<std::string> ofKind(PartKind kind) const {
        std::vector<std::string> ids;
        for (const auto &part : build_.parts)
            if (const PartType *type = typeOf(build_, part); type && type->kind == kind) ids.push_back(part.id);
        return ids;
    }
    std::string firstOf(PartKind kind) const {
        const auto ids = ofKind(kind);
        return ids.empty() ? std::string() : ids.front();
    }
    bool hasPins(const Port &port, std::initializer_list<const char *> signals) const {
        return std::all_of(signals.begin(), signals.end(), [&](const char *wanted) {
            return std::any_of(port.pins.begin(), port.pins.end(), [&](const Pin &p) { return p.signal == wanted; });
        });
    }
    /// The first port with these pins and no wire on it, or (when it may be shared) any; empty id: none.
    WireEnd portWith(const std::string &part, std::initializer_list<const char *> signals, bool shared = false,
                     std::optional<PortKind> kind = {}) const {
        const Part *found = findPart(build_, part);
        if (!found) return {};
        for (const auto &port : typeAt(*found).ports) {
            const WireEnd end{part, port.id};
            if (kind && port.kind != *kind) continue;
            if (hasPins(port, signals) && (shared || !isWired(end))) return end;
        }
        return {};
    }
    bool isWired(const WireEnd &end) const {
        return std::any_of(build_.wires.begin(), build_.wires.end(),
                           [&](const Wire &w) { return w.from == end || w.to == end; });
    }
    bool areJoined(const std::string &a, const std::string &b) const {
        return std::any_of(build_.wires.begin(), build_.wires.end(), [&](const Wire &w) {
            return (w.from.part == a && w.to.part == b) || (w.from.part == b && w.to.part == a);
        });
    }
    void join(const WireEnd &from, const WireEnd &to) {
        if (from.port.empty() || to.port.empty()) return;
        auto next = connectPorts(build_, from, to);
        if (!next) return;
        build_ = std::move(*next);
        if (joined_) joined_->push_back(build_.wires.back().name);
    }

    /// These pins and no others, in one wire.
    void joinPins(const WireEnd &from, const WireEnd &to,
                  const std::vector<std::pair<std::string, std::string>> &pins) {
        Build next = build_;
        for (const auto &[a, b] : pins)
            if (auto more = connectPins(next, from, a, to, b)) next = std::move(*more);
        if (next == build_) return;
        build_ = std::move(next);
        if (joined_) joined_->push_back(build_.wires.back().name);
    }

    void power() {
        const std::string plug = firstOf(PartKind::powerPlug), four = firstOf(PartKind::fourInOneEsc),
                          board = firstOf(PartKind::distributionBoard);
        const auto singles = ofKind(PartKind::esc);
        WireEnd entry; // where the battery's current comes in
        const std::string hub = !four.empty() ? four : board;
        if (!hub.empty()) entry = portWith(hub, {"BAT", "GND"}, true);
        for (const auto &pack : ofKind(PartKind::battery)) {
            const WireEnd lead = portWith(pack, {"BAT", "GND"});
            if (lead.port.empty()) continue;
            if (!plug.empty())
                join(lead, portWith(plug, {"BAT", "GND"}, true, PortKind::plug));
            else
                join(lead, entry);
        }
        const WireEnd craft = plug.empty() ? WireEnd{} : portWith(plug, {"BAT", "GND"}, false, PortKind::pads);
        if (!craft.port.empty() && !entry.port.empty() && !areJoined(plug, hub)) join(craft, entry);
        for (const auto &esc : singles) {
            const WireEnd in = portWith(esc, {"BAT", "GND"});
            if (in.port.empty()) continue;
            // Each on its own pads of the board where it has them, else all on the plug.
            WireEnd source = board.empty() ? WireEnd{} : portWith(board, {"BAT", "GND"});
            if (source.port.empty()) source = !entry.port.empty() ? entry : craft;
            join(source, in);
        }
        // A four-in-one hands the battery on through its cable; with single ones it comes from the board or plug.
        const std::string controller = four.empty() ? firstOf(PartKind::flightController) : std::string();
        if (!controller.empty() && (board.empty() || !areJoined(board, controller))) {
            const WireEnd in = portWith(controller, {"BAT", "GND"}, false, PortKind::pads);
            WireEnd source = board.empty() ? craft : portWith(board, {"BAT", "GND"});
            if (source.port.empty()) source = entry;
            if (!in.port.empty()) join(source, in);
        }
        for (const auto &cap : ofKind(PartKind::capacitor)) {
            const WireEnd legs = portWith(cap, {"+", "-"});
            if (legs.port.empty()) continue;
            if (!entry.port.empty())
                join(legs, entry);
            else if (!singles.empty())
                join(legs, portWith(singles.front(), {"BAT", "GND"}, true));
        }
        for (const auto &regulator : ofKind(PartKind::regulator))
            if (!entry.port.empty() && !areJoined(regulator, hub)) join(entry, portWith(regulator, {"BAT", "GND"}));
    }

    void motors() {
        const std::string four = firstOf(PartKind::fourInOneEsc);
        std::vector<std::string> free = ofKind(PartKind::esc);
        for (const auto &mount : build_.frame->motorMounts)
            for (const auto &id : ofKind(PartKind::motor)) {
                const Part *motor = findPart(build_, id);
                if (motor->placement.site != mount.id) continue;
                const WireEnd leads = portWith(id, {"A", "B", "C"});
                if (leads.port.empty()) continue;
                if (!four.empty()) {
                    const WireEnd output{four, fmt::format("m{}", mount.number)};
                    const Part *esc = findPart(build_, four);
                    const bool there = std::any_of(typeAt(*esc).ports.begin(), typeAt(*esc).ports.end(),
                                                   [&](const Port &p) { return p.id == output.port; });
                    if (there && !isWired(output)) join(leads, output);
                    continue;
                }
                // The nearest single controller that drives no motor yet.
                const Vec3 at = framePose(build_, *motor).position_mm;
                std::sort(free.begin(), free.end(), [&](const std::string &a, const std::string &b) {
                    return (framePose(build_, *findPart(build_, a)).position_mm - at).norm() <
                           (framePose(build_, *findPart(build_, b)).position_mm - at).norm();
                });
                for (auto esc = free.begin(); esc != free.end(); ++esc) {
                    const WireEnd output = portWith(*esc, {"A", "B", "C"});
                    if (output.port.empty()) continue;
                    join(leads, output);
                    free.erase(esc);
                    break;
                }
            }
    }

    /// Whether a core other than power's leaves the part.
    bool hasSignal(const std::string &part) const {
        return std::any_of(build_.wires.begin(), build_.wires.end(), [&](const Wire &w) {
            if (w.from.part != part && w.to.part != part) return false;
            return std::any_of(w.cores.begin(), w.cores.end(), [&](const WireCore &core) {
                return !carriesPower(signalAt(build_, w.from, core.fromPin).kind);
            });
        });
    }
    /// To the other's port that suits best, when the two are not joined yet and a signal passes between them.
    void bySignal(const std::string &part, const std::string &other) {
        if (areJoined(part, other)) return;
        const Part *found = findPart(build_, part);
        for (const auto &port : typeAt(*found).ports) {
            if (port.pins.empty() || port.kind == PortKind::usb || isWired({part, port.id})) continue;
            const WireEnd own{part, port.id};
            const auto there = proposePort(build_, own, other);
            if (!there) continue;
            const auto cores = proposeCores(build_, own, *there);
            const bool signal = std::any_of(cores.begin(), cores.end(), [&](const WireCore &core) {
                return !carriesPower(signalAt(build_, own, core.fromPin).kind);
            });
            if (signal) return join(own, *there);
        }
    }

    /// The command of a single controller comes from the output that bears its motor's number.
    void command(const std::string &esc, const std::string &controller) {
        if (areJoined(esc, controller)) return;
        const WireEnd own = portWith(esc, {"SIG"}, true);
        const int number = numberBehind(esc);
        if (own.port.empty() || number == 0) return;
        const std::string output = fmt::format("M{}", number);
        const WireEnd there = portWith(controller, {output.c_str()}, true);
        if (there.port.empty()) return;
        const auto used = usedPins(build_, there);
        if (std::find(used.begin(), used.end(), output) != used.end()) return;
        joinPins(own, there, {{"SIG", output}, {"GND", "GND"}});
    }
    /// The number of the mount whose motor hangs on this controller; 0: none.
    int numberBehind(const std::string &esc) const {
        for (const auto &wire : build_.wires) {
            const std::string &other = wire.from.part == esc ? wire.to.part : wire.from.part;
            if (wire.from.part != esc && wire.to.part != esc) continue;
            for (const auto &mount : build_.frame->motorMounts)
                if (const Part *motor = findPart(build_, other);
                    motor && typeAt(*motor).kind == PartKind::motor && motor->placement.site == mount.id)
                    return mount.number;
        }
        return 0;
    }

    void signals() {
        const std::string controller = firstOf(PartKind::flightController);
        if (controller.empty()) return;
        for (const auto &esc : ofKind(PartKind::fourInOneEsc))
            if (!areJoined(esc, controller)) join(portWith(esc, {"M1", "M2"}), portWith(controller, {"M1", "M2"}));
        for (const auto &esc : ofKind(PartKind::esc)) command(esc, controller);
        for (const auto kind : {PartKind::flightCamera, PartKind::videoTransmitter, PartKind::digitalVideoUnit,
                                PartKind::receiver, PartKind::gps, PartKind::buzzer, PartKind::lamp})
            for (const auto &id : ofKind(kind)) bySignal(id, controller);
        // A digital camera, or one whose controller takes no picture, goes straight to the transmitter.
        for (const auto &camera : ofKind(PartKind::flightCamera))
            for (const auto kind : {PartKind::digitalVideoUnit, PartKind::videoTransmitter})
                for (const auto &sender : ofKind(kind))
                    if (!hasSignal(camera)) bySignal(camera, sender);
        // A receiver of positions with a compass speaks over two buses, which are two ports of the controller; the
        // power came with the first.
        for (const auto &gps : ofKind(PartKind::gps)) {
            alsoBus(gps, controller, {{"TX", "RX"}, {"RX", "TX"}});
            alsoBus(gps, controller, {{"SDA", "SDA"}, {"SCL", "SCL"}});
        }
    }
    void alsoBus(const std::string &part, const std::string &controller,
                 const std::vector<std::pair<std::string, std::string>> &pins) {
        const char *a = pins[0].first.c_str(), *b = pins[1].first.c_str();
        const WireEnd own = portWith(part, {a, b}, true), there = portWith(controller, {a, b}, pins[0].first == "SDA");
        if (own.port.empty() || there.port.empty()) return;
        const auto used = usedPins(build_, own);
        if (std::find(used.begin(), used.end(), pins[0].first) == used.end()) joinPins(own, there, pins);
    }

    void antennas() {
        for (const auto &id : ofKind(PartKind::antenna)) {
            const Part *part = findPart(build_, id);
            const PartType &type = typeAt(*part);
            if (!type.antenna) continue;
            WireEnd feed;
            for (const auto &port : type.ports)
                if (port.kind == PortKind::coax) feed = {id, port.id};
            if (feed.port.empty() || isWired(feed) || isPluggedOn(*part)) continue;
            const CoaxConnector own = coaxConnectorOf(type.antenna->connector);
            for (const auto &radio : build_.parts) {
                const PartType *board = typeOf(build_, radio);
                if (!board || board->radio.empty() || radio.id == id) continue;
                const bool band = std::any_of(board->radio.begin(), board->radio.end(), [&](const RadioBand &b) {
                    return b.low_MHz < type.antenna->high_MHz && b.high_MHz > type.antenna->low_MHz;
                });
                if (!band) continue;
                bool done = false;
                for (const auto &port : board->ports) {
                    const WireEnd there{radio.id, port.id};
                    if (port.kind != PortKind::coax || isWired(there)) continue;
                    if (mating(own, coaxConnectorOf(port.connector)) != Mating::mates) continue;
                    join(there, feed);
                    done = true;
                    break;
                }
                if (done) break;
            }
        }
    }

    /// Screwed straight onto its radio: no cable.
    bool isPluggedOn(const Part &antenna) const {
        return std::any_of(antenna.fastening.onto.begin(), antenna.fastening.onto.end(), [&](const std::string &id) {
            const Part *other = findPart(build_, id);
            return other && !typeAt(*other).radio.empty();
        });
    }

    Build build_;
    std::vector<std::string> *joined_;
};

} // namespace

Build joinWhatFits(const Build &build, std::vector<std::string> *joined) { return Joiner(build, joined).work(); }

} // namespace waxis
