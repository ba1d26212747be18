#include "core/pins/signal.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>

namespace waxis {

namespace {

std::string upper(std::string_view text) {
    std::string result(text);
    std::transform(result.begin(), result.end(), result.begin(), [](unsigned char c) { return char(std::toupper(c)); });
    return result;
}

/// The number behind a prefix: "M3" with "M" is 3; 0 when it is something else.
int numberBehind(std::string_view text, std::string_view prefix) {
    if (text.size() <= prefix.size() || !text.starts_with(prefix)) return 0;
    int number = 0;
    const auto [end, error] = std::from_chars(text.data() + prefix.size(), text.data() + text.size(), number);
    return error == std::errc{} && end == text.data() + text.size() ? number : 0;
}

/// "5V", "3V3", "12V", "9.5V" in volts.
std::optional<double> voltsIn(std::string_view text) {
    const auto v = text.find('V');
    if (v == std::string_view::npos || v == 0) return std::nullopt;
    double whole = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + v, whole);
    if (error != std::errc{} || end != text.data() + v) return std::nullopt;
    if (v + 1 == text.size()) return whole;
    int tenth = 0;
    const auto [last, wrong] = std::from_chars(text.data() + v + 1, text.data() + text.size(), tenth);
    if (wrong != std::errc{} || last != text.data() + text.size() || tenth > 9) return std::nullopt;
    return whole + tenth / 10.0;
}

struct NamedKind {
    std::string_view name;
    SignalKind kind;
};
constexpr std::array<NamedKind, 30> kNames{
    {{"GND", SignalKind::ground},    {"-", SignalKind::ground},        {"BAT", SignalKind::supply},
     {"VBAT", SignalKind::supply},   {"+", SignalKind::supply},        {"A", SignalKind::phase},
     {"B", SignalKind::phase},       {"C", SignalKind::phase},         {"TX", SignalKind::serialTx},
     {"RX", SignalKind::serialRx},   {"SDA", SignalKind::busData},     {"SCL", SignalKind::busClock},
     {"SIG", SignalKind::pulse},     {"VIDEO", SignalKind::video},     {"CAM", SignalKind::video},
     {"VTX", SignalKind::video},     {"LINK+", SignalKind::videoLink}, {"LINK-", SignalKind::videoLink},
     {"TLM", SignalKind::telemetry}, {"CUR", SignalKind::current},     {"LED", SignalKind::lampData},
     {"DIN", SignalKind::lampData},  {"DOUT", SignalKind::lampData},   {"BZ-", SignalKind::buzzer},
     {"D+", SignalKind::usb},        {"D-", SignalKind::usb},          {"VIN", SignalKind::supply},
     {"HOT", SignalKind::supply},    {"G", SignalKind::ground},        {"MINUS", SignalKind::ground}}};

} // namespace

Signal signalOf(std::string_view pin) {
    Signal signal;
    const auto hash = pin.find('#');
    signal.plain = std::string(pin.substr(0, hash));
    const std::string name = upper(signal.plain);
    const auto at = std::find_if(kNames.begin(), kNames.end(), [&](const NamedKind &n) { return n.name == name; });
    if (at != kNames.end()) {
        signal.kind = at->kind;
        return signal;
    }
    if (const auto volts = voltsIn(name)) {
        signal.kind = SignalKind::supply;
        signal.supply_V = volts;
        return signal;
    }
    constexpr std::array<std::pair<std::string_view, SignalKind>, 5> kCounted{{{"M", SignalKind::motor},
                                                                               {"S", SignalKind::servo},
                                                                               {"CH", SignalKind::channel},
                                                                               {"TX", SignalKind::serialTx},
                                                                               {"RX", SignalKind::serialRx}}};
    for (const auto &[prefix, kind] : kCounted)
        if (const int number = numberBehind(name, prefix)) {
            signal.kind = kind;
            signal.number = number;
            return signal;
        }
    if (name == "C0" || numberBehind(name, "C")) {
        signal.kind = SignalKind::cell;
        signal.number = numberBehind(name, "C");
    }
    return signal;
}

namespace {

/// A supply is one whichever way it goes.
void state(Signal &signal, SignalKind kind) {
    signal.kind = kind;
    if (kind == SignalKind::supplyIn || kind == SignalKind::supplyOut) {
        signal.way = kind == SignalKind::supplyIn ? SupplyWay::in : SupplyWay::out;
        signal.kind = SignalKind::supply;
    }
}

/// VIDEO comes out of what makes a picture and goes into what takes one.
SignalKind videoWay(PartKind part, std::string_view name) {
    if (name == "CAM") return SignalKind::videoIn;
    if (name == "VTX") return SignalKind::videoOut;
    switch (part) {
    case PartKind::flightCamera:
    case PartKind::payloadCamera: return SignalKind::videoOut;
    case PartKind::videoTransmitter:
    case PartKind::recorder: return SignalKind::videoIn;
    default: return SignalKind::video;
    }
}

bool isSerial(SignalKind kind) { return kind == SignalKind::serialTx || kind == SignalKind::serialRx; }

} // namespace

