// Rows for what looks, wires, links and single antennas say.
#include "core/coverage/coverage.h"
#include "core/links/channels.h"
#include "core/links/link_report.h"
#include "core/power/power_report.h"
#include "core/radio/coax.h"
#include "core/radio/decibel.h"
#include "core/radio/radio_report.h"
#include "core/rule_rows/setting.h"
#include "core/survey/reach.h"
#include "core/survey/survey.h"
#include "core/survey/views.h"
#include "core/wiring/routing.h"
#include "core/wiring/wire_report.h"

namespace waxis::test {

namespace {

AccessSurvey access(bool hand, std::optional<std::vector<std::string>> takeOff,
                    std::vector<std::string> blockers = {}) {
    AccessSurvey out;
    out.part = "a";
    out.port = "usb";
    out.hand = hand;
    out.takeOff = std::move(takeOff);
    out.blockers = std::move(blockers);
    return out;
}

void cameraHidden(Setting &s, double hidden, double propellers) {
    s.type("a", [](PartType &type) {
        type.kind = PartKind::flightCamera;
        type.camera.emplace();
    });
    CameraSurvey camera;
    camera.part = "a";
    camera.loadCase = "case";
    camera.now.hidden = hidden;
    camera.now.propellers = propellers;
    camera.now.by = {{"b", hidden}};
    s.survey.cameras = {camera};
}

void lampSeen(Setting &s, double seen, double dark_deg = 0) {
    LampSurvey lamp;
    lamp.part = "a";
    lamp.port = "led";
    lamp.view.seen = seen;
    lamp.view.darkSector_deg = dark_deg;
    lamp.view.by = {{"b", 1 - seen}};
    s.survey.lamps = {lamp};
}

void skyHidden(Setting &s, double level, double cruise, double leans_deg = 0, double cruiseLeans_deg = 0) {
    SkySurvey sky;
    sky.part = "a";
    sky.loadCase = "case";
    sky.level.hidden = level;
    sky.cruise.hidden = cruise;
    sky.level.axisToZenith_deg = leans_deg;
    sky.cruise.axisToZenith_deg = cruiseLeans_deg;
    s.survey.skies = {sky};
}

void drop(Setting &s, double peak_V) {
    Rail &rail = s.rail("b", "5V", "a");
    rail.loads[0].wires = {0};
    rail.loads[0].peakDrop_V = peak_V;
}

void hole(Setting &s, double fill) {
    s.wire("x", "x");
    HoleUse use;
    use.pass = "slot";
    use.wires = {0};
    use.fill = fill;
    use.limit = 0.4;
    s.wiringReport.holes = {use};
}

void softController(Setting &s, int stiff) {
    s.kind("a", PartKind::flightController);
    BodyOwner owner;
    owner.id = "a";
    owner.isolated = true;
    s.owners = {owner};
    for (int i = 0; i < stiff; ++i) {
        s.wire("x", "y");
        s.wiringReport.wires.back().gauge_AWG = 22;
    }
    s.wire("x", "y"); // a thin one
    s.wiringReport.wires.back().gauge_AWG = 24;
}

void noWay(Setting &s, bool found, bool makeshift, bool ends) {
    s.wire("x", "y");
    s.routes[0].found = found;
    s.routes[0].makeshift = makeshift;
    if (ends) s.routes[0].points_mm = {Vec3::Zero(), Vec3::UnitX()};
}

/// A pack "a" joined to "b".
void pack(Setting &s, PortKind far, std::optional<std::string> plug) {
    s.kind("a", PartKind::battery);
    s.port("a", "main", PortKind::plug, {"BAT", "GND"});
    s.port("b", "in", far, {"BAT", "GND"});
    s.wire("main", "in");
    if (plug)
        s.type("a", [&](PartType &type) {
            SuppliedLead lead;
            lead.port = "main";
            lead.plug = *plug;
            type.leads.push_back(lead);
        });
}

/// A video transmitter "a" on a rail of "b", which feeds motors as well when `shared`.
void tap(Setting &s, const char *output, const char *school, bool shared = false) {
    s.kind("a", PartKind::videoTransmitter);
    s.kind("b", PartKind::esc);
    Rail &rail = s.rail("b", output, "a");
    if (shared) {
        RailLoad motors;
        motors.part = "b";
        rail.loads.push_back(motors);
        s.powerReport.motors.push_back({"m1", "motor", "b", 5, 20});
        s.wire("x", "y");
        rail.loads[0].wires = {0};
    }
    s.follow("video-power", school);
}

void receiver(Setting &s, std::vector<std::string> channels, bool gimbal = false) {
    s.kind("a", PartKind::receiver);
    if (gimbal) s.kind("b", PartKind::gimbal);
    s.port("a", "channels", PortKind::pads, std::move(channels));
    s.linksReport.wanted = wantedFunctions(s.build);
}

/// "a" sends, "b" listens; so many dB are left until it is overloaded.
void overload(Setting &s, double left_dB) {
    s.radio("a", 27.0);
    s.radio("b");
    s.radioReport.rows = {{DisturberKind::sender, "a", 0}};
    s.radioReport.columns = {{"b", 1, -1}};
    RadioCell cell;
    cell.counts = true;
    cell.coupling.emplace();
    cell.arrives_dBm = -10;
    cell.blockingMargin_dB = left_dB;
    s.radioReport.cells = {cell};
}

void edge(Setting &s, std::optional<double> angle_deg) {
    s.radio("a", 27.0);
    AntennaSurroundings around;
    around.edge = "b";
    around.edge_deg = angle_deg;
    s.radioReport.surroundings = {around};
}

void covered(Setting &s, std::vector<double> lost) {
    RadioCoverage coverage;
    coverage.radio = "a";
    for (const double share : lost) {
        AntennaCoverage antenna;
        antenna.part = "a";
        antenna.lost = share;
        antenna.by = {{"b", share}};
        coverage.antennas.push_back(antenna);
    }
    s.survey.coverages = {coverage};
}

/// A radio whose antenna ends so many percent below its band.
void offBand(Setting &s, double percent) {
    RadioUse &radio = s.radio("a", 20.0);
    radio.centre_MHz = 2500;
    radio.low_MHz = radio.high_MHz = 2500;
    radio.antennas[0].antenna.high_MHz = 2500 * (1 - percent / 100);
}

/// Antenna "a" on radio "b" by a pigtail; its coax is led over `route_mm`.
void pigtail(Setting &s, double route_mm, double pigtail_mm) {
    s.wire("x", "y");
    s.routes[0].points_mm = {Vec3::Zero(), Vec3(route_mm, 0, 0)};
    s.routes[0].length_mm = route_mm;
    RadioUse &radio = s.radio("b", 20.0);
    radio.antennas[0].part = "a";
    radio.antennas[0].wire = "w1";
    radio.antennas[0].antenna.pigtail_mm = pigtail_mm;
}

/// A wire of AWG 20, good for 11 A, that carries so much.
void carries(Setting &s, double typical_A, double peak_A, bool known = true) {
    s.wire("x", "y");
    s.wiringReport.wires[0].gauge_AWG = 20;
    s.powerReport.wires.push_back({typical_A, peak_A, known, 1});
}

/// What "a" sends is heard by "b" so that its noise floor rises by so many dB.
void rise(Setting &s, double rise_dB, bool inBand = false) {
    overload(s, 100);
    RadioCell &cell = s.radioReport.cells[0];
    cell.floor_dBm = -100;
    cell.heard_dBm = -100 + decibels(powerRatio(rise_dB) - 1);
    cell.spilled_dBm = -300;
    cell.inBand = inBand;
}

void harmonic(Setting &s, double rise_dB) {
    overload(s, 100);
    HarmonicProduct product;
    product.listener = 1;
    product.rise_dB = rise_dB;
    s.radioReport.harmonics = {product};
}

void clockHit(Setting &s, double distance_mm) {
    s.radio("b");
    ClockHit hit;
    hit.part = "a";
    hit.clock = "8 MHz";
    hit.distance_mm = distance_mm;
    s.radioReport.clocks = {hit};
}

/// Something that conducts stands so far from an antenna for waves of 160 mm.
void conductor(Setting &s, double away_mm, double wave_mm = 160) {
    s.radio("a", 20.0);
    AntennaSurroundings around;
    around.lambda_mm = wave_mm;
    around.conductor = "b";
    around.conductor_mm = away_mm;
    s.radioReport.surroundings = {around};
}

/// A bend of so many mm where 10 are wanted, in a wire 2 mm thick.
void bend(Setting &s, double radius_mm, int gauge_AWG) {
    s.wire("x", "y");
    WireReport &report = s.wiringReport.wires[0];
    report.gauge_AWG = gauge_AWG;
    report.outer_mm = 2;
    report.tightest_mm = radius_mm;
    report.bendLimit_mm = 10;
}

void output(Setting &s, const char *esc, const char *pin) {
    s.wire("x", "y");
    s.linksReport.motors = {{"m1", 1, pin, esc}};
}

/// "a" wants a serial port; so many are free.
void serialPorts(Setting &s, int free) {
    s.kind("a", PartKind::gps);
    s.port("a", "uart", PortKind::plug, {"TX", "RX"});
    s.wire("x", "y");
    s.linksReport.serial.resize(4);
    s.linksReport.freeSerial = free;
}

double bend_mm() { return practiceOf({})[Limit::bendCoax] * usualCoax().outer_mm; }

std::vector<std::string> channels(int count) {
    std::vector<std::string> names;
    for (int i = 1; i <= count; ++i) names.push_back("CH" + std::to_string(i));
    return names;
}

} // namespace

std::vector<Row> lookRows() {
    using enum Severity;
    using enum RuleId;
    const double hidden = limitOf(Limit::cameraHidden) / 100, discs = limitOf(Limit::cameraPropellers) / 100,
                 lamp = limitOf(Limit::lampSeen) / 100, sky = limitOf(Limit::skyHidden) / 100,
                 lost = limitOf(Limit::coverageLost) / 100, dropped = limitOf(Limit::dropShare) / 100 * 5;
    const double share = limitOf(Limit::wireShare) / 100, watched = limitOf(Limit::desenseWatch),
                 deaf = limitOf(Limit::desenseStop), clockGap = limitOf(Limit::digitalGnssGap),
                 kept = limitOf(Limit::antennaClear), near = limitOf(Limit::antennaConductor) / 100;
    const int stiff = int(limitOf(Limit::stiffWires));
    const double reserve = limitOf(Limit::blockingReserve), along = limitOf(Limit::edgeAngle);
    return {
        {"FIT-6 free", fitAccess, [](Setting &s) { s.survey.access = {access(true, std::vector<std::string>{})}; },
         pass, 0},
        {"FIT-6 one in the way", fitAccess,
         [](Setting &s) { s.survey.access = {access(true, std::vector<std::string>{"b"}, {"b"})}; }, watch, -1,
         "b must come off to reach the"},
        {"FIT-6 two in the way", fitAccess,
         [](Setting &s) {
             s.survey.access = {access(true, std::vector<std::string>{"b", "b"}, {"b"})};
         },
         watch, -2, "2 things must come off"},
        {"FIT-6 nothing helps", fitAccess, [](Setting &s) { s.survey.access = {access(true, {}, {"b"})}; }, stop, -100,
         "cannot be reached"},
        {"FIT-6 not for hands", fitAccess, [](Setting &s) { s.survey.access = {access(false, {}, {"b"})}; }, {}},
        {"FIT-6 not looked", fitAccess, [](Setting &) {}, {}},
        {"FIT-7 room", fitMating, [](Setting &s) { s.survey.access = {access(false, {})}; }, pass},
        {"FIT-7 no room", fitMating, [](Setting &s) { s.survey.access = {access(false, {}, {"b"})}; }, watch, 0,
         "has no room for its plug"},
        {"FIT-7 two ports of one board", fitMating,
         [](Setting &s) {
             s.survey.access = {access(false, {}, {"b"}), access(false, {}, {"b"})};
             s.survey.access[1].port = "other";
         },
         watch, 0, "have no room for their plugs"},
        {"FIT-8 at the limit", fitCamera, [=](Setting &s) { cameraHidden(s, hidden, 0); }, pass, 0, {}, "view"},
        {"FIT-8 a tenth over", fitCamera, [=](Setting &s) { cameraHidden(s, hidden + 0.001, 0); }, watch, -0.1,
         "sees the craft in", "view"},
        {"FIT-8 discs at the limit",
         fitCamera,
         [=](Setting &s) { cameraHidden(s, 0, discs); },
         pass,
         0,
         {},
         "propellers"},
        {"FIT-8 discs over it", fitCamera, [=](Setting &s) { cameraHidden(s, 0, discs + 0.001); }, watch, -0.1,
         "sees propellers in", "propellers"},
        {"FIT-8 lens in front", fitCamera,
         [](Setting &s) {
             cameraHidden(s, 0, 0);
             s.survey.cameras[0].overshoot_mm = limitOf(Limit::lensOvershoot) + 0.5;
         },
         watch, -0.5, "in front of its protection", "protection"},
        {"FIT-8 not looked", fitCamera, [](Setting &s) { s.kind("a", PartKind::flightCamera); }, {}},
        {"FIT-10 at the limit", fitLamp, [=](Setting &s) { lampSeen(s, lamp); }, pass, 0},
        {"FIT-10 a tenth less", fitLamp, [=](Setting &s) { lampSeen(s, lamp - 0.001); }, watch, -0.1,
         "Status lamp of a"},
        {"FIT-10 dark sector", fitLamp, [=](Setting &s) { lampSeen(s, lamp, 60); }, pass, 0},
        {"FIT-10 a wider one", fitLamp, [=](Setting &s) { lampSeen(s, 0.9, 61); }, watch, -1, "over 61°"},
        {"FIT-8 half the picture", fitCamera,
         [](Setting &s) {
             s.kind("a", PartKind::flightCamera);
             cameraHidden(s, 0.5, 0);
         },
         watch, 100 * (hidden - 0.5), "sees the craft", "view"},
        {"FIT-8 more than half", fitCamera,
         [](Setting &s) {
             s.kind("a", PartKind::flightCamera);
             cameraHidden(s, 0.501, 0);
         },
         stop, 100 * (hidden - 0.501), "sees the craft", "view"},
        {"NAV-1 little sky", navSky, [](Setting &s) { skyHidden(s, 0.8, 0); }, watch, 100 * (sky - 0.8),
         "of the sky is hidden", "level"},
        {"NAV-1 no sky", navSky, [](Setting &s) { skyHidden(s, 0.801, 0); }, stop, 100 * (sky - 0.801),
         "too much for a position", "level"},
        {"NAV-1 no sky in cruise", navSky, [](Setting &s) { skyHidden(s, 0, 0.9); }, stop, 100 * (sky - 0.9),
         "in fast flight, too much for a position", "cruise"},
        {"NAV-1 leans in cruise", navSky, [](Setting &s) { skyHidden(s, 0, 0, 0, 31); }, note, -1,
         "leans 31.0° forward", "cruise-lean"},
        {"NAV-1 at the limit", navSky, [=](Setting &s) { skyHidden(s, sky, 0); }, pass, 0, {}, "level"},
        {"NAV-1 over it", navSky, [=](Setting &s) { skyHidden(s, sky + 0.001, 0); }, watch, -0.1,
         "of the sky is hidden", "level"},
        {"NAV-1 in cruise", navSky, [=](Setting &s) { skyHidden(s, 0, sky + 0.001); }, watch, -0.1,
         "is hidden in fast flight", "cruise"},
        {"NAV-1 leans much", navSky, [](Setting &s) { skyHidden(s, 0, 0, 61); }, watch, -1, "leans 61", "lean"},
        {"NAV-1 looks down", navSky, [](Setting &s) { skyHidden(s, 0, 0, 91); }, stop, -31, "leans 91", "lean"},
        {"WIR-3 at the limit", wirDrop, [=](Setting &s) { drop(s, dropped); }, pass, 0},
        {"WIR-3 over it", wirDrop, [=](Setting &s) { drop(s, dropped + 0.005); }, watch, -0.1, "on the way from b"},
        {"WIR-3 no wires", wirDrop, [](Setting &s) { s.rail("b", "5V", "a"); }, {}},
        {"WIR-8 at the limit", wirFill, [](Setting &s) { hole(s, 0.4); }, pass, 0},
        {"WIR-8 over it", wirFill, [](Setting &s) { hole(s, 0.41); }, watch, -1, "slot is 41 % full"},
        {"WIR-8 more than full", wirFill, [](Setting &s) { hole(s, 1.01); }, stop, -61, "slot is 101 % full"},
        {"WIR-11 at the limit", wirSoft, [=](Setting &s) { softController(s, stiff); }, pass, 0},
        {"WIR-11 one more", wirSoft, [=](Setting &s) { softController(s, stiff + 1); }, watch, -1,
         "stiff wires pull at"},
        {"WIR-13 found", wirRoute, [](Setting &s) { noWay(s, true, false, true); }, {}},
        {"WIR-13 still looked for", wirRoute, [](Setting &s) { noWay(s, false, true, true); }, {}},
        {"WIR-13 no way", wirRoute, [](Setting &s) { noWay(s, false, false, true); }, unknown, 0, "No way was found",
         "blocked"},
        {"WIR-13 no end", wirRoute, [](Setting &s) { noWay(s, false, false, false); }, unknown, 0, "ends at a port",
         "ends"},
        {"PWR-7 mates", pwrContacts, [](Setting &s) { pack(s, PortKind::plug, "power plug"); }, pass, 0, {}, "mates"},
        {"PWR-7 bare", pwrContacts, [](Setting &s) { pack(s, PortKind::plug, ""); }, stop, 0,
         "bare wires on the live side", "bare"},
        {"PWR-7 pins on the pack", pwrContacts,
         [](Setting &s) {
             pack(s, PortKind::plug, "power plug");
             s.type("a", [](PartType &type) { type.ports.back().contacts = Contacts::exposed; });
         },
         stop, 0, "a shows its pins on the live side", "exposed"},
        {"PWR-7 sockets on the pack",
         pwrContacts,
         [](Setting &s) {
             pack(s, PortKind::plug, "power plug");
             s.type("a", [](PartType &type) { type.ports.back().contacts = Contacts::covered; });
         },
         pass,
         0,
         {},
         "mates"},
        {"PWR-7 soldered", pwrContacts, [](Setting &s) { pack(s, PortKind::pads, "power plug"); }, watch, 0,
         "is soldered to b", "soldered"},
        {"PWR-8 on a rail", pwrTap, [](Setting &s) { tap(s, "9V", "rail"); }, pass},
        {"PWR-8 from the pack", pwrTap, [](Setting &s) { tap(s, "BAT", "rail"); }, watch, 0, "straight from the pack",
         "rail"},
        {"PWR-8 behind the controllers", pwrTap, [](Setting &s) { tap(s, "BAT", "plug", true); }, note, 0,
         "tapped behind the speed controllers", "plug"},
        {"PWR-8 at the plug", pwrTap, [](Setting &s) { tap(s, "BAT", "plug"); }, pass},
        {"PWR-8 no pack of its own", pwrTap, [](Setting &s) { tap(s, "BAT", "own-pack", true); }, note, 0,
         "shares its supply with the motors", "own-pack"},
        {"PWR-8 its own pack", pwrTap, [](Setting &s) { tap(s, "BAT", "own-pack"); }, pass},
        {"PWR-10 wiring not begun", pwrUnfed, [](Setting &s) { s.powerReport.unfed = {"a"}; }, {}},
        {"PWR-10 without a supply", pwrUnfed,
         [](Setting &s) {
             s.wire("x", "y");
             s.powerReport.unfed = {"a"};
         },
         unknown, 0, "a has no supply yet"},
        {"PWR-10 a controller without a supply", pwrUnfed,
         [](Setting &s) {
             s.wire("x", "y");
             s.kind("a", PartKind::flightController);
             s.powerReport.unfed = {"a"};
         },
         stop, -1, "a has no supply yet"},
        {"PWR-10 fed at the balance plug",
         pwrUnfed,
         [](Setting &s) {
             LinkFinding tap;
             tap.fault = LinkFault::balanceTap;
             tap.wires = {s.wire("x", "y").id};
             s.linksReport.faults = {tap};
             s.powerReport.unfed = {"a"};
         },
         {}},
        {"PWR-10 draws who knows", pwrUnfed,
         [](Setting &s) {
             s.wire("x", "y");
             s.rail("b", "5V", "a").loads[0].known = false;
         },
         unknown, 0, "What a draws is not known", "current"},
        {"LNK-11 five", lnkChannels, [](Setting &s) { receiver(s, channels(5)); }, pass, 0},
        {"LNK-11 four", lnkChannels, [](Setting &s) { receiver(s, channels(4)); }, watch, -1, "a has 4 channels; 5"},
        {"LNK-11 a gimbal more", lnkChannels, [](Setting &s) { receiver(s, channels(5), true); }, watch, -1,
         "a has 5 channels; 6"},
        {"LNK-11 serial",
         lnkChannels,
         [](Setting &s) {
             receiver(s, {"TX", "RX"});
         },
         {}},
        {"RAD-3 with the reserve", radBlocking, [=](Setting &s) { overload(s, reserve); }, pass, 0},
        {"RAD-3 into the reserve", radBlocking, [=](Setting &s) { overload(s, reserve - 0.5); }, watch, -0.5,
         "comes close to overloading"},
        {"RAD-3 overloaded", radBlocking, [=](Setting &s) { overload(s, -0.5); }, stop, -0.5 - reserve,
         "a overloads b"},
        {"RAD-8 across enough", radEdge, [=](Setting &s) { edge(s, along); }, pass, 0},
        {"RAD-8 along", radEdge, [=](Setting &s) { edge(s, along - 1); }, watch, -1, "lies along a carbon edge of b"},
        {"RAD-8 no edge near", radEdge, [](Setting &s) { edge(s, {}); }, {}},
        {"RAD-11 at the limit", radCoverage, [=](Setting &s) { covered(s, {lost}); }, pass, 0},
        {"RAD-11 over it", radCoverage, [=](Setting &s) { covered(s, {lost + 0.01}); }, watch, -1, "a is hidden in"},
        {"RAD-11 a second one helps", radCoverage,
         [=](Setting &s) {
             covered(s, {lost + 0.2, lost});
         },
         pass, 0},
        {"RAD-13 within", radBand, [](Setting &s) { offBand(s, 2); }, pass, -50},
        {"RAD-13 outside", radBand, [](Setting &s) { offBand(s, 2.1); }, watch, -52.5, "is not made for the band of"},
        {"RAD-13 another band", radBand, [](Setting &s) { offBand(s, 10.1); }, stop, -252.5,
         "is not made for the band of"},
        {"WIR-2 at the share", wirGauge, [=](Setting &s) { carries(s, 11 * share, 11); }, pass, 0},
        {"WIR-2 over the share", wirGauge, [=](Setting &s) { carries(s, 11 * share + 0.1, 11); }, watch, -0.1,
         "A in AWG 20, which is good for 11"},
        {"WIR-2 more than it bears", wirGauge, [=](Setting &s) { carries(s, 11.1, 11.1); }, stop, 11 * share - 11.1,
         "A in AWG 20"},
        {"WIR-2 not known", wirGauge, [](Setting &s) { carries(s, 30, 30, false); }, {}},
        {"WIR-5 wide enough", wirBend, [](Setting &s) { bend(s, 8.5, 14); }, pass, 0},
        {"WIR-5 thick and tight", wirBend, [](Setting &s) { bend(s, 8.4, 14); }, watch, -1.6, "a bend of 8.4 mm"},
        {"WIR-5 thin and soft", wirBend, [](Setting &s) { bend(s, 2, 26); }, pass, 0},
        {"WIR-5 thin and folded", wirBend, [](Setting &s) { bend(s, 1.9, 26); }, note, -8.1, "a bend of 1.9 mm"},
        {"LNK-9 no controller", lnkPorts, [](Setting &s) { s.wire("x", "y"); }, {}},
        {"LNK-9 enough", lnkPorts, [](Setting &s) { serialPorts(s, 1); }, unknown, 0, "a has no serial port yet",
         "waiting"},
        {"LNK-9 some left",
         lnkPorts,
         [](Setting &s) {
             serialPorts(s, 1);
             s.kind("a", PartKind::buzzer);
         },
         pass,
         1,
         {},
         "left"},
        {"LNK-9 none left", lnkPorts,
         [](Setting &s) {
             serialPorts(s, 0);
             s.kind("a", PartKind::buzzer);
         },
         note, 0, "0 of 4 serial ports left", "left"},
        {"LNK-9 too few", lnkPorts, [](Setting &s) { serialPorts(s, 0); }, stop, -1, "1 serial ports too few", "few"},
        {"LNK-10 its own output", lnkMotors, [](Setting &s) { output(s, "a", "M1"); }, pass, 0, {}, "order"},
        {"LNK-10 another's output", lnkMotors, [](Setting &s) { output(s, "a", "M2"); }, stop, -1,
         "number 1, on output 2", "order"},
        {"LNK-10 no controller", lnkMotors, [](Setting &s) { output(s, "", ""); }, unknown, 0,
         "has no speed controller yet", "no-esc"},
        {"LNK-10 no signal", lnkMotors, [](Setting &s) { output(s, "a", ""); }, stop, 0, "gets no signal", "no-signal"},
        {"RAD-2 just watched", radNoise, [=](Setting &s) { rise(s, watched + 0.1); }, watch, -0.1,
         "raises the noise of b"},
        {"RAD-2 not yet", radNoise, [=](Setting &s) { rise(s, watched - 0.1); }, pass, 0.1},
        {"RAD-2 too much", radNoise, [=](Setting &s) { rise(s, deaf + 0.1); }, stop, -0.1, "raises the noise of b"},
        {"RAD-2 in its band", radNoise, [=](Setting &s) { rise(s, deaf + 0.1, true); }, stop, -0.1,
         "sends in the band of b", "in band"},
        {"RAD-5 known of", radHarmonic, [=](Setting &s) { harmonic(s, watched - 0.1); }, note, 0.1, "Harmonic 2 of a"},
        {"RAD-5 watched", radHarmonic, [=](Setting &s) { harmonic(s, watched + 0.1); }, watch, -0.1, "falls on b"},
        {"RAD-6 far enough", radClock, [=](Setting &s) { clockHit(s, clockGap); }, pass, 0},
        {"RAD-6 nearer", radClock, [=](Setting &s) { clockHit(s, clockGap - 1); }, note, -1, "A clock of a"},
        {"RAD-7 far enough", radConductor, [=](Setting &s) { conductor(s, kept); }, pass, 0},
        {"RAD-7 nearer", radConductor, [=](Setting &s) { conductor(s, kept - 1); }, note, -1, "from b, which conducts"},
        {"RAD-7 a sixteenth of a wave", radConductor, [=](Setting &s) { conductor(s, 9.9); }, watch, 9.9 - kept,
         "from b, which conducts"},
        {"RAD-7 a quarter of a short wave is enough", radConductor, [=](Setting &s) { conductor(s, 52 * near, 52); },
         pass, 0},
        {"RAD-7 not even that", radConductor, [=](Setting &s) { conductor(s, 52 * near - 1, 52); }, note, -1,
         "from b, which conducts"},
        {"RAD-17 sends", radLaw, [](Setting &s) { s.radio("a", 20.0); }, note, 0, "Local law decides"},
        {"RAD-17 only listens", radLaw, [](Setting &s) { s.radio("a"); }, {}},
        {"PWR-9 no pack", pwrEndurance, [](Setting &s) { s.powerReport.hover.resize(1); }, {}},
        {"PWR-9 hovers", pwrEndurance,
         [](Setting &s) {
             s.powerReport.hover.resize(1);
             s.powerReport.hover[0].pack = "a";
             s.powerReport.hover[0].least_min = 4;
             s.powerReport.hover[0].most_min = 5;
         },
         note, 0, "4.0 to 5.0 minutes of hover on a"},
        {"PWR-9 two packs are one finding", pwrEndurance,
         [](Setting &s) {
             s.build.loadCases.resize(2);
             s.build.loadCases[0].id = "one";
             s.build.loadCases[1].id = "other";
             s.powerReport.hover.resize(2);
             s.powerReport.hover[0].pack = "b";
             s.powerReport.hover[0].least_min = 6;
             s.powerReport.hover[0].most_min = 7;
             s.powerReport.hover[1].pack = "a";
             s.powerReport.hover[1].least_min = 4;
             s.powerReport.hover[1].most_min = 5;
         },
         note, 0, "4.0 to 5.0 minutes of hover on a, 6.0 to 7.0 on b"},
        {"RAD-14 long enough", radPigtail, [](Setting &s) { pigtail(s, 100, 100 + bend_mm()); }, pass, 0},
        {"RAD-14 a millimetre short", radPigtail, [](Setting &s) { pigtail(s, 101, 100 + bend_mm()); }, stop, -1,
         "is 1 mm short of"},
        {"RAD-14 no length stated", radPigtail, [](Setting &s) { pigtail(s, 101, 0); }, {}},
    };
}

} // namespace waxis::test
