// Arms: what they are across, what they weigh, when they bend. Closed forms stand beside the checks.
#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/build/frame_shapes.h"
#include "core/layout/hand_edits.h"
#include "core/layout/relayout.h"
#include "core/rules/rule.h"
#include "core/studies/arm_shake.h"
#include "core/wiring/route_field.h"
#include "core/wiring/routing.h"
#include "support/builds.h"
#include "support/layouts.h"

using namespace waxis;
using test::buildOn, test::frameOf;

class TestArms : public QObject {
    Q_OBJECT

private slots:
    void thickArmsAreHollowUnlessSomebodySaysSo() {
        const auto armOfLayout = [](const LayoutValues &values) { return frameOf(LayoutKind::hexaX, values).arms[0]; };
        const Arm tube = armOfLayout({{"armThickness_mm", 25}, {"armWidth_mm", 25}});
        QCOMPARE(tube.section, ArmSection::tube);
        QCOMPARE(tube.wall_mm, 1.5);
        QCOMPARE(armOfLayout({{"armThickness_mm", 25}, {"armWidth_mm", 30}}).section, ArmSection::box);
        QCOMPARE(armOfLayout({{"armThickness_mm", 10}, {"armWidth_mm", 10}}).section, ArmSection::bar);
        QCOMPARE(armOfLayout({{"armThickness_mm", 10.1}, {"armWidth_mm", 10.1}}).section, ArmSection::tube);
        QCOMPARE(armOfLayout({{"armThickness_mm", 25}, {"armWidth_mm", 25}, {"armWall_mm", 0}}).section,
                 ArmSection::bar);
        const auto tooThick = generateFrame(LayoutKind::hexaX, {{"armThickness_mm", 16}, {"armWall_mm", 8}});
        QVERIFY(!tooThick);
        QCOMPARE(tooThick.error().parameter, "armWall_mm");
    }
    void theUsualSectionFollowsTheSize() {
        Build build = buildOn(frameOf(LayoutKind::quadX));
        build = *setLayoutValue(build, "armThickness_mm", 16);
        build = *setLayoutValue(build, "armWidth_mm", 16);
        QCOMPARE(build.frame->arms[0].section, ArmSection::tube);
        build = *setLayoutValue(build, "armWall_mm", 1);
        build = *setLayoutValue(build, "armThickness_mm", 20);
        QCOMPARE(build.frame->arms[0].wall_mm, 1.0); // chosen: it stays
        QCOMPARE(build.frame->arms[0].section, ArmSection::box);
        build = *setLayoutValue(build, "armThickness_mm", 5);
        QCOMPARE(build.frame->arms[0].wall_mm, 1.0);
    }
    void hollowArmsWeighTheirWallAndTheirJoint() {
        // 25/22 mm, 450 mm long, 1.55 g/cm3: pi/4 (25^2 - 22^2) x 450 = 49,834 mm3 or 77.24 g; as a box 98.35, solid
        // 450.
        Build build = buildOn({});
        Arm arm;
        arm.id = "arm";
        arm.tip_mm = {450, 0, 0};
        arm.width_mm = arm.thickness_mm = 25;
        arm.wall_mm = 1.5;
        const auto weighs = [&](ArmSection section) {
            arm.section = section;
            build.frame.edit([&](Frame &frame) { frame.arms = {arm}; });
            return structureMassRows(build, practiceOf({}), 1).at(0).element;
        };
        const MassElement tube = weighs(ArmSection::tube);
        QVERIFY(std::abs(tube.mass_g - 77.24) < 0.01);
        QVERIFY((tube.centroid_mm - Vec3(225, 0, -12.5)).norm() < 1e-6);
        // A thin tube about its own axis: m (R^2 + r^2) / 2; across: m (3 (R^2 + r^2) + L^2) / 12.
        QVERIFY(std::abs(tube.inertia_gmm2(0, 0) / (tube.mass_g * (12.5 * 12.5 + 11 * 11) / 2) - 1) < 0.002);
        QVERIFY(std::abs(tube.inertia_gmm2(2, 2) / (tube.mass_g * (3 * (12.5 * 12.5 + 11 * 11) + 450 * 450) / 12) - 1) <
                0.002);
        QVERIFY(std::abs(weighs(ArmSection::box).mass_g - 98.35) < 0.01);
        QVERIFY(std::abs(weighs(ArmSection::bar).mass_g - 435.94) < 0.01);
        arm.foldJoint_mm = 90;
        arm.hinge_g = 6;
        const MassElement folding = weighs(ArmSection::tube);
        QVERIFY(std::abs(folding.mass_g - 83.24) < 0.01);
        QVERIFY(std::abs(folding.centroid_mm.x() - (77.24 * 225 + 6 * 90) / 83.24) < 0.01);
        arm.mass_g = measuredValue(90);
        QCOMPARE(weighs(ArmSection::tube).mass_g, 90.0); // weighed with its joint
    }
    void anArmBendsAsHandbooksSay() {
        // 154 mm free, 16 x 6 mm, 62 g at its end: 69.8 Hz up and 186.2 aside at 55 GPa and 1.6 g/cm3 (Rayleigh; the
        // case K.arm.0 of tests/reference). Stiffness goes by its root; density moves it by less than a hundredth.
        Build build = test::bareQuad();
        build.frame.edit([](Frame &frame) {
            Arm arm;
            arm.id = "arm";
            arm.tip_mm = Vec3(100, 100, 0).normalized() * 154;
            arm.width_mm = 16;
            arm.thickness_mm = 6;
            frame.arms = {arm};
            for (auto &mount : frame.motorMounts) mount.position_mm *= 154 / std::hypot(100, 100);
        });
        QVERIFY(!armShake(build, Analyser().update(build), "arm", 0)); // nothing stands at its end
        test::addBox(build, "motor", {20, 20, 20}, {0, 0, 10}, 62, PartKind::motor).placement.site = "m1";
        Analyser analyser;
        const auto shake = armShake(build, analyser.update(build), "arm", 0);
        QVERIFY(shake.has_value());
        QVERIFY(std::abs(shake->free_mm - 154) < 1e-6);
        QCOMPARE(shake->tip_g, 62.0);
        QVERIFY(std::abs(shake->up.least_Hz / (69.836 * std::sqrt(40.0 / 55)) - 1) < 0.01);
        QVERIFY(std::abs(shake->inPlane.most_Hz / (186.23 * std::sqrt(70.0 / 55)) - 1) < 0.01);
        // A plate that holds it for 54 mm leaves 100: (154/100)^1.5 times as fast, and a little more.
        build.frame.edit([](Frame &frame) {
            Plate plate;
            plate.id = "plate";
            plate.outline_mm = circleRing(Vec2::Zero(), 2 * 54.4, 48);
            plate.z_mm = 0;
            plate.thickness_mm = 2;
            frame.plates.push_back(plate);
        });
        const auto held = armShake(build, analyser.update(build), "arm", 0);
        QVERIFY(held && std::abs(held->free_mm - 100) < 1.01);
        QVERIFY(held->up.least_Hz > 1.85 * shake->up.least_Hz && held->up.least_Hz < 2.1 * shake->up.least_Hz);
    }
    void holesInWallsAreOpen() {
        // A box of 20 x 20 with a wall of 2, 200 mm long, a hole of 8 mm through both sides at 50.
        Arm arm;
        arm.id = "arm";
        arm.tip_mm = {200, 0, 0};
        arm.width_mm = arm.thickness_mm = 20;
        arm.section = ArmSection::box;
        arm.wall_mm = 2;
        QVERIFY(armWalls(arm).empty());
        arm.holes = {{50, 8, ArmWall::both, HoleEdge::bare}};
        QVERIFY(std::abs(armHoles_mm3(arm) - 2 * 3.14159265 * 16 * 2) < 1e-3);
        const auto walls = armWalls(arm);
        const auto hits = [&](const Vec3 &p) {
            return std::any_of(walls.begin(), walls.end(), [&](const auto &wall) {
                return pointDistance(wall.first, wall.second.inverse() * p) <= 1e-9;
            });
        };
        double volume = 0; // square holes of the same area: nothing is lost
        for (const auto &[shape, pose] : walls) volume += shapeProperties(shape).volume_mm3;
        QVERIFY(std::abs(volume - (shapeProperties(armShape(arm)).volume_mm3 - armHoles_mm3(arm))) < 1e-3);
        QVERIFY(!hits({50, 9, -10}) && !hits({50, -9, -10})); // through the hole, left and right
        QVERIFY(hits({50, 9, -2.5}) && hits({40, 9, -10}));   // over it, beside it
        QVERIFY(hits({50, 0, -1}) && hits({50, 0, -19}));     // its top and bottom
        QVERIFY(!hits({50, 0, -10}) && !hits({150, 0, -10})); // hollow
        arm.holes[0].wall = ArmWall::left;
        const auto left = armWalls(arm);
        QVERIFY(std::any_of(left.begin(), left.end(), [](const auto &wall) {
            return pointDistance(wall.first, wall.second.inverse() * Vec3(50, -9, -10)) <= 1e-9;
        }));
        // Round tubes open at the side too.
        arm.section = ArmSection::tube;
        arm.holes[0].wall = ArmWall::both;
        const auto round = armWalls(arm);
        const auto inRound = [&](const Vec3 &p) {
            return std::any_of(round.begin(), round.end(), [&](const auto &wall) {
                return pointDistance(wall.first, wall.second.inverse() * p) <= 1e-9;
            });
        };
        QVERIFY(!inRound({50, 9, -10}) && inRound({50, 0, -1}) && inRound({80, 9, -10}));
    }
    void whatBeginsInAnArmRunsInIt() {
        // A controller in a tube of 25 mm, its motor on the end: the phase wires come out at the tip.
        Build build = test::bareQuad();
        build.frame.edit([](Frame &frame) {
            frame.motorMounts.resize(1);
            frame.motorMounts[0].position_mm = {200, 0, 0};
            frame.motorMounts[0].propPlane_mm = 60;
            Arm arm;
            arm.id = "arm";
            arm.tip_mm = {210, 0, 0};
            arm.width_mm = arm.thickness_mm = 25;
            arm.section = ArmSection::tube;
            arm.wall_mm = 1.5;
            frame.arms = {arm};
        });
        test::addBox(build, "esc", {40, 12, 6}, {80, 0, -12.5}, 10, PartKind::esc).fastening = {
            FasteningMethod::tape, {"arm"}, false, {}};
        test::addBox(build, "motor", {28, 28, 20}, {0, 0, 10}, 60, PartKind::motor).placement.site = "m1";
        build.types.edit([](TypeTable &types) {
            Port port;
            port.id = "phase";
            port.position_mm = {20, 0, 0};
            port.direction = Vec3::UnitX();
            port.pins = {{"A", {}, false}};
            test::typeIn(types, "esc").ports = {port};
            port.position_mm = {14, 0, -8};
            test::typeIn(types, "motor").ports = {port};
        });
        Wire wire;
        wire.id = "w";
        wire.from = {"esc", "phase"};
        wire.to = {"motor", "phase"};
        wire.cores = {{"A", "A", 18, {}}};
        build.wires = {wire};
        Analyser analyser;
        const auto route = [&] { return analyser.update(build).derived.routes[0]; };
        const auto stays = [&](const WireRoute &run, double from, double to) { // in the bore between two places
            for (double x = from; x <= to; x += 2)
                for (std::size_t i = 0; i + 1 < run.points_mm.size(); ++i) {
                    const Vec3 &a = run.points_mm[i], &b = run.points_mm[i + 1];
                    if (a.x() > x || b.x() < x || b.x() - a.x() < 1e-9) continue;
                    const Vec3 p = a + (x - a.x()) / (b.x() - a.x()) * (b - a);
                    if (std::hypot(p.y(), p.z() + 12.5) > 11) return false;
                }
            return true;
        };
        QVERIFY(route().found);
        QVERIFY(stays(route(), 105, 205));
        QVERIFY(route().length_mm > 110); // round the end of the arm, up to the motor
        // The same the other way round.
        std::swap(build.wires[0].from, build.wires[0].to);
        QVERIFY(route().found && std::abs(route().length_mm - 130) < 25);
    }
    void holesLieOnTheArmOrAreRefused() {
        Build build = buildOn(frameOf(LayoutKind::quadX));
        Arm arm = build.frame->arms[0]; // 13 x 5 mm
        arm.holes = {{30, 2, ArmWall::both, HoleEdge::bare}};
        QVERIFY(!setArm(build, arm)); // it is a bar
        arm.section = ArmSection::box;
        arm.wall_mm = 1;
        QVERIFY(setArm(build, arm));
        arm.holes[0].diameter_mm = 3; // as high as the room in it
        QVERIFY(!setArm(build, arm));
        arm.holes[0].wall = ArmWall::top;
        QVERIFY(setArm(build, arm));
        arm.holes[0].at_mm = 1;
        QVERIFY(!setArm(build, arm));
        arm.holes[0].at_mm = 1000;
        QVERIFY(!setArm(build, arm));
    }
    void armsTakeAWallOrSayWhyNot() {
        Build build = buildOn(frameOf(LayoutKind::quadX));
        Arm arm = build.frame->arms[0]; // 13 x 5 mm
        arm.section = ArmSection::box;
        arm.wall_mm = 2.4;
        build = *setArm(build, arm);
        QCOMPARE(build.frame->arms[0].wall_mm, 2.4);
        arm.wall_mm = 2.5;
        QVERIFY(!setArm(build, arm));
        arm.wall_mm = 0;
        QVERIFY(!setArm(build, arm));
        arm.section = ArmSection::bar;
        QVERIFY(setArm(build, arm));
        arm.foldJoint_mm = (arm.tip_mm - arm.root_mm).norm();
        QVERIFY(!setArm(build, arm));
        arm.foldJoint_mm = 30;
        QVERIFY(setArm(build, arm));
        arm.id = "nobody";
        QVERIFY(!setArm(build, arm));
    }
    void whatFitsIntoATubeStandsInNothing() {
        for (const auto section : {ArmSection::tube, ArmSection::box, ArmSection::bar}) {
            Build build = buildOn(frameOf(LayoutKind::hexaX, {{"armThickness_mm", 25}, {"armWidth_mm", 25}}));
            Arm arm = build.frame->arms[0];
            arm.section = section;
            build = *setArm(build, arm);
            const Vec3 middle = arm.root_mm + 0.6 * (arm.tip_mm - arm.root_mm) - Vec3(0, 0, 12.5);
            Part &esc = test::addBox(build, "esc", {40, 14, 6}, middle, 12, PartKind::esc);
            esc.placement.pose.rotation = armAxes(arm).rotation;
            esc.fastening = {FasteningMethod::ties, {arm.id}, false, {}};
            Analyser analyser;
            int overlaps = 0;
            for (const auto &finding : analyser.update(build).findings)
                overlaps += finding.rule == RuleId::fitOverlap && finding.severity == Severity::stop;
            QCOMPARE(overlaps, section == ArmSection::bar ? 1 : 0);
        }
    }
};

QTEST_APPLESS_MAIN(TestArms)
#include "test_arms.moc"
