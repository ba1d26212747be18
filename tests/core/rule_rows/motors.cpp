// Rows for motors: their numbers, which way they turn, what is screwed onto them; and holes that line up.
#include "core/rule_rows/setting.h"

namespace waxis::test {

namespace {

void numbered(Setting &s, const char *numbering, std::vector<int> numbers) {
    s.build.frame.edit([&](Frame &frame) {
        frame.numbering = numbering;
        for (std::size_t i = 0; i < numbers.size(); ++i) frame.motorMounts[i].number = numbers[i];
    });
}

void turning(Setting &s, std::size_t mount, Spin spin) {
    s.build.frame.edit([&](Frame &frame) { frame.motorMounts[mount].spin = spin; });
}

/// "a" sits on the first mount, whose motor turns clockwise.
void onMotor(Setting &s, PartKind kind, std::optional<Spin> turns) {
    s.type("a", [&](PartType &type) {
        type.kind = kind;
        type.turns = turns;
    });
    s.build.parts[0].placement.site = "m1";
}

/// "a" is a propeller of so many millimetres on a mount of 127.
void sized(Setting &s, double diameter_mm) {
    onMotor(s, PartKind::propeller, Spin::clockwise);
    s.type("a", [&](PartType &type) { type.propDiameter_mm = diameter_mm; });
}

/// "a" is a propeller with such a hole, "b" its motor with such a shaft.
void bored(Setting &s, double bore_mm, double shaft_mm) {
    onMotor(s, PartKind::propeller, Spin::clockwise);
    s.type("a", [&](PartType &type) { type.bore_mm = bore_mm; });
    s.kind("b", PartKind::motor);
    s.type("b", [&](PartType &type) { type.shaft_mm = shaft_mm; });
    s.build.parts[1].placement.site = "m1";
}

/// "a" is a nut of that thread, "b" the motor under it with such a thread on its shaft.
void nutOn(Setting &s, const char *thread, const char *shaft) {
    s.type("a", [&](PartType &type) {
        type.kind = PartKind::fastener;
        type.fastener = FastenerData{FastenerForm::lockNut, thread};
    });
    s.build.parts[0].placement.site = "m1";
    s.kind("b", PartKind::motor);
    s.type("b", [&](PartType &type) { type.shaftThread = shaft; });
    s.build.parts[1].placement.site = "m1";
}

/// "a" is screwed onto a site of a plate, so far from its edge.
void screwed(Setting &s, double own_mm, double seat_mm, double hole_mm, double seatHole_mm, double land_mm = 10) {
    s.build.frame.edit([&](Frame &frame) {
        Plate plate;
        plate.id = "plate";
        const double half = seat_mm / 2 + land_mm;
        plate.outline_mm = {{-half, -half}, {half, -half}, {half, half}, {-half, half}};
        plate.thickness_mm = 2;
        frame.plates.push_back(plate);
        Site site;
        site.id = "site";
        site.name = "Site";
        site.on = "plate";
        site.pattern = HolePattern{PatternShape::square, seat_mm, 0, seatHole_mm, 4};
        frame.sites.push_back(site);
    });
    s.type("a", [&](PartType &type) { type.mounting = HolePattern{PatternShape::square, own_mm, 0, hole_mm, 4}; });
    s.build.parts[0].placement.site = "site";
    s.build.parts[0].fastening.method = FasteningMethod::screws;
}

} // namespace

std::vector<Row> motorRows() {
    using enum Severity;
    using enum RuleId;
    constexpr Spin clockwise = Spin::clockwise, counter = Spin::counterClockwise;
    constexpr double kM3Head = 5.5; // ISO 4762, from memory
    return {
        {"LNK-1 numbers of one's own",
         lnkNumbering,
         [](Setting &s) {
             numbered(s, "own", {4, 2, 3, 1});
         },
         {}},
        {"LNK-1 not numbered", lnkNumbering,
         [](Setting &s) {
             numbered(s, "", {0, 0, 0, 0});
         },
         unknown, 0, "The motors are not numbered", "unnumbered"},
        {"LNK-1 one without", lnkNumbering,
         [](Setting &s) {
             numbered(s, "own", {1, 2, 3, 0});
         },
         unknown, 0, "has no number", "missing"},
        {"LNK-1 the same twice", lnkNumbering,
         [](Setting &s) {
             numbered(s, "own", {1, 2, 3, 3});
         },
         stop, 0, "has a number that another has", "clash"},
        {"LNK-1 more than there are", lnkNumbering,
         [](Setting &s) {
             numbered(s, "own", {1, 2, 3, 5});
         },
         stop, 0, "has a number that another has", "clash"},
        {"LNK-1 against the custom", lnkNumbering,
         [](Setting &s) {
             numbered(s, "rear-right-first", {1, 2, 3, 4});
         },
         stop, -2, "Motors numbered otherwise than rear-right-first", "order"},

        {"LNK-13 nobody has begun", lnkMissing, [](Setting &) {}, {}},
        {"LNK-13 motors missing", lnkMissing, [](Setting &s) { onMotor(s, PartKind::motor, {}); }, stop, 0,
         "motor is missing", "motor"},
        {"LNK-13 propellers missing", lnkMissing, [=](Setting &s) { onMotor(s, PartKind::propeller, clockwise); }, stop,
         0, "has no propeller", "propeller"},
        {"LNK-13 all there",
         lnkMissing,
         [](Setting &s) {
             onMotor(s, PartKind::motor, {});
             for (const char *mount : {"m2", "m3", "m4"}) {
                 Part next = s.build.parts[0];
                 next.id = std::string("on-") + mount;
                 next.placement.site = mount;
                 s.build.parts.push_back(next);
             }
         },
         {}},
        {"LNK-2 in balance", lnkSpin, [](Setting &) {}, pass, 0, {}, "yaw"},
        {"LNK-2 one turned round", lnkSpin, [=](Setting &s) { turning(s, 0, counter); }, stop, -2,
         "2 more turn one way", "yaw"},
        {"LNK-2 neighbours alike", lnkSpin,
         [=](Setting &s) {
             turning(s, 0, clockwise);
             turning(s, 1, clockwise);
             turning(s, 2, counter);
             turning(s, 3, counter);
         },
         watch, 0, "turn the same way", "neighbours"},
        {"LNK-2 three and no servo", lnkSpin,
         [](Setting &s) { s.build.frame.edit([](Frame &frame) { frame.motorMounts.pop_back(); }); }, watch, 0,
         "no tail servo", "servo"},
        {"LNK-2 one motor",
         lnkSpin,
         [](Setting &s) { s.build.frame.edit([](Frame &frame) { frame.motorMounts.resize(1); }); },
         {}},

        // A nut turns on the shaft's end: of a motor that hangs, one sees it from below.
        {"LNK-3 nut on a hanging motor",
         lnkHand,
         [=](Setting &s) {
             onMotor(s, PartKind::fastener, counter);
             s.build.frame.edit([](Frame &frame) { frame.motorMounts[0].propPlane_mm = -20; });
         },
         pass,
         0,
         {},
         "nut"},
        {"LNK-3 the standing one's nut on it", lnkHand,
         [=](Setting &s) {
             onMotor(s, PartKind::fastener, clockwise);
             s.build.frame.edit([](Frame &frame) { frame.motorMounts[0].propPlane_mm = -20; });
         },
         stop, 0, "loosens itself on a counter-clockwise motor", "nut"},
        {"LNK-3 propeller on a hanging motor",
         lnkHand,
         [=](Setting &s) {
             onMotor(s, PartKind::propeller, clockwise);
             s.build.frame.edit([](Frame &frame) { frame.motorMounts[0].propPlane_mm = -20; });
         },
         pass,
         0,
         {},
         "propeller"},
        {"LNK-3 as large as drawn", lnkHand, [=](Setting &s) { sized(s, 127 * 1.02); }, pass, 0, {}, "size"},
        {"LNK-3 larger than drawn", lnkHand, [=](Setting &s) { sized(s, 130); }, stop, 2.54 - 3,
         "measures 130 mm; the mount is drawn for 127 mm", "size"},
        {"LNK-3 smaller than drawn", lnkHand, [=](Setting &s) { sized(s, 102); }, watch, 2.54 - 25, "measures 102 mm",
         "size"},
        {"LNK-3 size not stated",
         lnkHand,
         [=](Setting &s) { onMotor(s, PartKind::propeller, clockwise); },
         pass,
         0,
         {},
         "propeller"},
        {"LNK-3 hub on its shaft", lnkHand, [=](Setting &s) { bored(s, 5.2, 5.0); }, pass, 0, {}, "bore"},
        {"LNK-3 hub too narrow", lnkHand, [=](Setting &s) { bored(s, 4.9, 5.0); }, stop, -0.1,
         "the shaft of 5 mm does not go in", "narrow"},
        {"LNK-3 hub too wide", lnkHand, [=](Setting &s) { bored(s, 5.3, 5.0); }, watch, 0.2 - 0.3,
         "has a hole of 5.3 mm on a shaft of 5 mm", "wide"},

        {"LNK-3 nut of the shaft's thread",
         lnkHand,
         [](Setting &s) { nutOn(s, "M5", "M5 left"); },
         pass,
         0,
         {},
         "thread"},
        {"LNK-3 nut of another thread", lnkHand, [](Setting &s) { nutOn(s, "M4", "M5"); }, stop, -1,
         "a has M4 thread, the shaft of the", "thread"},
        {"LNK-3 thread of the shaft not stated", lnkHand, [](Setting &s) { nutOn(s, "M4", ""); }, {}},
        {"LNK-3 the right hand", lnkHand, [=](Setting &s) { onMotor(s, PartKind::propeller, clockwise); }, pass, 0},
        {"LNK-3 the wrong hand", lnkHand, [=](Setting &s) { onMotor(s, PartKind::propeller, counter); }, stop, 0,
         "a is made for the other direction: its motor turns clockwise", "propeller"},
        {"LNK-3 turned over in the build", lnkHand,
         [=](Setting &s) {
             onMotor(s, PartKind::propeller, counter);
             s.build.parts[0].turns = clockwise;
         },
         pass, 0},
        {"LNK-3 hand not stated", lnkHand, [](Setting &s) { onMotor(s, PartKind::propeller, {}); }, unknown, 0,
         "1 propellers do not say", "unstated"},
        {"LNK-3 nut that loosens itself", lnkHand, [=](Setting &s) { onMotor(s, PartKind::fastener, counter); }, stop,
         0, "a loosens itself on a clockwise motor", "nut"},
        {"LNK-3 nothing on the motors", lnkHand, [](Setting &) {}, {}},

        {"FIT-5 lines up", fitMounting, [](Setting &s) { screwed(s, 30.5, 30.5, 3.2, 3.2); }, pass, 10 - kM3Head / 2},
        {"FIT-5 another pattern", fitMounting, [](Setting &s) { screwed(s, 20, 30.5, 3.2, 3.2); }, stop, -10.5,
         "a has a 20 mm square", "pattern"},
        {"FIT-5 no screw goes through", fitMounting, [](Setting &s) { screwed(s, 16, 16, 1.5, 1.5); }, stop, -0.1,
         "No screw goes through a", "hole"},
        {"FIT-5 the head just holds", fitMounting,
         [=](Setting &s) { screwed(s, 30.5, 30.5, 3.2, kM3Head - 0.8 - 1e-9); }, pass, 10 - kM3Head / 2},
        {"FIT-5 the head pulls through", fitMounting, [=](Setting &s) { screwed(s, 30.5, 30.5, 3.2, kM3Head - 0.7); },
         watch, -0.1, "pull through", "head"},
        {"FIT-5 over the edge", fitMounting, [=](Setting &s) { screwed(s, 30.5, 30.5, 3.2, 3.2, kM3Head / 2 - 0.1); },
         watch, -0.1, "stand over the plate's edge", "edge"},
        {"FIT-5 taped",
         fitMounting,
         [](Setting &s) {
             screwed(s, 20, 30.5, 3.2, 3.2);
             s.build.parts[0].fastening.method = FasteningMethod::tape;
         },
         {}},
    };
}

} // namespace waxis::test
