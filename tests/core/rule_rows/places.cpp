// Rows for cameras, packs and leads by where they are.
#include "core/build/frame_shapes.h"
#include "core/rule_rows/setting.h"
#include "core/survey/reach.h"
#include "core/survey/survey.h"
#include "core/survey/views.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

namespace waxis::test {

namespace {

void aboardTogether(Setting &s) {
    s.owners.resize(s.build.parts.size());
    for (std::size_t i = 0; i < s.owners.size(); ++i) {
        s.owners[i].id = s.build.parts[i].id;
        s.owners[i].cases = 1;
    }
}

/// Both boxes are cameras that look ahead; one hides so much of the other's picture.
void cameras(Setting &s, double seen) {
    for (const char *part : {"a", "b"})
        s.type(part, [](PartType &type) {
            type.kind = PartKind::flightCamera;
            type.camera.emplace();
        });
    s.build.parts[1].placement.pose.position_mm = {0, 30, 0};
    aboardTogether(s);
    if (!(seen > 0)) return;
    CameraSurvey camera;
    camera.part = "a";
    camera.now.by = {{"b", seen}};
    s.survey.cameras = {camera};
}

/// The pack "a" has a lead of that length; the plug "b" is 30 mm away.
void lead(Setting &s, std::optional<double> length_mm) {
    s.type("a", [&](PartType &type) {
        type.kind = PartKind::battery;
        if (!length_mm) return;
        SuppliedLead own;
        own.length_mm = *length_mm;
        type.leads = {own};
    });
    s.kind("b", PartKind::powerPlug);
    aboardTogether(s);
}

void slides(Setting &s, double aft_mm, double fore_mm, const char *stop) {
    aboardTogether(s);
    s.build.parts[0].slide = SlideRange{Vec3::UnitX(), -10, 10};
    SlideSurvey slide;
    slide.part = "a";
    slide.free_min_mm = -aft_mm;
    slide.free_max_mm = fore_mm;
    slide.stopFore = stop;
    s.survey.slides = {slide};
}

/// A wire that ends so far beyond a propeller's zone, over it.
void overBlades(Setting &s, double away_mm) {
    s.wire("x", "y");
    const MotorMount &mount = s.build.frame->motorMounts.front();
    const Vec3 at = propCentre_mm(mount) + Vec3(0, 0, s.practice[Limit::propFlexUp] + away_mm);
    s.routes[0].points_mm = {at + Vec3(0, 0, 200), at};
}

/// A camera's lead that ends so far from a speed controller.
void besideController(Setting &s, double away_mm, WireRole role = WireRole::video, WireLay lay = WireLay::loose) {
    addBox(s.build, "c", {10, 10, 5}, {0, 100, 0}, 5);
    s.kind("c", PartKind::esc);
    s.wire("x", "y").lay = lay;
    s.wiringReport.wires[0].role = role;
    s.routes[0].points_mm = {{0, 20, 0}, {0, 95 - away_mm, 0}};
}

/// The joint of "a" brings it so near to "b".
void onItsTravel(Setting &s, double gap_mm, double depth_mm = 0, bool zone = false) {
    aboardTogether(s);
    TravelContact contact;
    contact.part = contact.mover = "a";
    contact.met = zone ? "m1" : "b";
    contact.angle_deg = 75;
    contact.depth_mm = depth_mm;
    contact.gap_mm = gap_mm;
    contact.zone = zone;
    s.survey.travels = {contact};
}

} // namespace

std::vector<Row> placeRows() {
    using enum Severity;
    using enum RuleId;
    const double slack = limitOf(Limit::leadSlack), blades = limitOf(Limit::propFlexibleGap),
                 quiet = limitOf(Limit::escLeadGap);
    constexpr double kHair = 1e-9;
    const double room = practiceOf({})[Limit::foldGap];
    return {
        {"FIT-12 nothing on its travel", fitFolding, [](Setting &) {}, {}},
        {"FIT-12 room on its travel", fitFolding, [=](Setting &s) { onItsTravel(s, room); }, pass, 0, {}, "travel"},
        {"FIT-12 near on its travel", fitFolding, [=](Setting &s) { onItsTravel(s, 0.4); }, watch, 0.4 - room,
         "comes as near as 0.4 mm to b", "travel"},
        {"FIT-12 struck on its travel", fitFolding, [=](Setting &s) { onItsTravel(s, 0, 2); }, stop, -2 - room,
         "a strikes b on its travel", "travel"},
        {"FIT-12 touching on its travel", fitFolding, [=](Setting &s) { onItsTravel(s, 0); }, stop, -room,
         "a strikes b on its travel", "travel"},
        {"FIT-12 into blades", fitFolding, [=](Setting &s) { onItsTravel(s, 0, 1, true); }, stop, -1 - room,
         "the propeller of the", "zone"},
        {"FIT-9 side by side", fitTwoCameras, [](Setting &s) { cameras(s, 0); }, note, 0, "look 30.0 mm apart"},
        {"FIT-9 in the picture", fitTwoCameras, [](Setting &s) { cameras(s, 0.05); }, watch, -5,
         "in 5.0 % of the other's picture", "seen"},
        {"FIT-9 one camera",
         fitTwoCameras,
         [](Setting &s) {
             cameras(s, 0);
             s.type("b", [](PartType &type) { type.camera.reset(); });
         },
         {}},
        {"FIT-11 lead with slack", fitBattery, [=](Setting &s) { lead(s, 30 + slack + kHair); }, pass, 0, {}, "lead"},
        {"FIT-11 lead with less", fitBattery, [=](Setting &s) { lead(s, 30 + slack - 1); }, watch, -1, "reaches b with",
         "lead"},
        {"FIT-11 lead too short", fitBattery, [=](Setting &s) { lead(s, 29); }, stop, -1 - slack, "1.0 mm short of b",
         "lead"},
        {"FIT-11 lead not stated", fitBattery, [](Setting &s) { lead(s, {}); }, unknown, 0, "length not known", "lead"},
        {"FIT-11 slides freely", fitBattery, [](Setting &s) { slides(s, 10, 10, ""); }, pass, 0, {}, "slide"},
        {"FIT-11 two packs meet something", fitBattery,
         [=](Setting &s) {
             slides(s, 10, 4, "b");
             s.build.parts[1].slide = s.build.parts[0].slide;
             SlideSurvey other = s.survey.slides[0];
             other.part = "b";
             other.free_max_mm = 3; // the tighter one speaks
             other.stopFore = "a";
             s.survey.slides.push_back(other);
         },
         note, -7, "b can slide 10.0 mm aft and 3.0 mm forward", "slide"},
        {"FIT-11 meets something", fitBattery, [](Setting &s) { slides(s, 10, 4, "b"); }, note, -6,
         "can slide 10.0 mm aft and 4.0 mm forward", "slide"},
        {"FIT-11 slides no more",
         fitBattery,
         [](Setting &s) {
             slides(s, 10, 4, "b"); // seen before the slide was taken away
             s.build.parts[0].slide.reset();
         },
         {}},
        {"WIR-9 far enough", wirZone, [=](Setting &s) { overBlades(s, blades + kHair); }, pass, 0},
        {"WIR-9 nearer", wirZone, [=](Setting &s) { overBlades(s, blades - 0.1); }, watch, -0.1, "mm from the"},
        {"WIR-9 in the blades", wirZone, [=](Setting &s) { overBlades(s, -1); }, stop, -blades, "through the zone"},
        {"WIR-9 far away", wirZone, [=](Setting &s) { overBlades(s, blades + 6); }, {}},
        {"WIR-10 far enough", wirEscGap, [=](Setting &s) { besideController(s, quiet + kHair); }, pass, 0},
        {"WIR-10 nearer", wirEscGap, [=](Setting &s) { besideController(s, quiet - 0.1); }, note, -0.1, "mm from c"},
        {"WIR-10 shielded",
         wirEscGap,
         [](Setting &s) { besideController(s, 1, WireRole::video, WireLay::shielded); },
         {}},
        {"WIR-10 a lamp's wire", wirEscGap, [](Setting &s) { besideController(s, 1, WireRole::signal); }, {}},
    };
}

} // namespace waxis::test
