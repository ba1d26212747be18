// Builds in which every field that a file can hold is set.
#pragma once

#include "core/build/log.h"
#include "support/builds.h"
#include "support/weighings.h"

namespace waxis::test {

/// A build in which no field of version 0.1 has its standard value.
inline Build everyFieldOfTheFirstVersion() {
    Build build;
    build.name = "Every field";
    build.note = "größer als \"null\"\n";
    build.practice = {"sprint", {{"cg-offset", 1.5}}, {{"battery", "below"}}, {}};
    Frame frame;
    frame.name = "Frame";
    frame.layout = "quad-x";
    frame.layoutParameters = {{"arm_mm", 120.5}};
    MotorMount mount;
    mount.id = "m1";
    mount.position_mm = {100, 90, 1};
    mount.axis = Vec3(0, 0.6, 0.8);
    mount.propDiameter_mm = 127;
    mount.propPlane_mm = 21;
    mount.flexUp_mm = 11;
    mount.flexDown_mm = 7;
    mount.spin = Spin::counterClockwise;
    mount.pattern = {PatternShape::circle, 16, 0, 3.2, 3};
    frame.motorMounts = {mount};
    frame.arms = {{"arm-1",
                   {1, 2, 3},
                   {100, 90, 1},
                   14,
                   5,
                   ArmSection::bar,
                   0,
                   "glass",
                   40.0,
                   {},
                   false,
                   {},
                   measuredValue(17, 0.1)}};
    Plate plate;
    plate.id = "main";
    plate.name = "Main plate";
    plate.outline_mm = {{-50, -20}, {50, -20}, {50, 20}, {-50, 20}};
    plate.holes = {{{30, 10}, 3.2}};
    plate.cutouts_mm = {{{-10, -5}, {0, -5}, {0, 5}}};
    plate.z_mm = -2;
    plate.thickness_mm = 2;
    plate.material = "mine";
    plate.isolated = true;
    plate.mass_g = {12.5, 0.5, Source::estimated};
    frame.plates = {plate};
    frame.standoffs = {{"so-1", StandoffRole::standoff, {20, 10, 0}, 25, 5, 3, "M2.5", "steel", catalogueValue(1.5)}};
    Site site;
    site.id = "deck";
    site.name = "Deck";
    site.kind = SiteKind::mast;
    site.X_FrameSite = {{1, 2, 3}, quaternionFrom({10, 20, 30})};
    site.on = "main";
    site.pattern = HolePattern{PatternShape::rectangle, 16, 19, 3.2, 4};
    site.isolated = true;
    frame.sites = {site};
    frame.passThroughs = {{"pass-1", "main", {{0, 0}, {4, 0}, {4, 4}}, HoleEdge::grommet}};
    frame.materials = {{"mine", 1.7, true, true}};
    build.frame = frame;

    PartType type;
    type.id = "type-1";
    type.name = "Type";
    type.maker = "Osier";
    type.kind = PartKind::gps;
    type.note = "remark";
    Solid box = test::solidBox({10, 20, 5}, {1, 2, 3});
    box.role = SolidRole::shield;
    box.material = "fr4";
    box.bare = true;
    box.X_PartSolid.rotation = quaternionFrom({0, 45, 0});
    Solid tube = box, ball = box, prism = box;
    tube.shape = Cylinder{4, 9};
    ball.shape = Sphere{6};
    prism.shape = Prism{{{{0, 0}, {9, 0}, {9, 9}, {0, 9}}, {{{2, 2}, {4, 2}, {4, 4}}}}, 1.6};
    type.solids = {box, tube, ball, prism};
    type.mass_g = catalogueValue(9.8, 0.2);
    type.centreOfMass_mm = Vec3(0.5, 0, 1);
    type.mounting = HolePattern{PatternShape::square, 20, 0, 2.2, 4};
    type.arrow = Vec3(0, 1, 0);
    type.ports = {
        {"uart", PortKind::socket, {5, 0, 1}, {0, 0, 1}, {6, 4, 3}, {{"5V", {}, false}, {"GND", {}, false}}, true}};
    type.hot = type.flexible = true;
    type.maxThrust_gf = catalogueValue(900);
    build.types = TypeTable{{type.id, type}};

    Part part;
    part.id = "part-1";
    part.type = type.id;
    part.name = "Part";
    part.placement = {"deck", {{1, 2, 3}, quaternionFrom({0, 0, 180})}, 0.4};
    part.fastening = {FasteningMethod::hookAndLoop, {"main"}, true, {}};
    part.mass_g = measuredValue(9.9, 0.1);
    part.optional = part.pinned = true;
    part.slide = SlideRange{{0, 1, 0}, -3, 4};
    build.parts = {part};
    build.allowances = {{"solder", "Solder", {4, 1, Source::estimated}, {0, 0, 5}}};
    build.loadCases = {{"all", "All", {"part-1"}, "part-1", true}};
    build.acceptances = {{"FIT-1:part-1:main", "foam"}};
    return build;
}

/// A build in which no field has its standard value.
inline Build everyField() {
    Build build = everyFieldOfTheFirstVersion();
    build.frame.edit([](Frame &frame) {
        frame.numbering = "own";
        frame.motorMounts[0].number = 3;
        frame.standoffs[0].role = StandoffRole::bobbin;
        frame.screws = {
            {"frame-screw", {20, 10}, true, "M2.5", HeadStyle::cap, 8, {"main"}, "so-1", FastenerForm::pressNut}};
        frame.arms[0].foldAngle_deg = 75;
        frame.arms[0].foldsDown = true;
        frame.arms[0].section = ArmSection::tube;
        frame.arms[0].wall_mm = 1.5;
        frame.arms[0].hinge_g = 6;
        frame.arms[0].holes = {{30, 6, ArmWall::left, HoleEdge::grommet}};
        frame.plates[0].sag_mm = measuredValue(1.2, 0.2);
        frame.standoffs[0].travel_mm = 3.5;
    });
    build.practice.notes = {{"cg-offset", "a slow craft"}};
    build.parts[0].fastening.pieces = 3;
    build.parts[0].fastening.sag_mm = measuredValue(0.4, 0.1);
    build.parts[0].note = "from the spare box";
    build.parts[0].channels = {ChannelFunction::pitch, ChannelFunction::arm};
    build.loadCases[0].kind = LoadCaseKind::bench;
    build.loadCases[0].usb = "part-1";
    build.loadCases[0].off = {"part-1"};
    build.types.edit([](TypeTable &types) {
        PartType &type = types.begin()->second;
        type.turns = Spin::clockwise;
        type.propDiameter_mm = 127;
        type.carries = HolePattern{PatternShape::square, 25.5, 0, 2.2, 4};
        Electrical electrical;
        electrical.supplyMin_V = 4.5;
        electrical.supplyMax_V = 26;
        electrical.typical_A = catalogueValue(0.4, 0.1);
        electrical.peak_A = {0.9, std::nullopt, Source::estimated};
        electrical.outputs = {{"5v", 5, 2, 0.88}, {"3v3", 3.3, 0.3, std::nullopt}};
        electrical.continuous_A = 45;
        electrical.cells = 6;
        electrical.capacity_mAh = 1300;
        electrical.cellFull_V = 4.35;
        electrical.capacitance_uF = 470;
        electrical.rated_V = 35;
        electrical.draw = Draw::constantPower;
        electrical.drawnAt_V = 16;
        electrical.resistance_Ohm = 0.0005;
        electrical.rated_W = 3;
        electrical.forward_V = 0.4;
        type.electrical = electrical;
        type.radio = {{5645, 5945, 26, true, 20, 6, 30, 45, 40, 31, -18, 12, {{"3", 5740}, {"", 5780}}, "ant"},
                      {1575.42, 1575.42, {}, true, {}, {}, {}, {}, {}, {}, {}, {}, {}, ""}};
        type.clocks = {{"pixel clock", 27}};
        type.antenna = Antenna{AntennaKind::patch,
                               5600,
                               5950,
                               8,
                               Polarisation::leftCircular,
                               {1, 2, 3},
                               {0, 0.6, 0.8},
                               60,
                               "RP-SMA",
                               "rg316",
                               2.5,
                               {{0, 8}, {90, -3.5}}};
        type.camera = Camera{{1, 2, 3}, {0.8, 0, 0.6}, 120, 90, -5, 45};
        type.magnetics = Magnetics{{10, -20, 30}, true, Vec3(1, 2, 3), 90, true};
        type.leads = {{"uart", 150, 28, "1 mm plug", {"TX", "5V", "GND"}, {"white", "red", "black"}, Vec3(9, 5, 4)}};
        type.functions = {ChannelFunction::roll, ChannelFunction::none, ChannelFunction::gimbalTilt};
        type.threadDepth_mm = catalogueValue(4.5, 0.2);
        type.travels = {{"tilt", {1, 2, 3}, {0, 0.6, 0.8}, -30, 90, 1}};
        type.strapLength_mm = 200;
        type.coolingArea_cm2 = 24;
        type.propPitch_mm = 101.6;
        type.propBlades = 3;
        type.bore_mm = 5;
        type.shaft_mm = 5;
        type.shaftThread = "M5";
        type.fastener = FastenerData{FastenerForm::standoff, "M2.5", 8.5, HeadStyle::countersunk, 6, 3.5, 4};
        type.mustSeeSky = type.fragile = true;
        type.ports[0].pins.push_back({"TX", 3.3, true, SignalKind::oneWire, ChannelFunction::yaw});
        type.ports[0].contacts = Contacts::exposed;
        type.ports[0].keyed = type.ports[0].locks = true;
        type.ports[0].rows = 2;
        type.ports[0].pitch_mm = 1.25;
        type.ports[0].padSize_mm = 1.6;
        type.ports[0].joint = PadJoint::surface;
        type.ports[0].connector = "RP-SMA female";
        Solid skin = type.solids[0];
        skin.shape = Mesh{{{0, 0, 0}, {10, 0, 0}, {0, 10, 0}, {0, 0, 10}},
                          {{0, 2, 1}, {0, 1, 3}, {0, 3, 2}, {1, 2, 3}},
                          ShapeProperties{170, {2.4, 2.5, 2.6}, Mat3::Identity() * 900}};
        type.solids.push_back(skin);
    });
    build.parts[0].turns = Spin::counterClockwise;
    for (const char *id : {"board-1", "piece-1", "screw-1"}) {
        Part member = build.parts[0];
        member.id = id;
        member.placement.site = "deck";
        member.fastening = {FasteningMethod::stack, {}, false, {}};
        build.parts.push_back(member);
    }
    Wire wire;
    wire.id = "wire-1";
    wire.name = "Loom";
    wire.from = {"part-1", "uart"};
    wire.to = {"screw-1", "uart"};
    wire.cores = {{"5V", "5V", 26, "orange"}, {"TX", "TX", {}, {}}};
    wire.lay = WireLay::shielded;
    wire.gauge_AWG = 28;
    wire.twistPitch_mm = 14;
    wire.make = WireMake::readyMade;
    wire.readyMade_mm = 120;
    wire.stops = {{"tie-1", Vec3::Zero()}, {std::string(), Vec3(1, 2, 3)}};
    wire.bundle = "loom";
    wire.splices = 2;
    wire.sleeved = true;
    wire.edgesTaped = true;
    wire.inserts = {{"type-1", 1, 0.25, true}};
    wire.fromPlug = WirePlug{"1.0 mm lock plug", 4, true, Vec3(8, 6, 3)};
    wire.toPlug = WirePlug{"open plug", 2, true, {}};
    build.wires = {wire};
    build.ties = {{"tie-1", Vec3(4, 5, 6)}};
    build.radioSettings = {{"part-1", 1, 1575.42, std::nullopt}, {"part-1", 0, 5740, 14}};
    build.groundStations = {
        {"ground-1", "Handset", "part-1", 1, 7.5, Polarisation::rightCircular, 1200, 2.5, 60, 20, 5, 9}};
    build.stepsDone = {{"fit:part-1", "2026-11-30T19:05:00", "part-1"}};
    build.ownSteps = {{"own-1", "Engrave the plate", "fit:part-1"}};
    build.ownOrder = {{"fit:part-1", "own-1", "the jig asks for it"}};
    build.checkResults = {{"idle", "0.21 A", true, "2026-11-30T19:10:00"}};
    build.log.edit([](Log &log) {
        log.sessions = {{"session-1",
                         "First hover",
                         "2026-05-14T10:20:00+02:00",
                         "North dyke",
                         12,
                         49.1,
                         18.5,
                         "light",
                         SkyAround::trees,
                         "all",
                         "0123456789abcdef",
                         "as first flown",
                         "calm",
                         {"pictures/dyke.jpg"}}};
        Entry logged;
        logged.id = "entry-1";
        logged.session = "session-1";
        logged.quantity = Quantity::flight;
        logged.subjects = {"part-1"};
        logged.values = {9.7, 1850};
        logged.tolerance = 0.2;
        logged.word = "calm";
        logged.text = "a little jello";
        logged.cure = "softer pads";
        logged.blocks = true;
        logged.packFull = false;
        logged.setAside = true;
        logged.loadCase = "all";
        logged.instrument = "timer";
        logged.raw = "9:42";
        logged.at = "2026-05-14T10:31:00+02:00";
        log.entries = {logged};
        Trial trial;
        trial.id = "log-trial-1";
        trial.question = "Where is it quickest?";
        trial.part = "part-1";
        trial.quantity = TrialQuantity::other;
        trial.satellites = 12;
        trial.longest_s = 360;
        trial.unit = "grunts";
        trial.moreIsBetter = true;
        trial.setups = {{"way-1", "Mast", StoodAt{{Vec3(7, 8, 9), Quat(0.6, 0, 0, 0.8)}}, "first one", "foam",
                         "twisted", "copper, one end", "off", "USB bank", "cold", 401, true, "leaned back"}};
        Try one;
        one.id = "try-1";
        one.setup = "way-1";
        one.session = "session-1";
        one.at = "2026-05-14T10:40:00+02:00";
        one.value = 118;
        one.reached = false;
        one.watched_s = 360;
        one.fix_s = 31.5;
        one.reached_s = {12, 14.5, 20};
        one.series = {{10, 4, 9, 41.5, 1.9}};
        one.heard = {{"GA", 11, 42, 187, 38.5}};
        one.nose_deg = 90;
        one.instrument = "receiver";
        one.rawFile = "tries/1.nmea";
        one.setAside = true;
        one.note = "a cloud";
        trial.tries = {one};
        trial.note = "before the rain";
        log.trials = {trial};
        log.snapshots = {
            {"state-1", "As drawn first", "2026-05-13T20:00:00+02:00", "before the mast", "00ff", std::string("{}")}};
    });
    build.trials = {{"trial-1", "Mast", "part-1", {Vec3(7, 8, 9), Quat(0.6, 0, 0, 0.8)}}};
    build.weighings = {
        test::weighed("scale-1", "On the scale", build.loadCases.empty() ? std::string() : build.loadCases[0].id,
                      WeighingMethod::total, measuredValue(812.5, 0.5), {}, {}, 0.75, {}, 1.5),
        test::weighed("scales-1", "Three scales", {}, WeighingMethod::scales, {}, {{60, 60}, {60, -60}, {-80, 0}},
                      {310, 295, 402}, 1, {}, 2),
        test::weighed("rod-1", "Rod", {}, WeighingMethod::lines, {}, {}, {}, 1, {{{3, 4}, 90}, {{1, 2}, -5}}, 1)};
    build.weightLimits = {{"limit-1", "Class", 249.5, "all"}};
    Stack stack;
    stack.id = "stack-1";
    stack.name = "Controller";
    stack.on = "deck";
    stack.through = "main";
    stack.hold = StackHold::ties;
    stack.screws = {"screw-1"};
    stack.headsOutside = true;
    stack.end = ScrewEnd::frame;
    stack.threadDepth_mm = measuredValue(3.5, 0.1);
    stack.cut_mm = 1.5;
    stack.sag_mm = measuredValue(0.6, 0.1);
    stack.layers = {{LayerRole::frame, {}, {}, 0, {}},
                    {LayerRole::damper, {"piece-1"}, measuredValue(3.9, 0.2), 0.15, 2.5},
                    {LayerRole::board, {"board-1"}, {}, 0, {}},
                    {LayerRole::wires, {}, {2.0, std::nullopt, Source::estimated}, 0, {}}};
    build.stacks = {stack};
    KitEntry entry;
    entry.item = "type-1";
    entry.inHand = 2;
    entry.mass_g = measuredValue(9.7, 0.1);
    entry.size_mm = Vec3(10.1, 20.2, 5.3);
    entry.checked = entry.arrowConfirmed = entry.pinsConfirmed = true;
    entry.note = "the blue one";
    build.kit = {entry};
    return build;
}

} // namespace waxis::test
