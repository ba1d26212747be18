// Rows for what is joined with what.
#include "core/links/link_report.h"
#include "core/rule_rows/setting.h"

namespace waxis::test {

namespace {

/// A wire between "a" and "b" with one core, and a fault of it.
LinkFinding &fault(Setting &s, LinkFault kind, const char *fromPin, const char *toPin) {
    s.port("a", "x", PortKind::plug, {fromPin});
    s.port("b", "y", PortKind::plug, {toPin});
    Wire &wire = s.wire("x", "y");
    WireCore core;
    core.fromPin = fromPin;
    core.toPin = toPin;
    wire.cores = {core};
    LinkFinding found;
    found.fault = kind;
    found.wires = {wire.id};
    found.fromPin = fromPin;
    found.toPin = toPin;
    found.core = 0;
    s.linksReport.faults.push_back(found);
    return s.linksReport.faults.back();
}

void usedTwice(Setting &s) {
    LinkFinding &found = fault(s, LinkFault::usedTwice, "TX1", "RX1");
    s.wire("x", "y");
    found.wires.push_back(s.build.wires[1].id);
    found.part = "a";
    found.port = "x";
    found.pin = "TX1";
    found.core = -1;
}

void level(Setting &s, double volts, double bears_V) {
    LinkFinding &found = fault(s, LinkFault::level, "TX1", "RX1");
    found.value = volts;
    found.limit = bears_V;
}

void bus(Setting &s, LinkFault kind, const char *used) {
    s.follow("compass", used);
    LinkFinding &found = fault(s, kind, "SDA", "SDA");
    if (kind != LinkFault::noCompass) return;
    found.wires.clear();
    found.part = "a";
    found.core = -1;
}

/// Both ends are plugs of two pins; the cable runs straight or has to be crossed.
void plugged(Setting &s, bool crossed, PortKind kind = PortKind::plug) {
    s.port("a", "x", kind, {"TX", "RX"});
    s.port("b", "y", PortKind::plug, {crossed ? "TX" : "RX", crossed ? "RX" : "TX"});
    WireCore out, back;
    out.fromPin = back.toPin = "TX";
    out.toPin = back.fromPin = "RX";
    s.wire("x", "y").cores = {out, back};
}

} // namespace

std::vector<Row> linkRows() {
    using enum Severity;
    using enum RuleId;
    return {
        {"LNK-4 transmit to transmit", lnkCross, [](Setting &s) { fault(s, LinkFault::sameWay, "TX1", "TX2"); }, stop,
         0, "Wire 1 joins TX1 with TX2", "same-TX1"},
        {"LNK-4 short circuit", lnkCross, [](Setting &s) { fault(s, LinkFault::shortCircuit, "5V", "GND"); }, stop, 0,
         "joins 5V with GND: a short circuit", "short-5V"},
        {"LNK-4 strangers", lnkCross, [](Setting &s) { fault(s, LinkFault::mismatch, "SDA", "VIDEO"); }, stop, 0,
         "joins SDA with VIDEO", "mismatch-SDA"},
        {"LNK-4 only a level", lnkCross, [](Setting &s) { level(s, 5, 3.3); }, {}},
        {"LNK-5 no ground", lnkGround, [](Setting &s) { fault(s, LinkFault::noGround, "TX1", "RX1").pin = "b"; }, stop,
         0, "Wire 1 carries a signal, but its ends share no ground"},
        {"LNK-5 grounded", lnkGround, [](Setting &s) { fault(s, LinkFault::level, "TX1", "RX1"); }, {}},
        {"LNK-6 a pin for two", lnkOnce, [](Setting &s) { usedTwice(s); }, stop, 0, "Wire 1 and wire 2 share a pin",
         "x/TX1"},
        {"LNK-6 a pin for one", lnkOnce, [](Setting &s) { fault(s, LinkFault::sameWay, "TX1", "TX2"); }, {}},
        {"LNK-7 too many volts", lnkLevel, [](Setting &s) { level(s, 5, 3.3); }, watch, 3.3 - 5, "5.0 V meets 3.3 V",
         "level-TX1"},
        {"LNK-7 inverted", lnkLevel, [](Setting &s) { fault(s, LinkFault::inversion, "TX2", "RX1"); }, stop, 0,
         "one end is inverted", "inverted-TX2"},
        {"LNK-7 levels meet", lnkLevel, [](Setting &s) { fault(s, LinkFault::sameWay, "TX1", "TX2"); }, {}},
        {"LNK-8 half a bus", lnkBus, [](Setting &s) { bus(s, LinkFault::halfBus, "unused"); }, stop, 0,
         "Wire 1 has only one of the two bus wires"},
        {"LNK-8 compass not joined", lnkBus, [](Setting &s) { bus(s, LinkFault::noCompass, "used"); }, watch, 0,
         "The compass of a is not connected"},
        {"LNK-8 compass not used", lnkBus, [](Setting &s) { bus(s, LinkFault::noCompass, "unused"); }, {}},
        {"LNK-12 runs straight", lnkPins, [](Setting &s) { plugged(s, false); }, pass, 0},
        {"LNK-12 has to be crossed", lnkPins, [](Setting &s) { plugged(s, true); }, note, 0,
         "Wire 1: the pin orders differ", "order"},
        {"LNK-12 soldered at one end", lnkPins, [](Setting &s) { plugged(s, true, PortKind::pads); }, {}},
    };
}

} // namespace waxis::test
