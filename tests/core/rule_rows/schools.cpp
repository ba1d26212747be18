// Rows for what is built otherwise than the practice says: each school followed, and not.
#include "core/rule_rows/setting.h"

namespace waxis::test {

namespace {

/// A plate of 120 x 40 mm from 0 to 2 mm, "a" of a kind on it at some place.
void standing(Setting &s, const char *school, const char *option, PartKind kind, const Vec3 &at_mm) {
    s.follow(school, option);
    s.kind("a", kind);
    s.build.parts[0].placement.pose.position_mm = at_mm;
    s.owners.assign(s.build.parts.size(), {});
    s.build.frame.edit([](Frame &frame) {
        Plate plate;
        plate.id = "plate";
        plate.outline_mm = {{60, -20}, {60, 20}, {-60, 20}, {-60, -20}};
        plate.thickness_mm = 2;
        frame.plates = {plate};
    });
}

void inArm(Setting &s, const char *option, double z_mm) {
    standing(s, "esc", option, PartKind::esc, {0, 50, z_mm});
    s.build.frame.edit([](Frame &frame) {
        Arm arm;
        arm.id = "arm";
        arm.root_mm = {0, 10, 10};
        arm.tip_mm = {0, 100, 10};
        arm.width_mm = arm.thickness_mm = 20;
        frame.arms = {arm};
    });
}

} // namespace

std::vector<Row> schoolRows() {
    using enum Severity;
    using enum RuleId;
    const Vec3 above(0, 0, 5), below(0, 0, -3), aft(-50, 0, 5), mast(0, 0, 40);
    return {
        {"PRC-1 nothing there", prcSchool, [](Setting &s) { s.owners.assign(2, {}); }, {}},
        {"PRC-1 pack on top",
         prcSchool,
         [=](Setting &s) { standing(s, "battery", "top", PartKind::battery, above); },
         {}},
        {"PRC-1 pack below", prcSchool, [=](Setting &s) { standing(s, "battery", "top", PartKind::battery, below); },
         note, 0, "hangs below", "battery/below/top"},
        {"PRC-1 pack wanted below", prcSchool,
         [=](Setting &s) { standing(s, "battery", "below", PartKind::battery, above); }, note, 0, "lies on top",
         "battery/top/below"},
        {"PRC-1 pack aft", prcSchool, [=](Setting &s) { standing(s, "battery", "aft", PartKind::battery, aft); }, {}},
        {"PRC-1 pack wanted aft", prcSchool,
         [=](Setting &s) { standing(s, "battery", "aft", PartKind::battery, above); }, note, 0, "lies on top",
         "battery/top/aft"},
        {"PRC-1 a board for all",
         prcSchool,
         [=](Setting &s) { standing(s, "esc", "stack", PartKind::fourInOneEsc, above); },
         {}},
        {"PRC-1 one for each", prcSchool, [=](Setting &s) { standing(s, "esc", "stack", PartKind::esc, above); }, note,
         0, "a controller for each motor", "esc/single/stack"},
        {"PRC-1 singles wanted", prcSchool,
         [=](Setting &s) { standing(s, "esc", "arms-top", PartKind::fourInOneEsc, above); }, note, 0,
         "one board for all motors", "esc/four/arms-top"},
        {"PRC-1 inside its arm", prcSchool, [](Setting &s) { inArm(s, "arms-inside", 0); }, {}},
        {"PRC-1 on its arm", prcSchool, [](Setting &s) { inArm(s, "arms-inside", 15); }, note, 0,
         "lies outside its arm", "esc/outside/arms-inside"},
        {"PRC-1 wanted on its arm", prcSchool, [](Setting &s) { inArm(s, "arms-top", 0); }, note, 0,
         "lies inside its arm", "esc/inside/arms-top"},
        {"PRC-1 harness", prcSchool,
         [=](Setting &s) { standing(s, "distribution", "harness", PartKind::distributionBoard, above); }, note, 0,
         "distributes the power", "distribution/board/harness"},
        {"PRC-1 board",
         prcSchool,
         [=](Setting &s) { standing(s, "distribution", "board", PartKind::distributionBoard, above); },
         {}},
        {"PRC-1 no board", prcSchool,
         [=](Setting &s) {
             standing(s, "distribution", "board", PartKind::esc, above);
             s.practice.schools["esc"] = "arms-top";
             s.kind("b", PartKind::esc);
         },
         note, 0, "No distribution board feeds", "distribution/none/board"},
        {"PRC-1 hard", prcSchool,
         [=](Setting &s) { standing(s, "controller", "soft", PartKind::flightController, above); }, note, 0,
         "is mounted hard", "controller/hard/soft"},
        {"PRC-1 soft",
         prcSchool,
         [=](Setting &s) {
             standing(s, "controller", "soft", PartKind::flightController, above);
             s.owners[0].isolated = true;
         },
         {}},
        {"PRC-1 wanted hard", prcSchool,
         [=](Setting &s) {
             standing(s, "controller", "hard", PartKind::flightController, above);
             s.owners[0].isolated = true;
         },
         note, 0, "is mounted on rubber", "controller/soft/hard"},
        {"PRC-1 rigid", prcSchool,
         [=](Setting &s) {
             standing(s, "clean-frame", "rigid", PartKind::other, above);
             s.build.frame.edit([](Frame &frame) { frame.plates[0].isolated = true; });
         },
         note, 0, "rides apart on bobbins", "clean-frame/isolated/rigid"},
        {"PRC-1 apart", prcSchool,
         [=](Setting &s) {
             standing(s, "clean-frame", "isolated", PartKind::other, above);
             s.build.frame.edit([](Frame &frame) {
                 frame.plates.push_back(frame.plates[0]);
                 frame.plates[1].id = "other";
             });
         },
         note, 0, "no part that rides apart", "clean-frame/rigid/isolated"},
        {"PRC-1 mast", prcSchool, [=](Setting &s) { standing(s, "gps", "mast", PartKind::gps, mast); }, {}},
        {"PRC-1 GPS elsewhere", prcSchool, [=](Setting &s) { standing(s, "gps", "mast", PartKind::gps, above); }, note,
         0, "sits elsewhere", "gps/elsewhere/mast"},
        {"PRC-1 tail", prcSchool, [=](Setting &s) { standing(s, "gps", "tail", PartKind::gps, aft); }, {}},
        {"PRC-1 not on an arm", prcSchool, [=](Setting &s) { standing(s, "gps", "arm", PartKind::gps, aft); }, note, 0,
         "sits elsewhere", "gps/elsewhere/arm"},
    };
}

} // namespace waxis::test
