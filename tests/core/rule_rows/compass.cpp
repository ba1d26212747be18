// Rows for compasses and for how boards lie.
#include "core/geometry/pose.h"
#include "core/radio/radio_report.h"
#include "core/rule_rows/setting.h"

namespace waxis::test {

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
        {"NAV-2 no arrow", navAngles, [](Setting &s) { lies(s, PartKind::flightController, {}, false); }, {}},
    };
}

} // namespace waxis::test
