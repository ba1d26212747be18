// What stands in what, what sways with what, what it stands on, what blades reach: the mistake of the trade and its
// cure.
#include "core/analysis/analysis.h"
#include "core/build/frame_shapes.h"
#include "core/catalog/fastener_types.h"
#include "core/findings/fix.h"
#include "core/practice/blade_room.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/stack/motor_screws.h"
#include "support/builds.h"

#include <QTest>

using namespace waxis;
using namespace waxis::test;

namespace {

std::vector<Finding> foundBy(const Build &build, RuleId rule) {
    Analyser analyser;
    std::vector<Finding> found;
    for (const auto &f : analyseFully(analyser, build).findings)
        if (f.rule == rule) found.push_back(f);
    return found;
}

Plate plateOf(const char *id, double z_mm, double half_mm = 60) {
    Plate plate;
    plate.id = id;
    plate.name = id;
    plate.outline_mm = {{half_mm, -half_mm}, {half_mm, half_mm}, {-half_mm, half_mm}, {-half_mm, -half_mm}};
    plate.z_mm = z_mm;
    plate.thickness_mm = 2;
    return plate;
}

/// Motors 100 mm out on a plate; nothing else.
Build plated() {
    Build build = bareQuad();
    build.frame.edit([](Frame &frame) { frame.plates = {plateOf("plate", 0)}; });
    return build;
}

Part &fastened(Build &build, const char *id, const Vec3 &size, const Vec3 &at, PartKind kind, FasteningMethod method,
               std::vector<std::string> onto, double mass_g = 5) {
    Part &part = addBox(build, id, size, at, mass_g, kind);
    part.fastening.method = method;
    part.fastening.onto = std::move(onto);
    return part;
}

} // namespace

