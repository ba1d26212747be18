#include "core/catalog/connectors.h"

#include "core/catalog/part_bounds.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

const std::array<Vec3, kSides> kWays{Vec3(1, 0, 0),  Vec3(-1, 0, 0), Vec3(0, 1, 0),
                                     Vec3(0, -1, 0), Vec3(0, 0, 1),  Vec3(0, 0, -1)};

/// Room of a small lead plug with its first bend, of a coaxial screw-on and snap-on one; common practice, no source.
const Vec3 kLead(8, 8, 4), kScrewOn(15, 8, 8), kSnapOn(4, 4, 8);

const std::array<PinSet, 34> &table() {
    static const std::array<PinSet, 34> sets{{
        {"serial", "serial port", PortKind::socket, "5V GND TX RX", Side::fore, kLead},
        {"serial-pads", "serial port, pads", PortKind::pads, "5V GND TX RX", Side::fore},
        {"gps", "GPS with compass", PortKind::socket, "5V GND TX RX SDA SCL", Side::aft, kLead},
        {"bus", "compass and barometer bus", PortKind::pads, "5V GND SDA SCL", Side::right},
        {"channels", "receiver, a pin for each channel", PortKind::pads, "5V GND CH1 CH2 CH3 CH4", Side::fore},
        {"battery", "battery pads", PortKind::pads, "BAT GND", Side::aft},
        {"lead", "battery lead with its plug", PortKind::plug, "BAT GND", Side::aft},
        {"balance", "balance plug, four cells", PortKind::plug, "C0 C1 C2 C3 C4", Side::aft},
        {"phases", "motor phases", PortKind::pads, "A B C", Side::fore},
        {"signal", "speed controller's signal", PortKind::pads, "GND SIG TLM", Side::aft},
        {"esc", "four-in-one cable", PortKind::socket, "BAT GND M1 M2 M3 M4 CUR TLM", Side::aft, kLead},
        {"motors", "motor outputs", PortKind::pads, "GND M1 M2 M3 M4", Side::aft},
        {"servos", "servo outputs", PortKind::pads, "GND 5V S1 S2", Side::left},
        {"servo", "servo lead", PortKind::plug, "GND 5V SIG", Side::aft},
        {"camera", "analogue camera", PortKind::socket, "5V GND VIDEO", Side::aft, kLead},
        {"video", "camera and video transmitter", PortKind::pads, "5V GND CAM VTX 9V", Side::fore},
        {"vtx", "analogue video transmitter", PortKind::socket, "9V GND VIDEO TX", Side::fore, kLead},
        {"link", "digital camera cable", PortKind::socket, "LINK+ LINK- 5V GND", Side::fore, kLead},
        {"unit", "digital video unit", PortKind::socket, "BAT GND TX RX", Side::aft, kLead},
        {"lamps", "output for lamps", PortKind::pads, "5V GND LED", Side::right},
        {"lamp", "lamp input", PortKind::pads, "5V GND DIN", Side::aft},
        {"beeper", "output for a buzzer", PortKind::pads, "5V BZ-", Side::right},
        {"buzzer", "buzzer leads", PortKind::pads, "+ -", Side::aft},
        {"supply-5v", "5 V supply", PortKind::pads, "5V GND", Side::aft},
        {"supply-9v", "9 V supply", PortKind::pads, "9V GND", Side::aft},
        {"supply-12v", "12 V supply", PortKind::pads, "12V GND", Side::aft},
        {"out-5v", "5 V output", PortKind::pads, "5V GND", Side::fore},
        {"usb", "USB socket", PortKind::usb, "5V D- D+ GND", Side::left, Vec3(20, 10, 6)},
        {"card", "memory card", PortKind::card, "", Side::left, Vec3(20, 15, 6)},
        {"lens", "lens", PortKind::lens, "", Side::fore},
        {"bind", "bind button", PortKind::button, "", Side::top},
        {"antenna-snap", "antenna, micro coax", PortKind::coax, "micro-coax snap plug", Side::top, kSnapOn},
        {"antenna-sma", "antenna, SMA", PortKind::coax, "SMA", Side::aft, kScrewOn},
        {"antenna-rp-sma", "antenna, RP-SMA", PortKind::coax, "RP-SMA", Side::aft, kScrewOn},
    }};
    return sets;
}

std::vector<std::string> wordsOf(std::string_view text) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : std::string(text) + " ")
        if (std::isspace(static_cast<unsigned char>(c))) {
            if (!word.empty()) words.push_back(word);
            word.clear();
        } else {
            word += c;
        }
    return words;
}

std::string lower(std::string_view text) {
    std::string result(text);
    std::transform(result.begin(), result.end(), result.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return result;
}

/// "5v" and "5V" are one signal.
std::string upper(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return char(std::toupper(c)); });
    return text;
}

