// Rows for what sits in wires, where they are joined, which plug goes where, what is alive, and what channels do.
#include "core/links/link_report.h"
#include "core/power/power_report.h"
#include "core/rule_rows/setting.h"
#include "core/wiring/gauge.h"
#include "core/wiring/wire_report.h"

namespace waxis::test {

namespace {

WireCore core(const char *from, const char *to) {
    WireCore made;
    made.fromPin = from;
    made.toPin = to;
    return made;
}

/// A wire with one core and a part in it, through which so much flows towards "b".
void inLine(Setting &s, const char *pin, double typical_A = 0, double peak_A = 0, bool turned = false) {
    s.port("a", "x", PortKind::pads, {pin});
    s.port("b", "y", PortKind::pads, {pin});
    Wire &wire = s.wire("x", "y");
    wire.cores = {core(pin, pin)};
    wire.inserts = {{"thing", 0, 0.5, turned}};
    s.build.types.edit([](TypeTable &types) {
        PartType thing;
        thing.id = "thing";
        thing.name = "Fuse";
        thing.kind = PartKind::inlinePart;
        types["thing"] = thing;
    });
    s.powerReport.wires = {{typical_A, peak_A, typical_A > 0 || peak_A > 0, 1}};
}

void rated(Setting &s, const char *pin, const Electrical &electrical, double typical_A = 0, double peak_A = 0,
           bool turned = false) {
    inLine(s, pin, typical_A, peak_A, turned);
    s.build.types.edit([&](TypeTable &types) { types.at("thing").electrical = electrical; });
}

Electrical fuse(double carries_A) {
    Electrical e;
    e.continuous_A = carries_A;
    return e;
}
Electrical diode() {
    Electrical e;
    e.forward_V = 0.4;
    return e;
}
Electrical seriesCapacitor() {
    Electrical e;
    e.capacitance_uF = 100;
    return e;
}
Electrical resistor(double ohm, double watt) {
    Electrical e;
    e.resistance_Ohm = ohm;
    e.rated_W = watt;
    return e;
}

/// "b" hangs on a rail of 5 V behind what takes so many volts off at peak, and wants 4.5.
void dropping(Setting &s, double lost_V) {
    Electrical e;
    e.forward_V = lost_V;
    rated(s, "5V", e, 0.5, 0.5);
    Rail &rail = s.rail("a", "5V", "b");
    rail.least_V = 5;
    rail.loads[0].least_V = 4.5;
    rail.loads[0].wires = {0};
}

/// So many wires on one pin of "a".
void onePin(Setting &s, PortKind kind, int wires, int gauge_AWG = 28, std::optional<double> pad_mm = {},
            PadJoint way = PadJoint::surface) {
    s.port("a", "x", kind, {"GND"});
    s.type("a", [&](PartType &type) {
        type.ports.back().padSize_mm = pad_mm;
        type.ports.back().joint = way;
    });
    s.port("b", "y", PortKind::pads, {"GND", "GND", "GND", "GND", "GND"});
    const char *pins[] = {"GND", "GND#2", "GND#3", "GND#4", "GND#5"};
    for (int w = 0; w < wires; ++w) {
        Wire &wire = s.wire("x", "y");
        wire.cores = {core("GND", pins[w])};
        wire.gauge_AWG = gauge_AWG;
    }
}

/// The lead of "b" with a plug of that family on a socket of "a".
void mates(Setting &s, const char *plug, int ways = 0, bool turned = false, bool keyed = false,
           std::vector<std::string> pins = {"5V", "SIG", "GND"}) {
    s.port("a", "x", PortKind::socket, std::move(pins));
    s.type("a", [&](PartType &type) {
        type.ports.back().connector = "1.25 mm lock plug";
        type.ports.back().keyed = keyed;
    });
    Wire &wire = s.wire("x", "y");
    wire.fromPlug = WirePlug{plug, ways, turned, {}};
}

/// A cable between two sockets through a slot of this width and 3.2 mm of height; plugs of four ways are 5 mm long, 6
/// wide and 3 high where their family is known, and go through by the smallest of their faces.
void threaded(Setting &s, double wide_mm, WireMake make = WireMake::readyMade,
              const char *family = "1.0 mm lock plug") {
    s.port("a", "x", PortKind::socket, {"5V", "GND", "TX", "RX"});
    s.port("b", "y", PortKind::socket, {"5V", "GND", "TX", "RX"});
    for (const char *id : {"a", "b"}) s.type(id, [&](PartType &type) { type.ports.back().connector = family; });
    s.wire("x", "y").make = make;
    s.build.frame.edit([&](Frame &frame) {
        const double w = wide_mm / 2;
        frame.passThroughs.push_back({"slot", "plate", {{-w, -1.6}, {w, -1.6}, {w, 1.6}, {-w, 1.6}}, {}});
    });
    s.wiringReport.holes.push_back({"slot", {0}, 3.2, wide_mm * 3.2, 0.2, 0.6, 3});
}

/// Two halves plugged into each other.
void halves(Setting &s, Contacts one, Contacts other) {
    s.port("a", "x", PortKind::plug, {"BAT", "GND"});
    s.port("b", "y", PortKind::plug, {"BAT", "GND"});
    s.type("a", [&](PartType &type) { type.ports.back().contacts = one; });
    s.type("b", [&](PartType &type) { type.ports.back().contacts = other; });
    s.wire("x", "y");
}

/// "a" is aboard in the one load case; alive or dark.
void supply(Setting &s, LoadCaseKind kind, std::vector<std::string> alive, std::vector<std::string> dark) {
    LoadCase now;
    now.id = "day";
    now.name = "By day";
    now.kind = kind;
    s.build.loadCases = {now};
    s.wire("x", "y");
    s.powerReport.supplies = {{std::move(alive), std::move(dark)}};
}

void half(Setting &s, PartKind kind, bool tells) {
    s.kind("a", kind);
    LinkFinding found;
    found.fault = LinkFault::halfSerial;
    found.wires = {s.wire("x", "y").id};
    found.part = "a";
    found.port = "x";
    found.pin = tells ? "RX" : "TX";
    found.value = tells ? 1 : 0;
    s.linksReport.faults = {found};
}

void channel(Setting &s, ChannelFunction sent, ChannelFunction wanted) {
    s.linksReport.channels = {{"a/CH1", "b/CH1", "a", "b", sent, wanted}};
}

/// "a" hangs between two taps of the pack "b", which has four cells.
void tapped(Setting &s, const char *low, const char *high) {
    s.port("a", "x", PortKind::pads, {"GND", "BAT"});
    s.port("b", "y", PortKind::plug, {"C0", "C1", "C2", "C3", "C4"});
    s.type("b", [](PartType &type) {
        type.kind = PartKind::battery;
        type.electrical.emplace();
        type.electrical->cells = 4;
    });
    Wire &wire = s.wire("x", "y");
    wire.cores = {core("GND", low), core("BAT", high)};
    for (int c = 0; c < 2; ++c) {
        LinkFinding found;
        found.fault = LinkFault::balanceTap;
        found.wires = {wire.id};
        found.core = c;
        s.linksReport.faults.push_back(found);
    }
}

} // namespace

std::vector<Row> jointRows() {
    using enum Severity;
    using enum RuleId;
    using F = ChannelFunction;
    const double strand = 1.13 * awgDiameter_mm(20);
    return {
        {"PWR-12 a fuse that carries it", pwrInline, [](Setting &s) { rated(s, "5V", fuse(5), 5, 5); }, pass, 0},
        {"PWR-12 a fuse at its peak", pwrInline, [](Setting &s) { rated(s, "5V", fuse(5), 4, 5.1); }, watch, -0.1,
         "Fuse in wire 1 is good for 5 A; 5.1 A pass at peak", "rating-0"},
        {"PWR-12 a fuse that blows", pwrInline, [](Setting &s) { rated(s, "5V", fuse(5), 5.5, 9); }, stop, -0.5,
         "is good for 5 A and carries 5.5 A all the time", "rating-0"},
        {"PWR-12 a fuse in a signal", pwrInline, [](Setting &s) { rated(s, "TX", fuse(5)); }, {}},
        {"PWR-12 not stated", pwrInline, [](Setting &s) { inLine(s, "5V", 1, 1); }, unknown, 0,
         "What Fuse in wire 1 does is not stated", "unstated-0"},
        {"PWR-12 a capacitor in a supply", pwrInline, [](Setting &s) { rated(s, "5V", seriesCapacitor(), 1, 1); }, stop,
         -1, "Fuse in wire 1 blocks 5V", "blocks-0"},
        {"PWR-12 a capacitor in a picture",
         pwrInline,
         [](Setting &s) { rated(s, "VIDEO", seriesCapacitor()); },
         pass,
         0,
         {},
         "blocks-0"},
        {"PWR-12 a capacitor in a serial line", pwrInline, [](Setting &s) { rated(s, "TX", seriesCapacitor()); }, stop,
         -1, "blocks TX", "blocks-0"},
        {"PWR-12 a diode as it should be",
         pwrInline,
         [](Setting &s) { rated(s, "5V", diode(), 1, 1); },
         pass,
         0,
         {},
         "turned-0"},
        {"PWR-12 a diode the wrong way round", pwrInline, [](Setting &s) { rated(s, "5V", diode(), 1, 1, true); }, stop,
         -1, "is the wrong way round", "turned-0"},
        {"PWR-12 a diode in the return", pwrInline, [](Setting &s) { rated(s, "GND", diode(), 1, 1); }, stop, -1,
         "is the wrong way round", "turned-0"},
        {"PWR-12 a diode in a signal", pwrInline, [](Setting &s) { rated(s, "TX", diode()); }, watch, -1,
         "lets TX through one way only", "one-way-0"},
        {"PWR-12 a resistor that bears it",
         pwrInline,
         [](Setting &s) { rated(s, "5V", resistor(1, 1), 1, 1); },
         pass,
         0,
         {},
         "heat-0"},
        {"PWR-12 a resistor that chars", pwrInline, [](Setting &s) { rated(s, "5V", resistor(1, 1), 1.1, 2); }, stop,
         1 - 1.21, "turns 1.2 W into heat and bears 1 W", "heat-0"},
        {"PWR-12 leaves enough", pwrInline, [](Setting &s) { dropping(s, 0.5); }, pass, 0, {}, "drop-0"},
        {"PWR-12 leaves too little", pwrInline, [](Setting &s) { dropping(s, 0.6); }, watch, -0.1,
         "leaves 4.4 V for b, which wants 4.5 V", "drop-0"},

        {"WIR-15 two on a pad", wirPad, [](Setting &s) { onePin(s, PortKind::pads, 2); }, pass, 0, {}, "x"},
        {"WIR-15 three on a pad", wirPad, [](Setting &s) { onePin(s, PortKind::pads, 3); }, watch, -1,
         "a: 3 wires on one pad", "x"},
        {"WIR-15 three on a pad of the pack's lead",
         wirPad,
         [](Setting &s) { onePin(s, PortKind::pads, 3, 14); },
         pass,
         0,
         {},
         "x"},
        {"WIR-15 one in a contact", wirPad, [](Setting &s) { onePin(s, PortKind::socket, 1); }, pass, 0, {}, "x"},
        {"WIR-15 two in a contact", wirPad, [](Setting &s) { onePin(s, PortKind::socket, 2); }, watch, -1,
         "a: 2 wires in one contact", "x"},
        {"WIR-15 as wide as the pad",
         wirPad,
         [=](Setting &s) { onePin(s, PortKind::pads, 1, 20, strand); },
         pass,
         0,
         {},
         "x"},
        {"WIR-15 hangs over the pad", wirPad, [=](Setting &s) { onePin(s, PortKind::pads, 1, 20, strand - 0.1); },
         watch, -0.1, "mm of wire for a pad of", "x"},
        {"WIR-15 far too thick", wirPad, [=](Setting &s) { onePin(s, PortKind::pads, 1, 20, strand / 1.3); }, stop,
         strand / 1.3 - strand, "mm of wire for a pad of", "x"},
        {"WIR-15 two in a hole",
         wirPad,
         [=](Setting &s) { onePin(s, PortKind::pads, 2, 20, 2 * strand, PadJoint::throughHole); },
         pass,
         0,
         {},
         "x"},
        {"WIR-15 not into the hole", wirPad,
         [=](Setting &s) { onePin(s, PortKind::pads, 2, 20, 2 * strand - 0.1, PadJoint::throughHole); }, watch, -0.1,
         "mm of wire for a hole of", "x"},

        {"LNK-16 the same family",
         lnkMates,
         [](Setting &s) { mates(s, "1.25 mm lock plug"); },
         pass,
         0,
         {},
         "family-x"},
        {"LNK-16 another family", lnkMates, [](Setting &s) { mates(s, "servo plug"); }, stop, -1,
         "the servo plug does not go into the 1.25 mm lock plug of a", "family-x"},
        {"LNK-16 nobody knows", lnkMates, [](Setting &s) { mates(s, ""); }, {}},
        {"LNK-16 as many ways", lnkMates, [](Setting &s) { mates(s, "", 3); }, pass, 0, {}, "ways-x"},
        {"LNK-16 one way too many", lnkMates, [](Setting &s) { mates(s, "", 4); }, stop, -1,
         "a plug of 4 ways for 3 pins of a", "ways-x"},
        {"LNK-16 turned", lnkMates, [](Setting &s) { mates(s, "", 0, true); }, stop, -1, "is on the other way round",
         "turned-x"},
        {"LNK-16 turned, and the same",
         lnkMates,
         [](Setting &s) {
             mates(s, "", 0, true, false, {"GND", "5V", "GND"});
         },
         pass,
         0,
         {},
         "turned-x"},
        {"LNK-16 turned though it is keyed", lnkMates, [](Setting &s) { mates(s, "", 0, true, true); }, stop, -1,
         "cannot be put on turned", "keyed-x"},
        {"LNK-16 pins into sockets",
         lnkMates,
         [](Setting &s) { halves(s, Contacts::covered, Contacts::exposed); },
         pass,
         0,
         {},
         "gender-y"},
        {"LNK-16 pins onto pins", lnkMates, [](Setting &s) { halves(s, Contacts::exposed, Contacts::exposed); }, stop,
         -1, "both halves have the same contacts", "gender-y"},
        {"LNK-16 pins onto pins at the end of a lead", lnkMates,
         [](Setting &s) {
             halves(s, Contacts::exposed, Contacts::exposed);
             s.type("a", [](PartType &type) { type.leads.push_back({"x", 60, 14, "60 A battery plug"}); });
         },
         stop, -1, "both halves have the same contacts", "gender-y"},
        {"LNK-16 a cable with plugs of its own between them",
         lnkMates,
         [](Setting &s) {
             halves(s, Contacts::exposed, Contacts::exposed);
             s.build.wires[0].fromPlug = s.build.wires[0].toPlug = WirePlug{};
         },
         {},
         0,
         {},
         "gender-y"},

        {"LNK-16 a ready-made cable through its slot",
         lnkMates,
         [](Setting &s) { threaded(s, 5.01); },
         pass,
         0,
         {},
         "hole-x"},
        {"LNK-16 a slot too narrow for its plugs", lnkMates, [](Setting &s) { threaded(s, 4.99); }, watch, -1,
         "its plugs do not pass", "hole-x"},
        {"LNK-16 nobody knows its plugs",
         lnkMates,
         [](Setting &s) { threaded(s, 3.3, WireMake::readyMade, "some plug"); },
         {}},
        {"LNK-16 crimped when it is through", lnkMates, [](Setting &s) { threaded(s, 3.3, WireMake::stock); }, {}},

        {"PWR-11 all alive", pwrDark,
         [](Setting &s) {
             supply(s, LoadCaseKind::flight, {"a", "b"}, {});
         },
         pass, 0},
        {"PWR-11 dark in flight", pwrDark, [](Setting &s) { supply(s, LoadCaseKind::flight, {"a"}, {"b"}); }, stop, -1,
         "By day: no supply for b", "flight"},
        {"PWR-11 dark on the bench", pwrDark, [](Setting &s) { supply(s, LoadCaseKind::bench, {"a"}, {"b"}); }, note, 0,
         "By day: dark are b", "bench"},
        {"PWR-11 in the bag", pwrDark, [](Setting &s) { supply(s, LoadCaseKind::carried, {"a"}, {"b"}); }, {}},
        {"PWR-11 no source at all", pwrDark, [](Setting &s) { supply(s, LoadCaseKind::flight, {}, {"b"}); }, {}},
        {"PWR-11 dark in every case", pwrDark,
         [](Setting &s) {
             supply(s, LoadCaseKind::flight, {"a"}, {"b"});
             s.powerReport.unfed = {"b"};
         },
         pass, 0},

        {"PWR-13 between some cells", pwrBalanceTap, [](Setting &s) { tapped(s, "C0", "C3"); }, watch, -1,
         "a is fed at the balance plug of b, from tap 0 to 3 of 4", "some"},
        {"PWR-13 across all cells", pwrBalanceTap, [](Setting &s) { tapped(s, "C0", "C4"); }, watch, -1,
         "a is fed at the balance plug of b", "all"},
        {"PWR-13 at the main plug", pwrBalanceTap, [](Setting &s) { s.wire("x", "y"); }, {}},

        {"LNK-14 a receiver that is not heard", lnkHalf, [](Setting &s) { half(s, PartKind::receiver, false); }, stop,
         -1, "a hears and cannot speak", "hears"},
        {"LNK-14 a receiver that hears nothing", lnkHalf, [](Setting &s) { half(s, PartKind::receiver, true); }, watch,
         -1, "a speaks and hears nothing", "tells"},
        {"LNK-14 a unit that is not heard", lnkHalf, [](Setting &s) { half(s, PartKind::digitalVideoUnit, false); },
         watch, -1, "a hears and cannot speak", "hears"},
        {"LNK-14 both", lnkHalf, [](Setting &s) { s.wire("x", "y"); }, {}},

        {"LNK-15 where it belongs", lnkFunctions, [](Setting &s) { channel(s, F::roll, F::roll); }, pass, 0},
        {"LNK-15 roll on pitch", lnkFunctions, [](Setting &s) { channel(s, F::roll, F::pitch); }, stop, -1,
         "roll goes where pitch is expected", "map"},
        {"LNK-15 lamps on the camera's switch", lnkFunctions, [](Setting &s) { channel(s, F::lamps, F::cameraSwitch); },
         watch, -1, "lamps goes where camera switch is expected", "map"},
        {"LNK-15 not stated", lnkFunctions, [](Setting &s) { channel(s, F::none, F::roll); }, unknown, 0,
         "Which channel of a does what at b is not stated", "unstated"},
    };
}

} // namespace waxis::test