class TestBodies : public QObject {
    Q_OBJECT

private slots:
    void mountsStandInNothing_data() {
        QTest::addColumn<double>("depth");
        QTest::addColumn<bool>("bends"); // what it holds
        QTest::addColumn<bool>("wrong");
        QTest::newRow("touching") << 0.0 << false << false;
        QTest::newRow("a tab in its slot") << 4.0 << false << false;
        QTest::newRow("deeper") << 4.1 << false << true;
        QTest::newRow("ten millimetres") << 9.0 << false << true;
        QTest::newRow("an antenna in its hole") << 9.0 << true << false;
    }
    void mountsStandInNothing() {
        QFETCH(double, depth);
        QFETCH(bool, bends);
        QFETCH(bool, wrong);
        Build build = plated();
        fastened(build, "board", {30, 30, 20}, {0, 0, 12}, PartKind::other, FasteningMethod::screws, {"plate"});
        build.types.edit([&](TypeTable &types) { typeIn(types, "board").flexible = bends; });
        fastened(build, "bracket", {20, 20, 20}, {25 - depth, 0, 12}, PartKind::mount, FasteningMethod::screws,
                 {"plate", "board"});
        QCOMPARE(!foundBy(build, RuleId::fitOverlap).empty(), wrong);
    }
    void coversBlockPortsAndOwnMountsDoNot_data() {
        QTest::addColumn<bool>("carries"); // the board is fastened onto it
        QTest::addColumn<bool>("wrong");
        QTest::newRow("a cover over it") << false << true;
        QTest::newRow("what carries it") << true << false;
    }
    void coversBlockPortsAndOwnMountsDoNot() {
        QFETCH(bool, carries);
        QFETCH(bool, wrong);
        Build build = plated();
        fastened(build, "board", {30, 30, 4}, {0, 0, 4}, PartKind::other, FasteningMethod::screws,
                 carries ? std::vector<std::string>{"plate", "cover"} : std::vector<std::string>{"plate"});
        build.types.edit([](TypeTable &types) {
            Port port;
            port.id = "usb";
            port.kind = PortKind::usb; // within reach by what it is
            port.position_mm = {15, 0, 0};
            port.fullSize_mm = {20, 10, 3};
            typeIn(types, "board").ports = {port};
        });
        fastened(build, "cover", {4, 40, 20}, {20, 0, 12}, PartKind::mount, FasteningMethod::screws,
                 carries ? std::vector<std::string>{"plate"} : std::vector<std::string>{"plate", "board"});
        const auto found = foundBy(build, RuleId::fitAccess);
        QCOMPARE(!found.empty(), wrong);
        if (wrong)
            QVERIFY(std::find(found[0].subjects.begin(), found[0].subjects.end(), "cover") != found[0].subjects.end());
    }
    void whatStandsOnTheCleanPlateSwaysWithIt() {
        Build build = plated();
        build.frame.edit([](Frame &frame) {
            frame.plates.push_back(plateOf("clean", 12, 30));
            frame.plates[1].isolated = true;
        });
        fastened(build, "cheek", {4, 20, 20}, {0, 0, 24}, PartKind::mount, FasteningMethod::screws, {"clean"});
        fastened(build, "camera", {10, 20, 20}, {7, 0, 24}, PartKind::flightCamera, FasteningMethod::screws, {"cheek"});
        Analyser analyser;
        const auto isolated = [&](const char *id) {
            for (const auto &owner : analyser.update(build).derived.scene.owners)
                if (owner.id == id) return owner.isolated;
            return false;
        };
        QVERIFY(isolated("cheek") && isolated("camera"));
        const auto sways = [&] {
            int count = 0;
            for (const auto &f : foundBy(build, RuleId::fitGap)) count += f.variant == "sway";
            return count;
        };
        QCOMPARE(sways(), 0); // nothing knocks: they sway together
        addBox(build, "post", {4, 4, 60}, {14.5, 0, 32}, 3).fastening = {FasteningMethod::screws, {"plate"}, false, {}};
        QVERIFY(sways() > 0); // 0.5 mm beside the camera, and through the clean plate
        // Held by something that stands still as well, it stands still.
        build.parts[1].fastening.onto = {"cheek", "plate"};
        QVERIFY(!isolated("camera"));
    }
    void bobbinsSayHowFarTheyGive() {
        // A soft plate 10 mm over another on one bobbin; a wall 3.5 mm beside it.
        Build build = plated();
        build.frame.edit([](Frame &frame) {
            frame.plates.push_back(plateOf("clean", 12, 30));
            frame.plates[1].isolated = true;
            frame.standoffs = {{"bobbin", StandoffRole::bobbin, {0, 0, 2}, 10, 8, 0, "M3", "silicone", {}}};
        });
        addBox(build, "wall", {4, 20, 30}, {35.5, 0, 17}, 3).fastening = {
            FasteningMethod::screws, {"plate"}, false, {}};
        const auto knocks = [&] {
            for (const auto &f : foundBy(build, RuleId::fitGap))
                if (f.variant == "sway") return f.limit;
            return std::optional<double>();
        };
        QVERIFY(!knocks()); // 3 mm are taken where nobody says
        build.frame.edit([](Frame &frame) { frame.standoffs[0].travel_mm = 4; });
        QCOMPARE(knocks(), std::optional(4.0));
        // A stopper that ends 3 mm under it catches it before.
        build.frame.edit([](Frame &frame) {
            frame.standoffs.push_back({"stopper", StandoffRole::stopper, {10, 0, 2}, 7, 5, 2.5, "M3", "aluminium", {}});
        });
        QVERIFY(!knocks());
    }
    void strapsAreLongEnough_data() {
        QTest::addColumn<double>("length"); // 0: not stated
        QTest::addColumn<double>("wide");
        QTest::addColumn<QString>("severity");
        // The pack is 70 x 40 x 30, its plate 2: 144 mm round, 30 over itself; a tie 15.
        QTest::newRow("holds") << 174.0 << 20.0 << "";
        QTest::newRow("closes only just") << 173.9 << 20.0 << "watch";
        QTest::newRow("just closes") << 144.0 << 20.0 << "watch";
        QTest::newRow("does not close") << 143.9 << 20.0 << "stop";
        QTest::newRow("a tie holds") << 159.0 << 4.0 << "";
        QTest::newRow("a tie too short") << 158.9 << 4.0 << "watch";
        QTest::newRow("nobody knows") << 0.0 << 20.0 << "unknown";
    }
    void strapsAreLongEnough() {
        QFETCH(double, length);
        QFETCH(double, wide);
        QFETCH(QString, severity);
        Build build = plated();
        fastened(build, "pack", {70, 40, 30}, {0, 0, 17}, PartKind::battery, FasteningMethod::strap,
                 {"plate", "strap"});
        fastened(build, "strap", {wide, 40, 1}, {0, 0, 32.5}, PartKind::strap, FasteningMethod::strap, {"plate"});
        build.types.edit([&](TypeTable &types) {
            if (length > 0) typeIn(types, "strap").strapLength_mm = length;
            typeIn(types, "strap").solids[0].role = SolidRole::soft;
        });
        QString found;
        for (const auto &f : foundBy(build, RuleId::fitHeld))
            if (f.variant.starts_with("strap"))
                found = f.severity == Severity::stop ? "stop" : f.severity == Severity::watch ? "watch" : "unknown";
        QCOMPARE(found, severity);
    }
    void whatJointsTurnIsSwept_data() {
        QTest::addColumn<double>("wall");  // its near face, from the pivot
        QTest::addColumn<double>("range"); // of the joint
        QTest::addColumn<bool>("wrong");
        // The arm reaches 30 mm from its pivot; drawn upright it clears any wall, at 90 degrees it lies along x.
        QTest::newRow("clear of the sweep") << 30.6 << 90.0 << false;
        QTest::newRow("in the sweep") << 29.0 << 90.0 << true;
        QTest::newRow("it stops before") << 29.0 << 45.0 << false;
    }
    void whatJointsTurnIsSwept() {
        QFETCH(double, wall);
        QFETCH(double, range);
        QFETCH(bool, wrong);
        Build build = plated();
        fastened(build, "gimbal", {10, 10, 4}, {0, 0, 4}, PartKind::gimbal, FasteningMethod::screws, {"plate"});
        build.types.edit([&](TypeTable &types) {
            PartType &type = typeIn(types, "gimbal");
            type.solids.push_back(solidBox({4, 4, 30}, {0, 0, 15 + 16}));
            type.travels = {{"tilt", {0, 0, 16}, Vec3::UnitY(), 0, range, 1}};
        });
        fastened(build, "wall", {4, 40, 40}, {wall + 2, 0, 22}, PartKind::other, FasteningMethod::screws, {"plate"});
        auto found = foundBy(build, RuleId::fitFolding);
        QCOMPARE(!found.empty(), wrong);
        if (wrong) {
            QCOMPARE(found[0].subjects.front(), std::string("gimbal"));
            QCOMPARE(found[0].subjects[1], std::string("wall"));
            QVERIFY(std::abs(*found[0].measured + 1) < 0.01); // 1 mm into it
        }
        // A camera on it goes along: it strikes where the arm alone does not.
        fastened(build, "camera", {8, 8, 8}, {0, 0, 52}, PartKind::flightCamera, FasteningMethod::screws, {"gimbal"});
        found = foundBy(build, RuleId::fitFolding);
        const bool camera =
            std::any_of(found.begin(), found.end(), [](const Finding &f) { return f.subjects.front() == "camera"; });
        QCOMPARE(camera, range > 60);
    }
    void aTailSweepsItsMotor() {
        // A motor on the end of a tail arm; a servo on the arm; a mast beside the motor, 8 mm from it: tilted by 30
        // degrees its top comes over.
        Build build = bareQuad();
        build.frame.edit([](Frame &frame) {
            frame.motorMounts.resize(1);
            frame.motorMounts[0].position_mm = {-100, 0, 0};
            frame.motorMounts[0].propPlane_mm = 60;
            Arm arm;
            arm.id = "tail";
            arm.root_mm = {0, 0, 0};
            arm.tip_mm = {-104, 0, 0};
            arm.width_mm = 10;
            arm.thickness_mm = 4;
            frame.arms = {arm};
        });
        Part &motor = addBox(build, "motor", {20, 20, 40}, {0, 0, 20}, 30, PartKind::motor);
        motor.placement.site = "m1";
        fastened(build, "mast", {4, 4, 60}, {-100, 20, 30}, PartKind::mount, FasteningMethod::screws, {"tail"});
        QVERIFY(foundBy(build, RuleId::fitFolding).empty());
        fastened(build, "servo", {10, 10, 10}, {-60, 0, 5}, PartKind::servo, FasteningMethod::screws, {"tail"});
        const auto found = foundBy(build, RuleId::fitFolding);
        QVERIFY(!found.empty());
        QCOMPARE(found[0].subjects[0], std::string("motor"));
        QCOMPARE(found[0].subjects[1], std::string("mast"));
    }
    void controllersOnFoamAreSoft() {
        Build build = plated();
        fastened(build, "fc", {30, 30, 4}, {0, 0, 4}, PartKind::flightController, FasteningMethod::tape, {"plate"});
        fastened(build, "vtx", {30, 30, 4}, {40, 0, 4}, PartKind::videoTransmitter, FasteningMethod::tape, {"plate"});
        Analyser analyser;
        const auto &owners = analyser.update(build).derived.scene.owners;
        QVERIFY(owners[0].isolated && !owners[1].isolated);
    }
    void whatACraftWithoutFeetStandsOn_data() {
        QTest::addColumn<int>("kind");
        QTest::addColumn<double>("z");
        QTest::addColumn<QString>("school");
        QTest::addColumn<int>("severity"); // -1: nothing
        const int watch = int(Severity::watch), note = int(Severity::note);
        QTest::newRow("pack on top") << int(PartKind::battery) << 12.0 << "top" << -1;
        QTest::newRow("pack below") << int(PartKind::battery) << -10.0 << "top" << watch;
        QTest::newRow("pack below, as this practice has it") << int(PartKind::battery) << -10.0 << "below" << note;
        QTest::newRow("antenna below") << int(PartKind::antenna) << -10.0 << "top" << watch;
        QTest::newRow("a board below") << int(PartKind::regulator) << -10.0 << "top" << -1;
    }
    void whatACraftWithoutFeetStandsOn() {
        QFETCH(int, kind);
        QFETCH(double, z);
        QFETCH(QString, school);
        QFETCH(int, severity);
        Build build = plated();
        build.practice.schools["battery"] = school.toStdString();
        addBox(build, "thing", {40, 30, 20}, {0, 0, z}, 100, PartKind(kind));
        int found = -1;
        for (const auto &f : foundBy(build, RuleId::fitBattery))
            if (f.variant == "stands-on") found = int(f.severity);
        QCOMPARE(found, severity);
        build.frame.edit([](Frame &frame) { // the cure
            for (const double x : {40.0, -40.0})
                for (const double y : {40.0, -40.0}) {
                    Standoff foot;
                    foot.id = "foot" + std::to_string(frame.standoffs.size());
                    foot.role = StandoffRole::foot;
                    foot.base_mm = {x, y, -40};
                    foot.height_mm = 40;
                    foot.diameter_mm = 8;
                    frame.standoffs.push_back(foot);
                }
        });
        for (const auto &f : foundBy(build, RuleId::fitBattery)) QVERIFY(f.variant != "stands-on");
    }
    void hangingBladesAreNoFeet() {
        Build build = plated();
        const auto blades = [&] {
            for (const auto &f : foundBy(build, RuleId::fitBattery))
                if (f.variant == "stands-on-blades") return f.severity == Severity::stop;
            return false;
        };
        QVERIFY(!blades());
        build.frame.edit([](Frame &frame) {
            for (auto &mount : frame.motorMounts) mount.propPlane_mm = -20;
        });
        QVERIFY(blades());
    }
    void tapeHoldsByItsArea_data() {
        QTest::addColumn<double>("mass_g");
        QTest::addColumn<int>("method");
        QTest::addColumn<bool>("wrong");
        // 20 x 20 mm at 0.02 N/mm2 hold 8 N: ten times the weight of 81.6 g; hook-and-loop 12 N: 122.4 g.
        QTest::newRow("as much as it holds") << 81.5 << int(FasteningMethod::tape) << false;
        QTest::newRow("a little more") << 81.7 << int(FasteningMethod::tape) << true;
        QTest::newRow("hook and loop") << 122.3 << int(FasteningMethod::hookAndLoop) << false;
        QTest::newRow("too heavy for it") << 122.5 << int(FasteningMethod::hookAndLoop) << true;
        QTest::newRow("screwed") << 300.0 << int(FasteningMethod::screws) << false;
    }
    void tapeHoldsByItsArea() {
        QFETCH(double, mass_g);
        QFETCH(int, method);
        QFETCH(bool, wrong);
        Build build = plated();
        fastened(build, "thing", {20, 20, 10}, {0, 0, 7}, PartKind::other, FasteningMethod(method), {"plate"}, mass_g);
        bool found = false;
        for (const auto &f : foundBy(build, RuleId::fitHeld)) found |= f.variant == "tape";
        QCOMPARE(found, wrong);
    }
    void bladesOverOneAnother_data() {
        QTest::addColumn<double>("apart"); // in height
        QTest::addColumn<int>("severity");
        // Room of the lower one upwards and of the upper one downwards, at 127 mm: 12 + 8.
        QTest::newRow("in one plane") << 0.0 << int(Severity::stop);
        QTest::newRow("flexed blades meet") << 19.9 << int(Severity::stop);
        QTest::newRow("apart") << 20.0 << int(Severity::note);
    }
    void bladesOverOneAnother() {
        QFETCH(double, apart);
        QFETCH(int, severity);
        Build build = bareQuad();
        build.frame.edit([&](Frame &frame) {
            frame.motorMounts.resize(2);
            frame.motorMounts[0].position_mm = {0, 0, 0};
            frame.motorMounts[1].position_mm = {100, 0, apart};
        });
        const auto found = foundBy(build, RuleId::fitTipGap);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(int(found[0].severity), severity);
    }
    void bladesBendWithTheirLength() {
        const BladeRoom usual{20, 10, 381};
        MotorMount mount;
        mount.propDiameter_mm = 381;
        QCOMPARE(bladeRoomOf(mount, usual).up_mm, 20.0);
        mount.propDiameter_mm = 190.5;
        QCOMPARE(bladeRoomOf(mount, usual).up_mm, 10.0);
        QCOMPARE(bladeRoomOf(mount, usual).down_mm, 5.0);
        mount.propDiameter_mm = 60; // two fifths at least
        QCOMPARE(bladeRoomOf(mount, usual).up_mm, 8.0);
        mount.flexUp_mm = 3; // as stated
        QCOMPARE(bladeRoomOf(mount, usual).up_mm, 3.0);
    }
    void aServoSweepsItsTailPropeller() {
        Build build = bareQuad();
        build.frame.edit([](Frame &frame) {
            frame.motorMounts.resize(1);
            frame.motorMounts[0].position_mm = {-150, 0, 0};
            frame.motorMounts[0].propPlane_mm = 25;
            Arm arm;
            arm.id = "tail";
            arm.root_mm = {0, 0, 0};
            arm.tip_mm = {-165, 0, 0};
            arm.width_mm = 12;
            arm.thickness_mm = 5;
            frame.arms = {arm};
        });
        // Beside the tail, under the level disc; the tilted blades come down to it: sin 30 x 50 mm = 25 mm.
        addBox(build, "antenna", {4, 4, 10}, {-150, 55, -2}, 3);
        QVERIFY(foundBy(build, RuleId::fitPropZone).empty());
        fastened(build, "servo", {20, 12, 10}, {-100, 0, 5}, PartKind::servo, FasteningMethod::screws, {"tail"});
        const auto found = foundBy(build, RuleId::fitPropZone);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].subjects.front(), std::string("antenna"));
        QCOMPARE(found[0].severity, Severity::stop);
        build.parts[0].placement.pose.position_mm.z() = -60; // the cure: out of the whole travel
        QVERIFY(foundBy(build, RuleId::fitPropZone).empty());
    }
    void lowBladesAreSaidOnce() {
        Build build = bareQuad();
        build.frame.edit([](Frame &frame) {
            for (std::size_t i = 0; i < frame.motorMounts.size(); ++i) {
                MotorMount &mount = frame.motorMounts[i];
                Arm arm;
                arm.id = "arm" + std::to_string(i);
                arm.tip_mm = mount.position_mm;
                arm.width_mm = 12;
                arm.thickness_mm = 4;
                frame.arms.push_back(arm);
                mount.propPlane_mm = 20; // 12 mm over the arm less 8 of flex: 12
            }
        });
        QVERIFY(foundBy(build, RuleId::fitPropZone).empty());
        build.frame.edit([](Frame &frame) {
            for (auto &mount : frame.motorMounts) mount.propPlane_mm = 7; // a millimetre into it when flexed
        });
        const auto found = foundBy(build, RuleId::fitPropZone);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].variant, std::string("low"));
        QCOMPARE(found[0].subjects.size(), std::size_t(4));
        QCOMPARE(found[0].severity, Severity::stop);
    }
    void motorScrewsClampAllThatLiesBetween() {
        // Arm 4 mm, a plate of 2 mm under it, a guard of 1.5 mm between arm and motor.
        Build build = bareQuad();
        build.frame.edit([](Frame &frame) {
            Arm arm;
            arm.id = "arm";
            arm.tip_mm = {115, 115, 0};
            arm.width_mm = 20;
            arm.thickness_mm = 4;
            frame.arms = {arm};
            frame.plates = {plateOf("under", -6, 130)};
        });
        Part &motor = addBox(build, "motor", {20, 20, 20}, {0, 0, 0}, 30, PartKind::motor);
        motor.placement.site = "m1";
        motor.fastening = {FasteningMethod::screws, {"arm"}, false, {}};
        build.types.edit([](TypeTable &types) {
            PartType &type = typeIn(types, "motor");
            type.mounting = HolePattern{PatternShape::circle, 12, 0, 3.2, 4};
            type.threadDepth_mm = measuredValue(5);
        });
        const auto screws = [&] { return motorScrewsOf(build, practiceOf({})).at(0); };
        QCOMPARE(screws().grip_mm, 6.0);
        QCOMPARE(screws().clamped, (std::vector<std::string>{"arm", "under"}));
        QCOMPARE(*screws().best_mm, 10.0); // 2.5 mm at least, 4.5 at most: 8 gives 2.0, 10 gives 4.0
    }
    void hexagonsStrikeWithTheirCorners_data() {
        QTest::addColumn<double>("away"); // of the component's face from the hole's axis
        QTest::addColumn<bool>("wrong");
        // M3 spacer, 5.5 mm over flats: 3.175 mm to the corner, 2.75 mm to the flat (ISO 4032, from memory).
        QTest::newRow("clear") << 3.3 << false;
        QTest::newRow("a corner strikes") << 3.0 << true;
        QTest::newRow("a flat strikes too") << 2.5 << true;
    }
    void hexagonsStrikeWithTheirCorners() {
        QFETCH(double, away);
        QFETCH(bool, wrong);
        Build build = plated();
        fastened(build, "board", {30, 30, 1.6}, {0, 0, 10}, PartKind::other, FasteningMethod::screws, {"plate"});
        const PartType spacer = *fastenerType({FastenerForm::standoff, "M3", 6}, "nylon");
        build.types.edit([&](TypeTable &types) {
            Solid component = solidBox({4, 4, 3});
            component.role = SolidRole::component;
            // To the right of a corner of the hexagon, on top of the board.
            double reach = 0;
            Vec2 corner = Vec2::UnitX();
            for (const auto &p : std::get<Prism>(spacer.solids[0].shape).polygon.outline)
                if (p.norm() > reach + 1e-9 && std::abs(p.y()) < 1e-6 + std::abs(p.x())) {
                    reach = p.norm();
                    corner = p.normalized();
                }
            component.X_PartSolid = {Vec3(corner.x() * (away + 2), corner.y() * (away + 2), 2.3),
                                     Quat(Eigen::AngleAxisd(std::atan2(corner.y(), corner.x()), Vec3::UnitZ()))};
            typeIn(types, "board").solids.push_back(component);
            types["post"] = spacer;
        });
        Part post;
        post.id = post.type = "post";
        post.placement.pose.position_mm = {0, 0, 10.8};
        post.fastening = {FasteningMethod::screws, {"board"}, false, {}};
        build.parts.push_back(post);
        const auto found = foundBy(build, RuleId::fitOverlap);
        QCOMPARE(!found.empty(), wrong);
        if (!wrong) return;
        const bool turnFrees = away > 2.75;
        const auto turn = std::find_if(found[0].fixes.begin(), found[0].fixes.end(),
                                       [](const Fix &fix) { return fix.as<PartTurn>(); });
        QCOMPARE(turn != found[0].fixes.end(), turnFrees);
        if (!turnFrees) return;
        const auto mended = applyFix(build, *turn);
        QVERIFY(mended);
        QVERIFY(foundBy(*mended, RuleId::fitOverlap).empty());
    }
};

QTEST_APPLESS_MAIN(TestBodies)
#include "test_bodies.moc"
