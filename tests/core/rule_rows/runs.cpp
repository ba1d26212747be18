// Rows for how long wires are, what they run beside and through, and the capacitor at their end.
#include "core/power/power_report.h"
#include "core/rule_rows/setting.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

namespace waxis::test {

namespace {

/// A supplied lead that is so much longer than it has to be.
WireReport &lead(Setting &s, double spare_mm) {
    s.wire("x", "y");
    s.routes[0].points_mm = {{0, 0, 0}, {100, 0, 0}};
    WireReport &report = s.wiringReport.wires[0];
    report.needed_mm = 100;
    report.supplied_mm = 100 + spare_mm;
    report.spare_mm = spare_mm;
    report.resolder_mm = s.practice[Limit::wireResolder];
    report.verdict = spare_mm < 0 ? LeadVerdict::shortBy : LeadVerdict::trim;
    return report;
}

void side(Setting &s, double together_mm, bool eased = false) {
    s.wire("x", "y");
    s.wire("x", "y").cores.resize(2);
    WireMeeting meeting;
    meeting.a = 0;
    meeting.b = 1;
    meeting.together_mm = together_mm;
    meeting.apart_mm = 3;
    meeting.eased = eased;
    s.wiringReport.meetings = {meeting};
}

void span(Setting &s, double free_mm) {
    s.wire("x", "y");
    s.routes[0].points_mm = {{0, 0, 0}, {100, 0, 0}};
    s.routes[0].length_mm = 100;
    s.routes[0].widestSpan_mm = free_mm;
}

/// The plug at "a" is fragile, and its wire first held so far from it.
void relief(Setting &s, double first_mm) {
    s.port("a", "x", PortKind::plug, {"TX"});
    s.type("a", [](PartType &type) { type.fragile = true; });
    span(s, 0);
    s.routes[0].supports = {{SupportKind::end, {}, {}, 0}, {SupportKind::tie, "tie", {}, first_mm}};
}

/// A wire through a hole of a plate.
void hole(Setting &s, HoleEdge edge, const char *material, bool sleeved = false) {
    s.build.frame.edit([&](Frame &frame) {
        Plate plate;
        plate.id = "plate";
        plate.outline_mm = {{-30, -30}, {30, -30}, {30, 30}, {-30, 30}};
        plate.thickness_mm = 2;
        plate.material = material;
        frame.plates.push_back(plate);
        frame.passThroughs.push_back({"hole", "plate", {{-3, -3}, {3, -3}, {3, 3}, {-3, 3}}, edge});
    });
    s.wire("x", "y").sleeved = sleeved;
    HoleUse use;
    use.pass = "hole";
    use.wires = {0};
    s.wiringReport.holes = {use};
}

/// A motor's lead with so many splices, and a plug in it if wanted.
void joints(Setting &s, int splices, bool plug) {
    s.port("a", "x", plug ? PortKind::plug : PortKind::pads, {"A"});
    s.wire("x", "y").splices = splices;
    s.wiringReport.wires[0].role = WireRole::phase;
    s.powerReport.wires.resize(1);
}

/// A capacitor "a" of a rated voltage at a pack of 16.8 V, on leads so long to the speed controller "b".
void capacitor(Setting &s, std::optional<double> rated_V, double lead_mm) {
    s.rail("b", "BAT", "a").most_V = 16.8;
    s.kind("b", PartKind::esc);
    s.type("a", [&](PartType &type) {
        type.kind = PartKind::capacitor;
        type.electrical.emplace();
        type.electrical->rated_V = rated_V;
    });
    Wire &wire = s.wire("x", "y");
    WireCore plus, minus;
    plus.fromPin = plus.toPin = "BAT";
    minus.fromPin = minus.toPin = "GND";
    wire.cores = {plus, minus};
    s.wiringReport.wires[0].route_mm = lead_mm;
}

/// A wire into a hollow arm through a hole of 8 mm at 50, or so far beside it.
void intoArm(Setting &s, HoleEdge edge, const char *material, double beside_mm = 0, bool sleeved = false) {
    s.build.frame.edit([&](Frame &frame) {
        Arm arm;
        arm.id = "arm";
        arm.tip_mm = {200, 0, 0};
        arm.width_mm = arm.thickness_mm = 20;
        arm.section = ArmSection::box;
        arm.wall_mm = 2;
        arm.material = material;
        arm.holes = {{50, 8, ArmWall::left, edge}};
        frame.arms = {arm};
    });
    s.wire("x", "y").sleeved = sleeved;
    s.routes[0].points_mm = {{50 + beside_mm, 40, -10}, {50 + beside_mm, 0, -10}, {150, 0, -10}};
}

} // namespace

std::vector<Row> runRows() {
    using enum Severity;
    using enum RuleId;
    const double again = limitOf(Limit::wireResolder), beside = limitOf(Limit::parallelLength),
                 loose = limitOf(Limit::wireSpan), held = limitOf(Limit::strainRelief),
                 near = limitOf(Limit::capacitorNear), times = limitOf(Limit::capacitorRating);
    constexpr double kHair = 1e-9;
    return {
        {"WIR-1 long enough", wirLength, [](Setting &s) { lead(s, 0); }, pass, 0},
        {"WIR-1 once more it reaches", wirLength, [=](Setting &s) { lead(s, -again); }, watch, -again,
         "just too short, 90 mm supplied and 100 mm wanted"},
        {"WIR-1 too short", wirLength, [=](Setting &s) { lead(s, -again - 1); }, stop, -again - 1, "11 mm short"},
        {"WIR-1 no cable is that long", wirLength,
         [](Setting &s) {
             WireReport &report = lead(s, 0);
             report.supplied_mm.reset();
             report.verdict = LeadVerdict::none;
             report.needed_mm = readyMadeLengths_mm(WireLay::loose).back() + 1;
         },
         stop, -1, "No ready-made cable is long enough", "none"},
        {"WIR-1 from stock",
         wirLength,
         [](Setting &s) {
             WireReport &report = lead(s, 0);
             report.supplied_mm.reset();
             report.verdict = LeadVerdict::cut;
         },
         {}},

        {"WIR-4 short enough", wirParallel, [=](Setting &s) { side(s, beside); }, pass, 0},
        {"WIR-4 side by side", wirParallel, [=](Setting &s) { side(s, beside + 1); }, watch, -1, "51 mm beside wire 1"},
        {"WIR-4 twisted", wirParallel, [=](Setting &s) { side(s, beside + 1, true); }, pass, 0},
        {"WIR-4 they cross", wirParallel, [](Setting &s) { side(s, 0); }, {}},

        {"WIR-6 held often enough", wirSpan, [=](Setting &s) { span(s, loose); }, pass, 0, {}, "span"},
        {"WIR-6 hangs free", wirSpan, [=](Setting &s) { span(s, loose + 1); }, watch, -1, "61 mm hang free", "span"},
        {"WIR-6 plug relieved", wirSpan, [=](Setting &s) { relief(s, held); }, pass, loose, {}, "span"},
        {"WIR-6 both", wirSpan,
         [=](Setting &s) {
             relief(s, held + 1);
             s.routes[0].widestSpan_mm = loose + 1;
         },
         watch, -1, "61 mm hang free, first held 31 mm from the plug at a", "span"},
        {"WIR-6 plug not relieved", wirSpan, [=](Setting &s) { relief(s, held + 1); }, watch, -1,
         "first held 31 mm from the plug at a", "relief"},
        {"WIR-6 not led", wirSpan, [](Setting &s) { s.wire("x", "y"); }, {}},

        {"WIR-7 bare carbon", wirEdge, [](Setting &s) { hole(s, HoleEdge::bare, "carbon"); }, watch, 0,
         "Bare carbon edge under wire 1"},
        {"WIR-7 a grommet", wirEdge, [](Setting &s) { hole(s, HoleEdge::grommet, "carbon"); }, pass, 0},
        {"WIR-7 bare hole in an arm", wirEdge, [](Setting &s) { intoArm(s, HoleEdge::bare, "carbon"); }, watch, 0,
         "Bare carbon edge under"},
        {"WIR-7 at the rim of it", wirEdge, [](Setting &s) { intoArm(s, HoleEdge::bare, "carbon", 4); }, watch, 0,
         "Bare carbon edge under"},
        {"WIR-7 beside it", wirEdge, [](Setting &s) { intoArm(s, HoleEdge::bare, "carbon", 4.1); }, {}},
        {"WIR-7 a grommet in an arm", wirEdge, [](Setting &s) { intoArm(s, HoleEdge::grommet, "carbon"); }, pass, 0},
        {"WIR-7 an arm that does not cut", wirEdge, [](Setting &s) { intoArm(s, HoleEdge::bare, "nylon"); }, pass, 0},
        {"WIR-7 sleeved into an arm", wirEdge, [](Setting &s) { intoArm(s, HoleEdge::bare, "carbon", 0, true); }, pass,
         0},
        {"WIR-7 glass", wirEdge, [](Setting &s) { hole(s, HoleEdge::bare, "glass"); }, pass, 0},
        {"WIR-7 sleeved", wirEdge, [](Setting &s) { hole(s, HoleEdge::bare, "carbon", true); }, pass, 0},

        {"WIR-12 soldered through", wirJoints, [](Setting &s) { joints(s, 0, false); }, {}},
        {"WIR-12 a few", wirJoints, [](Setting &s) { joints(s, 1, true); }, pass, 0},
        {"WIR-12 plugs on purpose", wirJoints,
         [](Setting &s) {
             joints(s, 1, true);
             s.follow("plugs", "plugs");
         },
         pass, 1},
        {"WIR-12 nothing but plugs on purpose",
         wirJoints,
         [](Setting &s) {
             joints(s, 0, true);
             s.follow("plugs", "plugs");
         },
         {}},
        {"WIR-12 many", wirJoints, [](Setting &s) { joints(s, 2, true); }, watch, -1, "plugs 1, splices 2"},

        {"PWR-5 rated well",
         pwrCapacitor,
         [=](Setting &s) { capacitor(s, 16.8 * times, near); },
         pass,
         1e-6,
         {},
         "rating"},
        {"PWR-5 rated just so", pwrCapacitor, [=](Setting &s) { capacitor(s, 16.8 * times - 0.1, near); }, watch,
         -0.1 + 1e-6, "V are wanted for this pack", "rating"},
        {"PWR-5 rated too low", pwrCapacitor, [=](Setting &s) { capacitor(s, 16.7, near); }, stop,
         16.7 - 16.8 * times + 1e-6, "is rated 16.7 V and the full pack has 16.8 V", "rating"},
        {"PWR-5 rating not stated", pwrCapacitor, [=](Setting &s) { capacitor(s, {}, near); }, unknown, 0,
         "does not state its rated voltage", "unrated"},
        {"PWR-5 near", pwrCapacitor, [=](Setting &s) { capacitor(s, 35, near - kHair); }, pass, 0, {}, "far"},
        {"PWR-5 far", pwrCapacitor, [=](Setting &s) { capacitor(s, 35, near + 1); }, watch, -1,
         "31 mm of lead from the pads", "far"},
        {"PWR-5 the wrong way round", pwrCapacitor,
         [=](Setting &s) {
             capacitor(s, 35, near);
             std::swap(s.build.wires[0].cores[0].toPin, s.build.wires[0].cores[1].toPin);
         },
         stop, 0, "", "reversed"},
        {"PWR-5 on no lead", pwrCapacitor,
         [=](Setting &s) {
             capacitor(s, 35, near);
             s.build.wires.clear();
         },
         watch, 0, "", "loose"},
        {"PWR-5 none", pwrCapacitor,
         [=](Setting &s) {
             capacitor(s, 35, near);
             s.kind("a", PartKind::other);
         },
         note, 0, "No capacitor at the speed controllers", "missing"},
        {"PWR-5 no pack",
         pwrCapacitor,
         [=](Setting &s) {
             capacitor(s, 35, near);
             s.powerReport.rails.clear();
         },
         {}},
    };
}

} // namespace waxis::test