std::string freeId(std::string_view id, const PartType &type) {
    std::string candidate(id);
    const auto taken = [&] {
        return std::any_of(type.ports.begin(), type.ports.end(), [&](const Port &p) { return p.id == candidate; });
    };
    for (int n = 2; taken(); ++n) candidate = fmt::format("{}-{}", id, n);
    return candidate;
}

} // namespace

std::span<const PinSet> pinSets() { return table(); }

const PinSet *findPinSet(std::string_view id) {
    const auto at = std::find_if(table().begin(), table().end(), [&](const PinSet &set) { return set.id == id; });
    return at == table().end() ? nullptr : &*at;
}

std::vector<const PinSet *> usualPinSets(PartKind kind) {
    std::vector<std::string_view> ids;
    switch (kind) {
    case PartKind::flightController:
        ids = {"esc", "serial-pads", "video", "bus", "lamps", "beeper", "motors", "servos", "battery", "usb"};
        break;
    case PartKind::fourInOneEsc: ids = {"battery", "esc", "phases"}; break;
    case PartKind::esc: ids = {"battery", "signal", "phases"}; break;
    case PartKind::motor: ids = {"phases"}; break;
    case PartKind::battery: ids = {"lead", "balance"}; break;
    case PartKind::regulator: ids = {"battery", "out-5v"}; break;
    case PartKind::distributionBoard: ids = {"battery", "out-5v"}; break;
    case PartKind::capacitor: ids = {"battery"}; break;
    case PartKind::powerPlug: ids = {"lead", "battery"}; break;
    case PartKind::receiver: ids = {"serial-pads", "channels", "antenna-snap", "bind"}; break;
    case PartKind::videoTransmitter: ids = {"vtx", "antenna-rp-sma", "antenna-sma", "antenna-snap"}; break;
    case PartKind::digitalVideoUnit: ids = {"unit", "link", "antenna-snap", "card"}; break;
    case PartKind::antenna: ids = {"antenna-snap", "antenna-sma", "antenna-rp-sma"}; break;
    case PartKind::gps: ids = {"serial", "gps"}; break;
    case PartKind::buzzer: ids = {"buzzer", "supply-5v"}; break;
    case PartKind::lamp: ids = {"lamp", "supply-5v", "supply-12v"}; break;
    case PartKind::flightCamera: ids = {"camera", "link", "lens"}; break;
    case PartKind::payloadCamera: ids = {"lens", "supply-5v", "card"}; break;
    case PartKind::gimbal: ids = {"supply-12v", "servo", "serial-pads"}; break;
    case PartKind::servo: ids = {"servo"}; break;
    case PartKind::inlinePart:
    case PartKind::currentSensor:
    case PartKind::powerSwitch: ids = {"battery", "lead"}; break;
    case PartKind::powerBank: ids = {"usb"}; break;
    case PartKind::overlayBoard: ids = {"supply-5v", "video", "serial-pads"}; break;
    case PartKind::recorder: ids = {"supply-5v", "video", "card"}; break;
    case PartKind::packAlarm: ids = {"balance"}; break;
    case PartKind::microphone:
    case PartKind::fan: ids = {"supply-5v"}; break;
    case PartKind::propeller:
    case PartKind::mount:
    case PartKind::damper:
    case PartKind::pad:
    case PartKind::fastener:
    case PartKind::strap:
    case PartKind::tube:
    case PartKind::landingFoot:
    case PartKind::heatSink:
    case PartKind::guard:
    case PartKind::other: break;
    }
    std::vector<const PinSet *> sets;
    for (const auto id : ids) sets.push_back(findPinSet(id));
    return sets;
}

Side sideOf(const Port &port) {
    int best = 0;
    for (int side = 1; side < kSides; ++side)
        if (port.direction.dot(kWays[std::size_t(side)]) > port.direction.dot(kWays[std::size_t(best)]) + 1e-9)
            best = side;
    return Side(best);
}

void putOnSide(Port &port, Side side, const PartType &type) {
    const Vec3 way = kWays[std::size_t(side)];
    port.direction = way;
    port.position_mm = Vec3::Zero();
    const Aabb box = firmBounds(type);
    if (box.empty()) return;
    const Vec3 middle = (box.min_mm + box.max_mm) / 2, half = box.size_mm() / 2;
    // Along the edge of the side, or fore and aft on top and underneath: where the others are farthest.
    const bool flat = side == Side::top || side == Side::under;
    const Vec3 along = flat || side == Side::left || side == Side::right ? Vec3::UnitX() : Vec3::UnitY();
    constexpr std::array<double, 7> kShares{0, -0.3, 0.3, -0.6, 0.6, -0.85, 0.85};
    double most = -1;
    for (const double share : kShares) {
        const Vec3 at = middle + way.cwiseProduct(half) + along.cwiseProduct(half) * share;
        double nearest = 1e9;
        for (const auto &other : type.ports)
            if (other.id != port.id) nearest = std::min(nearest, (other.position_mm - at).norm());
        if (nearest <= most + 1e-9) continue;
        most = nearest;
        port.position_mm = at;
    }
}