Signal signalAt(const PartType &type, const Port &port, std::size_t pin) {
    const Pin &own = port.pins[pin];
    Signal signal = signalOf(own.signal);
    if (own.kind) {
        state(signal, *own.kind);
        return signal;
    }
    if (signal.kind == SignalKind::video) signal.kind = videoWay(type.kind, upper(signal.plain));
    if (isSerial(signal.kind) && type.kind == PartKind::videoTransmitter &&
        std::count_if(port.pins.begin(), port.pins.end(),
                      [](const Pin &p) { return isSerial(signalOf(p.signal).kind); }) == 1)
        signal.kind = SignalKind::oneWire;
    return signal;
}

Signal signalAt(const PartType &type, const Port &port, std::string_view pin) {
    const int index = pinIndex(port, pin);
    return index < 0 ? signalOf(pin) : signalAt(type, port, std::size_t(index));
}

Signal signalAt(const Build &build, const WireEnd &end, std::string_view pin) {
    const Part *part = findPart(build, end.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    const Port *port = type ? findPort(*type, end.port) : nullptr;
    return port ? signalAt(*type, *port, pin) : signalOf(pin);
}

bool carriesPower(SignalKind kind) { return kind == SignalKind::supply || kind == SignalKind::ground; }
bool isVideo(SignalKind kind) {
    return kind == SignalKind::video || kind == SignalKind::videoIn || kind == SignalKind::videoOut;
}

WireRole roleOf(const Build &build, const Wire &wire) {
    if (wire.lay == WireLay::coax) return WireRole::coax;
    bool phase = false, video = false, signal = false, servo = false, cell = false, supply = false, ground = false;
    for (const auto &core : wire.cores)
        for (const Signal &pin : {signalAt(build, wire.from, core.fromPin), signalAt(build, wire.to, core.toPin)}) {
            const SignalKind kind = pin.kind;
            phase |= kind == SignalKind::phase;
            video |= isVideo(kind) || kind == SignalKind::videoLink;
            servo |= kind == SignalKind::servo;
            cell |= kind == SignalKind::cell;
            supply |= kind == SignalKind::supply;
            ground |= kind == SignalKind::ground;
            signal |= !carriesPower(kind);
        }
    if (phase) return WireRole::phase;
    if (video) return WireRole::video;
    if (cell) return WireRole::balance;
    if (servo) return WireRole::servo;
    if (signal) return WireRole::signal;
    return supply || !ground ? WireRole::power : WireRole::ground;
}

std::string_view customaryColour(const Signal &signal) {
    switch (signal.kind) {
    case SignalKind::ground:
    case SignalKind::phase:
    case SignalKind::buzzer: return "black";
    case SignalKind::supply:
    case SignalKind::supplyIn:
    case SignalKind::supplyOut:
    case SignalKind::sense:
    case SignalKind::cell: return "red";
    case SignalKind::serialTx:
    case SignalKind::video:
    case SignalKind::videoIn:
    case SignalKind::videoOut: return "yellow";
    case SignalKind::serialRx:
    case SignalKind::oneWire:
    case SignalKind::motor:
    case SignalKind::servo:
    case SignalKind::pulse:
    case SignalKind::channel:
    case SignalKind::audioIn:
    case SignalKind::audioOut:
    case SignalKind::boot:
    case SignalKind::usb:
    case SignalKind::other: return "white";
    case SignalKind::busData:
    case SignalKind::telemetry: return "blue";
    case SignalKind::busClock:
    case SignalKind::current:
    case SignalKind::lampData: return "green";
    case SignalKind::videoLink: return "grey";
    }
    return "white";
}

const Port *findPort(const PartType &type, const std::string &port) {
    const auto at = std::find_if(type.ports.begin(), type.ports.end(), [&](const Port &p) { return p.id == port; });
    return at == type.ports.end() ? nullptr : &*at;
}

const Port *portOf(const Build &build, const WireEnd &end) {
    const Part *part = findPart(build, end.part);
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    return type ? findPort(*type, end.port) : nullptr;
}

int pinIndex(const Port &port, std::string_view pin) {
    const auto hash = pin.find('#');
    const std::string_view plain = pin.substr(0, hash);
    int wanted = 1;
    if (hash != std::string_view::npos) {
        const auto digits = pin.substr(hash + 1);
        if (std::from_chars(digits.data(), digits.data() + digits.size(), wanted).ec != std::errc{}) return -1;
    }
    for (std::size_t i = 0; i < port.pins.size(); ++i)
        if (port.pins[i].signal == plain && --wanted == 0) return int(i);
    return -1;
}

std::string pinName(const Port &port, std::size_t index) {
    const std::string &signal = port.pins[index].signal;
    const auto before = std::count_if(port.pins.begin(), port.pins.begin() + std::ptrdiff_t(index),
                                      [&](const Pin &p) { return p.signal == signal; });
    return before == 0 ? signal : signal + "#" + std::to_string(before + 1);
}

} // namespace waxis
