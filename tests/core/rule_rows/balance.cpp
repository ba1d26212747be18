// Rows for the box and for the balance.
#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/balance/reconcile.h"
#include "core/catalog/part_bounds.h"
#include "core/kit/kit.h"
#include "core/rule_rows/setting.h"

namespace waxis::test {

namespace {

void massRow(Setting &s, const char *id, bool known) {
    MassRow row;
    row.id = id;
    row.known = known;
    s.massRows.push_back(row);
}

/// Part "a", so heavy; the box of its type is what bareQuad makes it.
void weighs(Setting &s, double density_g_cm3) {
    MassRow row;
    row.id = "a";
    row.known = true;
    row.element.mass_g = density_g_cm3 * firmBounds(*typeOf(s.build, s.build.parts[0])).size_mm().prod() * 1e-3;
    s.massRows.push_back(row);
}

/// An arm beside part "a", both so heavy.
void armWeighs(Setting &s, double arm_g, double part_g, ArmSection section, Source source = Source::catalogue) {
    MassRow part, arm;
    part.id = "a";
    part.known = arm.known = true;
    part.element.mass_g = part_g;
    s.type("a", [&](PartType &type) {
        type.solids = {};
        type.kind = PartKind::battery;
    });
    arm.id = "arm";
    arm.kind = MassKind::arm;
    arm.source = source;
    arm.element.mass_g = arm_g;
    s.build.frame.edit([&](Frame &frame) {
        Arm drawn;
        drawn.id = arm.id;
        drawn.tip_mm = {100, 0, 0};
        drawn.width_mm = drawn.thickness_mm = 25;
        drawn.section = section;
        drawn.wall_mm = 1;
        frame.arms = {drawn};
    });
    s.massRows = {part, arm};
}

KitLine &kitLine(Setting &s, int needed, std::optional<int> inHand) {
    KitLine line;
    line.item = "a-type";
    line.needed = needed;
    line.inHand = inHand;
    s.kitLines.push_back(line);
    return s.kitLines.back();
}

/// 100 g whose one unweighed thing, 10 mm off its middle, leaves the centre of gravity in doubt by so much (+- 2
/// sigma).
void unweighed(Setting &s, double doubt_mm) {
    CaseBalance &flown = s.flying(100);
    flown.cgCovariance_mm2(0, 0) = doubt_mm / 2 * doubt_mm / 2;
    MassRow row;
    row.id = "a";
    row.known = true;
    row.source = Source::catalogue;
    row.cases = 1;
    row.element.mass_g = 50;
    row.element.centroid_mm = {10, 0, 0};
    row.tolerance_g = doubt_mm * 100 / 10; // its lever is 10 mm of 100 g
    s.massRows.push_back(row);
}

void weightLimit(Setting &s, double mass_g, double tolerance_g = 0, int unknown = 0) {
    WeightLimit limit;
    limit.id = "light";
    limit.name = "Light class";
    limit.most_g = 250;
    s.build.weightLimits.push_back(limit);
    CaseBalance &flown = s.flying(mass_g);
    flown.tolerance_g = tolerance_g;
    flown.notWeighed.assign(unknown, "a");
}

/// "a" stands so far ahead of the centre of gravity.
void levered(Setting &s, PartKind kind, double away_mm) {
    s.kind("a", kind);
    s.flying(1000);
    s.build.parts[0].placement.pose.position_mm = {away_mm, 0, 0};
}

/// Hovers on four motors, the first of which carries so much more than the mean.
HoverShare &hovering(Setting &s, double over_percent, double least_N = 2) {
    HoverShare &hover = s.flying(1000).hover;
    s.balance.back().loadCase.battery = "a";
    hover.thrusts_N = {3, 2.5, 2.5, least_N};
    hover.most_N = {6.0, 6.0, 6.0, 6.0};
    hover.mostLoaded = 0;
    hover.mostOverMean = 1 + over_percent / 100;
    return hover;
}

void thrustInHand(Setting &s, double times) {
    HoverShare &hover = hovering(s, 0);
    hover.tightest = 0;
    hover.tightestShare = 1 / times;
}

void sure(Setting &s, double chance_percent, double offset_mm = 0) {
    s.flying(500, {offset_mm, 0}).insideChance = chance_percent / 100;
}

void measured(Setting &s, double chance, std::vector<const char *> suspects = {}, bool decided = false) {
    s.reconciled.conditions = 1;
    s.reconciled.chance = chance;
    s.reconciled.decided = decided;
    for (const char *id : suspects) {
        Suspect suspect;
        suspect.id = id;
        s.reconciled.suspects.push_back(suspect);
    }
}

void yaw(Setting &s, double left_percent, bool servo = false) {
    HoverShare &hover = hovering(s, 0);
    hover.yawBalanced_N = {2.5, 2.5, 2.5, 2.5};
    hover.yawLeft = left_percent / 100;
    hover.yawServo = servo;
}

} // namespace

std::vector<Row> balanceRows() {
    using enum Severity;
    using enum RuleId;
    const double doubt = limitOf(Limit::unweighedCg), uneven = limitOf(Limit::motorUneven),
                 thrust = limitOf(Limit::leastThrust), wanted = limitOf(Limit::balanceSure),
                 turning = limitOf(Limit::yawTorque);
    constexpr double kHair = 1e-9;
    return {
        {"KIT-1 weighed", kitMassUnknown, [](Setting &s) { massRow(s, "a", true); }, {}},
        {"KIT-1 no weight", kitMassUnknown, [](Setting &s) { massRow(s, "a", false); }, unknown, 0, "has no weight yet",
         "part"},
        {"KIT-2 all there", kitCounts, [](Setting &s) { kitLine(s, 4, 4); }, pass, 0, {}, "missing"},
        {"KIT-2 one short", kitCounts, [](Setting &s) { kitLine(s, 4, 3); }, watch, -1, "3 in hand, 4 needed",
         "missing"},
        {"KIT-2 not counted", kitCounts, [](Setting &s) { kitLine(s, 4, {}); }, unknown, 0,
         "One kind of parts is not counted yet", "uncounted"},
        {"KIT-2 not needed", kitCounts, [](Setting &s) { kitLine(s, 0, {}); }, {}},
        {"KIT-3 at the limit", kitUnweighed, [=](Setting &s) { unweighed(s, doubt - kHair); }, pass, 0},
        {"KIT-3 over it", kitUnweighed, [=](Setting &s) { unweighed(s, doubt + 0.1); }, watch, -0.1,
         "leave the centre of gravity in doubt"},
        {"KIT-5 read",
         kitMarks,
         [](Setting &s) {
             s.build.kit.emplace_back();
             kitLine(s, 1, 1).hasArrow = true;
             s.kitLines.back().arrowConfirmed = true;
         },
         {}},
        {"KIT-5 not read", kitMarks,
         [](Setting &s) {
             s.build.kit.emplace_back();
             kitLine(s, 1, 1).hasPins = true;
         },
         note, 0, "Arrow or pin order not read"},
        {"KIT-5 still to come",
         kitMarks,
         [](Setting &s) {
             s.build.kit.emplace_back();
             kitLine(s, 1, 0).hasPins = true;
         },
         {}},
        {"KIT-6 like lead", kitPlausible, [=](Setting &s) { weighs(s, 12 - kHair); }, {}},
        {"KIT-6 heavier", kitPlausible, [](Setting &s) { weighs(s, 12.5); }, watch, -0.5, "12.5 g/cm³", "heavy"},
        {"KIT-6 like foam", kitPlausible, [=](Setting &s) { weighs(s, 0.02 + kHair); }, {}},
        {"KIT-6 lighter", kitPlausible, [](Setting &s) { weighs(s, 0.01); }, watch, -0.01, "0.01 g/cm³", "light"},
        {"KIT-6 no weight", kitPlausible, [](Setting &s) { massRow(s, "a", false); }, {}},
        {"KIT-6 arm heaviest", kitPlausible, [](Setting &s) { armWeighs(s, 436, 400, ArmSection::bar); }, note, 0,
         "worked out as a solid bar", "solid-arm"},
        {"KIT-6 tube heaviest", kitPlausible, [](Setting &s) { armWeighs(s, 436, 400, ArmSection::tube); }, note, 0,
         "worked out from its size", "hollow-arm"},
        {"KIT-6 arm weighed",
         kitPlausible,
         [](Setting &s) { armWeighs(s, 436, 400, ArmSection::bar, Source::measured); },
         {}},
        {"KIT-6 no pack yet",
         kitPlausible,
         [](Setting &s) {
             armWeighs(s, 436, 400, ArmSection::bar);
             s.kind("a", PartKind::other);
         },
         {}},
        {"KIT-6 pack heavier", kitPlausible, [](Setting &s) { armWeighs(s, 399, 400, ArmSection::bar); }, {}},
        {"KIT-5 box not begun", kitMarks, [](Setting &s) { kitLine(s, 1, 1).hasArrow = true; }, {}},
        {"BAL-1 on the ring",
         balOffset,
         [](Setting &s) {
             s.flying(500, {s.ring_mm, 0});
         },
         pass,
         0,
         {},
         "fore-aft"},
        {"BAL-1 forward of it", balOffset,
         [](Setting &s) {
             s.flying(500, {s.ring_mm + 0.1, 0});
         },
         watch, -0.1, "mm too far forward", "fore-aft"},
        {"BAL-1 aft of it", balOffset,
         [](Setting &s) {
             s.flying(500, {-s.ring_mm - 0.1, 0});
         },
         watch, -0.1, "mm too far aft", "fore-aft"},
        {"BAL-1 left of it", balOffset,
         [](Setting &s) {
             s.flying(500, {0, s.ring_mm + 0.1});
         },
         watch, -0.1, "mm too far left", "left-right"},
        {"BAL-1 right of it", balOffset,
         [](Setting &s) {
             s.flying(500, {0, -s.ring_mm - 0.1});
         },
         watch, -0.1, "mm too far right", "left-right"},
        {"BAL-1 in the corner", balOffset,
         [](Setting &s) {
             s.flying(500, {1.5, 1.5});
         },
         watch, 2 - 1.5 * std::sqrt(2.0), "from the thrust centre", "plan"},
        {"BAL-1 no weight", balOffset, [](Setting &s) { s.flying(0).offset_mm.reset(); }, unknown, 0,
         "nothing has a weight yet", "no-mass"},
        {"BAL-1 folded",
         balOffset,
         [](Setting &s) {
             s.flying(500, {9, 0}).loadCase.folded = true;
         },
         {}},
        {"BAL-2 at the limit", balWeight, [](Setting &s) { weightLimit(s, 250); }, pass, 0},
        {"BAL-2 over it", balWeight, [](Setting &s) { weightLimit(s, 250.1); }, watch, -0.1, "0.1 g over 250 g"},
        {"BAL-2 in doubt", balWeight, [](Setting &s) { weightLimit(s, 249, 1.1); }, note, 1, "1.0 g under 250 g",
         "doubt"},
        {"BAL-2 no doubt", balWeight, [](Setting &s) { weightLimit(s, 249, 1); }, pass, 1},
        {"BAL-2 not known", balWeight, [](Setting &s) { weightLimit(s, 249, 0, 1); }, unknown, 1, "not known whether"},
        {"BAL-3 at the limit", balLoad, [=](Setting &s) { hovering(s, uneven - kHair); }, pass, 0},
        {"BAL-3 over it", balLoad, [=](Setting &s) { hovering(s, uneven + 0.1); }, watch, -0.1, "more than the mean"},
        {"BAL-3 pulls", balLoad, [](Setting &s) { hovering(s, 0, -0.1); }, stop, uneven,
         "a propeller would have to pull down", "pulls"},
        {"BAL-4 at the limit", balThrust, [=](Setting &s) { thrustInHand(s, thrust); }, pass, 0},
        {"BAL-4 under it", balThrust, [=](Setting &s) { thrustInHand(s, thrust - 0.1); }, watch, -0.1,
         "times what it carries at hover"},
        {"BAL-4 just climbs", balThrust, [=](Setting &s) { thrustInHand(s, 1.2 + kHair); }, watch, 1.2 - thrust,
         "times what it carries at hover"},
        {"BAL-4 does not climb", balThrust, [=](Setting &s) { thrustInHand(s, 1.19); }, stop, 1.19 - thrust,
         "its share of the weight"},
        {"BAL-4 not stated", balThrust, [](Setting &s) { hovering(s, 0).tightest = -1; }, unknown, 0,
         "Thrust in hand not judged", "not-stated"},
        {"BAL-5 sure enough", balSure, [=](Setting &s) { sure(s, wanted + kHair); }, pass, 0},
        {"BAL-5 less sure", balSure, [=](Setting &s) { sure(s, wanted - 1); }, note, -1, "within its ring with"},
        {"BAL-5 outside anyway", balSure, [](Setting &s) { sure(s, 1, 2.1); }, {}},
        {"BAL-6 agrees", balMeasured, [](Setting &s) { measured(s, 0.01); }, pass, 0},
        {"BAL-6 contradicts", balMeasured, [](Setting &s) { measured(s, 0.009); }, watch, -0.1,
         "is not the sum of its parts"},
        {"BAL-6 one suspect", balMeasured, [](Setting &s) { measured(s, 0.001, {"a"}, true); }, watch, -0.9,
         "The scale contradicts a", "suspect"},
        {"BAL-6 two suspects", balMeasured,
         [](Setting &s) {
             measured(s, 0.001, {"a", "b"});
         },
         watch, -0.9, "is not the sum of its parts", "suspects"},
        {"BAL-6 nothing weighed", balMeasured, [](Setting &) {}, {}},
        {"BAL-7 at the limit", balYaw, [=](Setting &s) { yaw(s, turning); }, pass, 0},
        {"BAL-7 to the left", balYaw, [=](Setting &s) { yaw(s, turning + 1); }, note, -1, "turns the nose to the left",
         "left"},
        {"BAL-7 to the right", balYaw, [=](Setting &s) { yaw(s, -turning - 1); }, note, -1,
         "turns the nose to the right", "right"},
        {"BAL-8 within the lever", balLever, [](Setting &s) { levered(s, PartKind::gps, 25); }, pass, 0, {}, "gps"},
        {"BAL-8 a GPS on its mast", balLever, [](Setting &s) { levered(s, PartKind::gps, 26); }, note, -1,
         "sits 26.0 mm from the centre of gravity", "gps"},
        {"BAL-8 a controller aft", balLever, [](Setting &s) { levered(s, PartKind::flightController, 40); }, note, -15,
         "sits 40.0 mm", "controller"},
        {"BAL-8 a camera does not care", balLever, [](Setting &s) { levered(s, PartKind::flightCamera, 90); }, {}},
        {"BAL-8 no weight yet", balLever, [](Setting &s) { s.kind("a", PartKind::gps); }, {}},
        {"BAL-7 a servo holds it", balYaw, [=](Setting &s) { yaw(s, turning + 1, true); }, pass, -1},
    };
}

} // namespace waxis::test