Port connectorFor(const PinSet &set, const PartType &type) { return connectorFor(set, type, set.side); }

Port connectorFor(const PinSet &set, const PartType &type, Side side) {
    Port port;
    port.id = freeId(set.id, type);
    port.kind = set.kind;
    port.fullSize_mm = set.room_mm;
    port.mustStayReachable = set.kind == PortKind::usb || set.kind == PortKind::card || set.kind == PortKind::button;
    if (set.kind == PortKind::coax)
        port.connector = set.pins;
    else
        setPins(port, set.pins);
    putOnSide(port, side, type);
    return port;
}

void mendReferences(PartType &type) {
    const auto has = [&](const std::string &id) {
        return std::any_of(type.ports.begin(), type.ports.end(), [&](const Port &p) { return p.id == id; });
    };
    std::erase_if(type.leads, [&](const SuppliedLead &lead) { return !lead.port.empty() && !has(lead.port); });
    const auto coax =
        std::find_if(type.ports.begin(), type.ports.end(), [](const Port &p) { return p.kind == PortKind::coax; });
    for (auto &band : type.radio)
        if (!band.port.empty() && !has(band.port)) band.port = coax == type.ports.end() ? std::string() : coax->id;
}

std::string pinsText(const Port &port) {
    if (port.kind == PortKind::coax) return port.connector;
    std::string text;
    for (const auto &pin : port.pins) text += (text.empty() ? "" : " ") + pin.signal;
    return text;
}

bool setPins(Port &port, std::string_view text) {
    constexpr std::size_t kMost = 40, kLongest = 12;
    const auto words = wordsOf(text);
    if (port.kind == PortKind::coax) {
        constexpr std::size_t kLongestConnector = 40;
        if (text.size() > kLongestConnector) return false;
        port.connector = text;
        return true;
    }
    if (words.empty() || words.size() > kMost) return false;
    std::vector<Pin> pins;
    for (const auto &word : words) {
        const bool plain = std::all_of(word.begin(), word.end(), [](unsigned char c) {
            return std::isalnum(c) || c == '+' || c == '-' || c == '_' || c == '.';
        });
        if (!plain || word.size() > kLongest) return false;
        // What stood there keeps its level.
        const std::string signal = upper(word);
        const auto old =
            std::find_if(port.pins.begin(), port.pins.end(), [&](const Pin &pin) { return pin.signal == signal; });
        pins.push_back(old == port.pins.end() ? Pin{signal, {}, false} : *old);
    }
    port.pins = std::move(pins);
    return true;
}

std::string setConnectors(PartType &type, std::string_view text) {
    PartType next = type;
    std::erase_if(next.ports, [](const Port &port) {
        return port.kind == PortKind::pads || port.kind == PortKind::plug || port.kind == PortKind::socket ||
               port.kind == PortKind::coax;
    });
    std::string rest(text);
    std::replace(rest.begin(), rest.end(), '|', '/');
    for (std::size_t begin = 0; begin <= rest.size();) {
        const auto end = std::min(rest.find('/', begin), rest.size());
        const auto words = wordsOf(std::string_view(rest).substr(begin, end - begin));
        begin = end + 1;
        if (words.empty()) continue;
        std::string said;
        for (const auto &word : words) said += (said.empty() ? "" : " ") + word;
        const PinSet *set = nullptr;
        for (const auto &known : pinSets())
            if (lower(said) == known.id || lower(said) == lower(known.title) ||
                upper(said) == upper(std::string(known.pins))) {
                set = &known;
                break;
            }
        if (set) {
            next.ports.push_back(connectorFor(*set, next));
            continue;
        }
        const bool coax = lower(words.front()) == "coax";
        Port port = connectorFor(*findPinSet(coax ? "antenna-snap" : "serial"), next);
        const std::string pins = coax ? said.substr(std::min(said.size(), words.front().size() + 1)) : said;
        // A word that stands alone is a name that nobody knows, not a connector of one pin.
        if ((!coax && words.size() < 2) || (!pins.empty() && !setPins(port, pins)))
            return fmt::format("connectors: \"{}\" is neither a ready-made one (serial, gps, battery, esc, camera, vtx "
                               "...) nor a list of pins (5V GND TX RX).",
                               said);
        if (!coax) {
            port.id = freeId("plug", next);
            port.kind = PortKind::socket;
        }
        next.ports.push_back(std::move(port));
    }
    mendReferences(next);
    type = std::move(next);
    return {};
}

} // namespace waxis
