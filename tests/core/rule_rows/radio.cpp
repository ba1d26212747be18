// Rows for pairs of radios, links to the ground, and compasses.
#include "core/geometry/pose.h"
#include "core/radio/radio_report.h"
#include "core/rule_rows/setting.h"

namespace waxis::test {

namespace {

/// "a" sends, "b" listens, so far apart; the practice wants 100 mm.
void apart(Setting &s, double distance_mm) {
    s.radio("a", 20.0);
    s.radio("b");
    s.radioReport.rows = {{DisturberKind::sender, "a", 0}};
    s.radioReport.columns = {{"b", 1, -1}};
    RadioCell cell;
    cell.counts = true;
    cell.distance_mm = distance_mm;
    cell.practice_mm = 100;
    cell.practiceLimit = Limit::senderReceiverGap;
    s.radioReport.cells = {cell};
}

/// The noise of board "a" instead of a sender.
void noisyBoard(Setting &s, double distance_mm) {
    apart(s, distance_mm);
    s.radioReport.rows = {{DisturberKind::noise, "a", -1}};
}

/// Two senders whose product raises the noise of "b" by so much.
void mixing(Setting &s, double rise_dB) {
    s.type("a", [](PartType &type) { type.radio.emplace_back(); });
    s.radio("a", 20.0);
    s.radio("a", 27.0);
    s.radio("b");
    MixProduct mix;
    mix.first = 0;
    mix.second = 1;
    mix.listener = 2;
    mix.p = 2;
    mix.q = -1;
    mix.rise_dB = rise_dB;
    s.radioReport.mixes = {mix};
}

void twoAntennas(Setting &s, double angle_deg) {
    RadioUse &radio = s.radio("a");
    radio.antennas.push_back(radio.antennas[0]);
    radio.antennas[1].part = "b";
    s.radioReport.diversity = {{0, 0, 1, angle_deg}};
}

RangeReport &link(Setting &s, double margin_dB, bool down = true) {
    s.type("a", [](PartType &type) { type.radio.emplace_back(); });
    s.radio("a", 20.0);
    GroundStation station;
    station.id = "ground";
    station.name = "Ground station";
    station.part = "a";
    s.build.groundStations = {station};
    RangeReport range;
    range.ground = "ground";
    range.down = down;
    range.margin_dB = margin_dB;
    range.clearance_m = 100;
    s.radioReport.ranges = {range};
    return s.radioReport.ranges[0];
}

/// A connector on the antenna of "b" and one on the port of "a".
void connectors(Setting &s, const char *antenna, const char *board) {
    s.type("a", [&](PartType &type) {
        Port port;
        port.id = "rf";
        port.kind = PortKind::coax;
        port.connector = board;
        type.ports = {port};
        type.radio.emplace_back();
    });
    s.type("b", [&](PartType &type) {
        type.antenna.emplace();
        type.antenna->connector = antenna;
    });
    RadioUse &radio = s.radio("a", 20.0);
    radio.antennas[0].part = "b";
    radio.antennas[0].port = "rf";
    radio.antennas[0].antenna.connector = antenna;
}

/// A radio without an antenna, with a port for one or not.
void bare(Setting &s, bool port, std::optional<double> power_dBm) {
    if (port) s.port("a", "rf", PortKind::coax, {});
    s.radio("a", power_dBm).antennas.clear();
}

} // namespace

std::vector<Row> radioRows() {
    using enum Severity;
    using enum RuleId;
    const double watched = limitOf(Limit::desenseWatch), deaf = limitOf(Limit::desenseStop),
                 least = limitOf(Limit::diversityLeast), spare = limitOf(Limit::linkMargin);
    return {
        {"RAD-1 far enough", radSeparation, [](Setting &s) { apart(s, 100); }, pass, 0, {}, "sender"},
        {"RAD-1 nearer", radSeparation, [](Setting &s) { apart(s, 99); }, watch, -1, "99 mm from the antenna of b",
         "sender"},
        {"RAD-1 nearer, and heard: the noise tells it",
         radSeparation,
         [](Setting &s) {
             apart(s, 99);
             RadioCell &cell = s.radioReport.cells[0];
             cell.coupling.emplace();
             cell.floor_dBm = -100;
             cell.heard_dBm = -90;
         },
         {},
         0,
         {},
         "sender"},
        {"RAD-1 nearer, and close to overload",
         radSeparation,
         [](Setting &s) {
             apart(s, 99);
             RadioCell &cell = s.radioReport.cells[0];
             cell.coupling.emplace();
             cell.floor_dBm = -90;
             cell.heard_dBm = cell.spilled_dBm = -200;
             cell.blockingMargin_dB = limitOf(Limit::blockingReserve) - 0.1;
         },
         {},
         0,
         {},
         "sender"},
        {"RAD-1 nearer, and hardly heard", radSeparation,
         [](Setting &s) {
             apart(s, 99);
             RadioCell &cell = s.radioReport.cells[0];
             cell.coupling.emplace();
             cell.floor_dBm = -90;
             cell.heard_dBm = cell.spilled_dBm = -200;
             cell.blockingMargin_dB = limitOf(Limit::blockingReserve);
         },
         watch, -1, "99 mm from the antenna of b", "sender"},
        {"RAD-1 a board far enough", radSeparation, [](Setting &s) { noisyBoard(s, 100); }, pass, 0, {}, "noise"},
        {"RAD-1 a board nearer", radSeparation, [](Setting &s) { noisyBoard(s, 99); }, watch, -1,
         "is 99 mm from the antenna of b", "noise"},
        {"RAD-4 may mix", radMixing, [=](Setting &s) { mixing(s, watched - 0.1); }, note, 0.1, "may mix onto b"},
        {"RAD-4 a fainter one beside it", radMixing,
         [=](Setting &s) {
             mixing(s, watched - 0.2);
             MixProduct louder = s.radioReport.mixes[0];
             louder.rise_dB = watched - 0.1;
             s.radioReport.mixes.push_back(louder);
         },
         note, 0.1, "may mix onto b"},
        {"RAD-4 mixes", radMixing, [=](Setting &s) { mixing(s, watched + 0.1); }, watch, -0.1, "mix onto b"},
        {"RAD-4 deafens, by filters that nobody states", radMixing, [=](Setting &s) { mixing(s, deaf + 0.1); }, watch,
         -0.1, "mix onto b"},
        {"RAD-4 deafens, by filters as stated", radMixing,
         [=](Setting &s) {
             mixing(s, deaf + 0.1);
             s.radioReport.mixes[0].stated = true;
         },
         stop, -0.1, "mix onto b"},
        {"RAD-4 hopelessly weak", radMixing,
         [=](Setting &s) {
             mixing(s, 0);
             s.radioReport.mixes[0].level_dBm = -300;
             for (auto &radio : s.radioReport.radios) radio.bandwidth_MHz = 1;
         },
         pass, watched},
        {"RAD-4 no product", radMixing, [](Setting &s) { apart(s, 100); }, {}},
        {"RAD-5 no multiple in the band", radHarmonic, [](Setting &s) { apart(s, 100); }, {}},
        {"RAD-9 different enough", radDiversity, [=](Setting &s) { twoAntennas(s, least); }, pass, 0},
        {"RAD-9 nearly alike", radDiversity, [=](Setting &s) { twoAntennas(s, least - 1); }, watch, -1,
         "stand nearly the same way"},
        {"RAD-10 the same hand", radHand, [](Setting &s) { link(s, 99).polarisation_dB = 3; }, pass, 0.1},
        {"RAD-10 the other hand", radHand,
         [](Setting &s) {
             link(s, 99).sameHand = false;
             s.radioReport.ranges[0].polarisation_dB = 25;
         },
         watch, 3.1 - 25, "turn opposite ways"},
        {"RAD-12 mates", radConnector, [](Setting &s) { connectors(s, "SMA male", "SMA female"); }, pass},
        {"RAD-12 other polarity", radConnector, [](Setting &s) { connectors(s, "RP-SMA male", "SMA female"); }, stop,
         -1, "makes no contact"},
        {"RAD-12 other family", radConnector, [](Setting &s) { connectors(s, "MMCX male", "SMA female"); }, stop, -1,
         "does not go onto"},
        {"RAD-12 not stated", radConnector, [](Setting &s) { connectors(s, "", "SMA female"); }, unknown, 0,
         "is not known"},
        {"RAD-15 with the margin", radLink, [=](Setting &s) { link(s, spare); }, pass, 0, {}, "down"},
        {"RAD-15 with less", radLink, [=](Setting &s) { link(s, spare - 0.1); }, watch, -0.1, "reaches the ground with",
         "down"},
        {"RAD-15 with none", radLink, [=](Setting &s) { link(s, -0.1); }, stop, -0.1 - spare, "reaches the ground with",
         "down"},
        {"RAD-15 up with less", radLink, [=](Setting &s) { link(s, spare - 0.1, false); }, watch, -0.1,
         "hears the ground with", "up"},
        {"RAD-15 path free enough", radLink,
         [](Setting &s) {
             link(s, 99).fresnel_m = 10;
             s.radioReport.ranges[0].clearance_m = 6;
         },
         pass, 99 - spare},
        {"RAD-15 ground in the path", radLink,
         [](Setting &s) {
             link(s, 99).fresnel_m = 10;
             s.radioReport.ranges[0].clearance_m = 5.9;
         },
         note, -0.1, "the ground reaches into the path", "fresnel down"},
        {"RAD-16 has one", radAntenna, [](Setting &s) { s.radio("a", 20.0); }, pass},
        {"RAD-16 sends without", radAntenna, [](Setting &s) { bare(s, true, 20.0); }, stop, -1,
         "would send without an antenna"},
        {"RAD-16 listens without", radAntenna, [](Setting &s) { bare(s, true, {}); }, watch, -1, "has no antenna"},
        {"RAD-16 not known", radAntenna, [](Setting &s) { bare(s, false, 20.0); }, unknown, -1,
         "Nothing is known of the antenna"},
    };
}

namespace {

/// The compass of "a" in a practice that uses it.
CompassReport &compass(Setting &s, double full_deg = 0, double hover_deg = 0) {
    s.follow("compass", "used");
    CompassReport report;
    report.part = "a";
    report.full_deg = full_deg;
    report.hover_deg = hover_deg;
    s.radioReport.compasses = {report};
    return s.radioReport.compasses[0];
}

void currents(Setting &s, double full_deg, double hover_deg) {
    compass(s, full_deg, hover_deg);
    s.radioReport.sources.paths.emplace_back();
}

void magnet(Setting &s, double heading_deg, double field_uT = 1) {
    compass(s);
    s.radioReport.rows = {{DisturberKind::magnet, "b", -1}};
    s.radioReport.columns = {{"a/compass", -1, 0}};
    RadioCell cell;
    cell.counts = true;
    cell.heading_deg = heading_deg;
    cell.field_uT = field_uT;
    s.radioReport.cells = {cell};
}

void steel(Setting &s, double distance_mm) { compass(s).iron = {{"b", distance_mm}}; }

/// "a" turned about the frame's axes, with an arrow printed on it or not.
void lies(Setting &s, PartKind kind, const RollPitchYaw &turn, bool arrow) {
    s.type("a", [&](PartType &type) {
        type.kind = kind;
        if (arrow) type.arrow = Vec3::UnitX();
    });
    s.build.parts[0].placement.pose.rotation = quaternionFrom(turn);
}

} // namespace

std::vector<Row> compassRows() {
    using enum Severity;
    using enum RuleId;
    const double noted = limitOf(Limit::headingNote), watched = limitOf(Limit::headingWatch),
                 stops = limitOf(Limit::headingStop), gap = limitOf(Limit::ferrousGap),
                 skew = limitOf(Limit::mountAngle);
    const Severity turned = practiceOf({}).follows("arrow", "forward") ? watch : note;
    return {
        {"NAV-3 at the limit", navThrottle, [=](Setting &s) { currents(s, noted, 0); }, pass, 0},
        {"NAV-3 noted", navThrottle, [=](Setting &s) { currents(s, noted + 0.1, 0); }, note, -0.1,
         "Currents turn the compass of a"},
        {"NAV-3 watched", navThrottle, [=](Setting &s) { currents(s, watched + 0.1, 0); }, watch, -0.1,
         "Currents turn the compass of a"},
        {"NAV-3 stops in hover too", navThrottle, [=](Setting &s) { currents(s, stops + 0.1, watched + 0.1); }, stop,
         -0.1, "Currents turn the compass of a"},
        {"NAV-3 at full throttle only", navThrottle, [=](Setting &s) { currents(s, stops + 0.1, watched); }, watch,
         -0.1, "Currents turn the compass of a"},
        {"NAV-3 any angle", navThrottle, [=](Setting &s) { currents(s, 180, 180); }, stop, stops - 180,
         "Currents overwhelm the compass"},
        {"NAV-3 no wires drawn", navThrottle, [](Setting &s) { compass(s); }, unknown, noted, "is not known",
         "no wires"},
        {"NAV-3 not used",
         navThrottle,
         [](Setting &s) {
             currents(s, 180, 180);
             s.follow("compass", "unused");
         },
         {}},
        {"NAV-4 at the limit", navMagnet, [=](Setting &s) { magnet(s, noted); }, pass, 0},
        {"NAV-4 noted", navMagnet, [=](Setting &s) { magnet(s, noted + 0.1); }, note, -0.1,
         "The magnet of b turns the compass of a"},
        {"NAV-4 stops", navMagnet, [=](Setting &s) { magnet(s, stops + 0.1); }, stop, -0.1, "The magnet of b turns"},
        {"NAV-4 any angle", navMagnet, [=](Setting &s) { magnet(s, 180); }, stop, stops - 180,
         "overwhelms the compass of a"},
        {"NAV-5 far enough", navIron, [=](Setting &s) { steel(s, gap); }, pass, 0},
        {"NAV-5 nearer", navIron, [=](Setting &s) { steel(s, gap - 0.1); }, watch, -0.1, "from the compass of a"},
        {"NAV-5 none", navIron, [](Setting &s) { compass(s); }, {}},
        {"NAV-2 forward", navAngles, [](Setting &s) { lies(s, PartKind::flightController, {}, true); }, pass, skew},
        {"NAV-2 nearly forward",
         navAngles,
         [=](Setting &s) {
             lies(s, PartKind::flightController, {0, 0, skew - 0.1}, true);
         },
         pass,
         0.1,
         {},
         "forward"},
        {"NAV-2 askew", navAngles,
         [=](Setting &s) {
             lies(s, PartKind::flightController, {0, 0, skew + 0.1}, true);
         },
         note, -0.1, "angles to enter", "skew"},
        {"NAV-2 a quarter round", navAngles,
         [](Setting &s) {
             lies(s, PartKind::flightController, {0, 0, 90}, true);
         },
         turned, 0, turned == watch ? "not arrow forward" : "angles to enter", "turned"},
        {"NAV-2 receiver face up",
         navAngles,
         [](Setting &s) { lies(s, PartKind::gps, {}, false); },
         pass,
         60,
         {},
         "up"},
        {"NAV-2 receiver face down", navAngles,
         [](Setting &s) {
             lies(s, PartKind::gps, {180, 0, 0}, false);
         },
         stop, -120, "faces down", "up"},
        {"NAV-2 receiver leans 61°", navAngles,
         [](Setting &s) {
             lies(s, PartKind::gps, {0, 61, 0}, false);
         },
         watch, -1, "leans 61.0° from up", "up"},
        {"NAV-2 arrow without a compass",
         navAngles,
         [](Setting &s) {
             lies(s, PartKind::gps, {0, 0, 90}, true);
         },
         pass,
         60,
         {},
         "up"},
        {"NAV-2 no arrow", navAngles, [](Setting &s) { lies(s, PartKind::flightController, {}, false); }, {}},
    };
}

} // namespace waxis::test
