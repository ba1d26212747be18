// Sky, camera and lamp by rays against closed forms, and cuts through bodies against their areas.
#include "core/analysis/analysis.h"
#include "core/attitude/mounting_angles.h"
#include "core/base/units.h"
#include "core/edits/part_edits.h"
#include "core/geometry/hull.h"
#include "core/geometry/section.h"
#include "core/geometry/triangles.h"
#include "core/sky/solid_angle.h"
#include "core/survey/survey.h"
#include "core/survey/views.h"
#include "support/builds.h"

#include <cmath>

using namespace waxis;
using test::addBox;

namespace {

/// A build with a GNSS receiver whose antenna is at the origin, and one conductive body that is built by `put`.
template <class Put>
Build receiverAnd(Put &&put) {
    Build build;
    addBox(build, "gps", {0.02, 0.02, 0.02}, {0, 0, -0.01}, 10, PartKind::gps);
    addBox(build, "body", {1, 1, 1}, {0, 0, 0}, 10);
    build.types.edit([&](TypeTable &types) {
        Solid &solid = test::typeIn(types, "body").solids[0];
        solid.material = "carbon";
        put(solid);
    });
    return build;
}

Build plateOver(double x1, double x2, double y1, double y2, double h) {
    return receiverAnd([&](Solid &solid) {
        constexpr double kThin_mm = 0.02;
        solid.shape = Box{{x2 - x1, y2 - y1, kThin_mm}};
        solid.X_PartSolid.position_mm = {(x1 + x2) / 2, (y1 + y2) / 2, h + kThin_mm / 2};
    });
}

Build wallAt(double s, double y1, double y2, double z1, double z2) {
    return receiverAnd([&](Solid &solid) {
        constexpr double kThin_mm = 0.02;
        solid.shape = Box{{kThin_mm, y2 - y1, z2 - z1}};
        solid.X_PartSolid.position_mm = {s + kThin_mm / 2, (y1 + y2) / 2, (z1 + z2) / 2};
    });
}

/// Share hidden of the whole hemisphere, unweighted, without a mask.
SkyView lookUp(const Build &build, double mask_deg = 0, double pitch_deg = 0) {
    Analyser analyser;
    const Derived &derived = analyser.update(build).derived;
    const RayWorld world = skyWorld(build, derived.scene, 0, 0, 10);
    return skyView(world, derived.scene, Vec3::Zero(), Vec3::UnitZ(), mask_deg, pitch_deg);
}

/// What a ray caster with N rays may be off by: three standard deviations (binomial distribution).
double bound(double f) { return 3 * std::sqrt(f * (1 - f) / kSkyRays); }

double ringArea(const std::vector<Ring> &rings) {
    double area = 0;
    for (const auto &ring : rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 &a = ring[i], &b = ring[(i + 1) % ring.size()];
            area += (a.x() * b.y() - b.x() * a.y()) / 2;
        }
    return std::abs(area);
}

/// A camera at the origin that looks ahead, with something before it.
Build cameraAnd(double horizontal_deg, double vertical_deg) {
    Build build;
    Part &part = addBox(build, "cam", {2, 2, 2}, {0, 0, 0}, 8, PartKind::flightCamera);
    build.types.edit([&](TypeTable &types) {
        Camera camera;
        camera.lens_mm = {0, 0, 0};
        camera.horizontalView_deg = horizontal_deg;
        camera.verticalView_deg = vertical_deg;
        camera.tiltMax_deg = 60;
        types.at(part.type).camera = camera;
    });
    return build;
}

CameraView lookAhead(const Build &build, int columns = 400) {
    Analyser analyser;
    const Derived &derived = analyser.update(build).derived;
    const PartType &type = *typeOf(build, build.parts[0]);
    return cameraView(cameraWorld(build, derived.scene, 0, 0), derived.scene,
                      pictureOf(type.camera->horizontalView_deg, type.camera->verticalView_deg, columns),
                      cameraPose(type, framePose(build, build.parts[0])));
}

} // namespace

class TestViews : public QObject {
    Q_OBJECT

private slots:
    void raysFindTheClosedFormsOfPlates_data() {
        // Solid angle of a rectangle seen from a point: geometry; worked values in tests/reference/values.json.
        QTest::addColumn<QVector<double>>("plate"); // x1 x2 y1 y2 h
        QTest::addColumn<double>("fraction");
        QTest::newRow("60 x 60 at 30") << QVector<double>{-30, 30, -30, 30, 30} << 1.0 / 3;
        QTest::newRow("150 x 40 at 20") << QVector<double>{-75, 75, -20, 20, 20} << 0.4788518;
        QTest::newRow("40 x 40 at 100") << QVector<double>{-20, 20, -20, 20, 100} << 0.0244914;
        QTest::newRow("to one side") << QVector<double>{10, 90, -30, 50, 40} << 0.1652524;
        QTest::newRow("corner overhead") << QVector<double>{0, 50, 0, 50, 50} << 1.0 / 12;
    }
    void raysFindTheClosedFormsOfPlates() {
        QFETCH(QVector<double>, plate);
        QFETCH(double, fraction);
        const SkyView view = lookUp(plateOver(plate[0], plate[1], plate[2], plate[3], plate[4]));
        QVERIFY2(std::abs(view.hiddenPlain - fraction) < bound(fraction),
                 qPrintable(QString::number(view.hiddenPlain)));
        const double closed = rectangleSolidAngle_sr(plate[0], plate[1], plate[2], plate[3], plate[4]) / (2 * kPi);
        QVERIFY(std::abs(closed - fraction) < 1e-6);
        QCOMPARE(view.by.size(), std::size_t(1));
        QCOMPARE(view.by[0].id, std::string("body"));
    }
    void raysFindWallsAndDiscs() {
        // The same table: upright plates are clipped at the horizon; a mask leaves less sky.
        QVERIFY(std::abs(lookUp(wallAt(30, -40, 40, -20, 60)).hiddenPlain - 0.2538201) < bound(0.254));
        QVERIFY(std::abs(lookUp(wallAt(50, -20, 80, 10, 40)).hiddenPlain - 0.0879253) < bound(0.088));
        const double share = wallFractionAbove(30, -40, 40, -20, 60, 10);
        QVERIFY(std::abs(lookUp(wallAt(30, -40, 40, -20, 60), 10).hiddenPlain - share) < bound(0.25));
        const Build disc = receiverAnd([](Solid &solid) {
            solid.shape = Cylinder{128, 0.02};
            solid.X_PartSolid.position_mm = {0, 0, 30.01};
        });
        QVERIFY(std::abs(lookUp(disc).hiddenPlain - discFraction(64, 30)) < bound(0.576));
        QVERIFY(std::abs(discFraction(64, 30) - 0.5755661) < 1e-6);
    }
    void lowSkyCountsLess() {
        // Weighted by the sine of elevation a band up to elevation e is sin2 e of the whole: geometry.
        const Build ring = receiverAnd([](Solid &solid) {
            solid.shape = Cylinder{4000, 1000}; // a lid far overhead leaves only the low sky
            solid.X_PartSolid.position_mm = {0, 0, 1000 + 500};
        });
        const SkyView view = lookUp(ring);
        const double edge = std::atan2(1000.0, 2000.0);
        QVERIFY(std::abs(view.hidden - (1 - std::pow(std::sin(edge), 2))) < 0.01);
        QVERIFY(std::abs(view.hiddenPlain - (1 - std::sin(edge))) < 0.01);
    }
    void pitchingTheNoseDownTurnsTheCraftUnderTheSky() {
        // A wall right ahead sinks when the nose goes down, and one behind rises.
        const Build ahead = wallAt(40, -60, 60, 0, 40);
        QVERIFY(lookUp(ahead, 0, 25).hiddenPlain < lookUp(ahead, 0, 0).hiddenPlain - 0.02);
        const Build behind = wallAt(-40, -60, 60, -40, 40);
        QVERIFY(lookUp(behind, 0, 25).hiddenPlain > lookUp(behind, 0, 0).hiddenPlain + 0.02);
        QVERIFY(std::abs(lookUp(ahead, 0, 25).axisToZenith_deg - 25) < 1e-9);
    }
    void onlyWhatStopsTheSignalCounts() {
        Build build = plateOver(-30, 30, -30, 30, 30);
        build.types.edit([](TypeTable &types) { test::typeIn(types, "body").solids[0].material = "petg"; });
        QCOMPARE(lookUp(build).hidden, 0.0); // thin plastic
        build.types.edit([](TypeTable &types) {
            Solid &solid = test::typeIn(types, "body").solids[0];
            solid.shape = Box{{60, 60, 12}};
            solid.X_PartSolid.position_mm.z() = 36;
        });
        QVERIFY(lookUp(build).hidden > 0.2); // 12 mm of it
    }
    void aWedgeSharesTheLeanOutBetweenHoverAndCruise() {
        Build build = test::bareQuad();
        test::addBox(build, "gps", {20, 20, 6}, {0, 0, 60}, 9, PartKind::gps);
        build.practice.profile = "sprint"; // 45 degrees nose down
        const auto leaning = [](const Build &asIs) {
            Analyser analyser;
            std::vector<Finding> found;
            for (const auto &finding : analyseFully(analyser, asIs).findings)
                if (finding.rule == RuleId::navSky) found.push_back(finding);
            return found;
        };
        const auto before = leaning(build);
        QCOMPARE(before.size(), std::size_t(1));
        QCOMPARE(before[0].variant, "cruise-lean");
        QVERIFY(std::abs(*before[0].measured - 45) < 1e-6);
        QCOMPARE(before[0].fixes.size(), std::size_t(1));
        const auto mended = applyFix(build, before[0].fixes[0]);
        QVERIFY(bool(mended));
        QVERIFY(leaning(*mended).empty()); // 22.5 degrees either way
        build.parts[0].pinned = true;
        QVERIFY(leaning(build)[0].fixes.empty());
    }
    void theWholeSkySurveyNamesWhoHides() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Survey &survey = *analyseFully(analyser, build).derived.survey;
        QCOMPARE(survey.skies.size(), std::size_t(1));
        const SkySurvey &sky = survey.skies[0];
        QCOMPARE(sky.part, std::string("gps"));
        double sum = 0;
        for (const auto &by : sky.level.by) sum += by.share;
        QVERIFY(std::abs(sum - sky.level.hidden) < 1e-9); // shares add up to the whole
        QVERIFY(sky.level.hidden > 0.02 && sky.level.hidden < 0.4);
    }

    void aDiscInThePictureHasTheAreaOfItsAngle() {
        // Equidistant picture: the angle off the axis is the radius, so a sphere of half angle a on the axis covers
        // pi a2 of H x V. Half angle: asin(r / d). Geometry.
        for (const double d : {40.0, 80.0, 160.0}) {
            Build build = cameraAnd(120, 90);
            addBox(build, "ball", {1, 1, 1}, {d, 0, 0}, 1);
            build.types.edit([](TypeTable &types) { test::typeIn(types, "ball").solids[0].shape = Sphere{20}; });
            const double a = std::asin(10 / d), h = radiansFromDegrees(120), v = radiansFromDegrees(90);
            const double share = kPi * a * a / (h * v);
            const CameraView view = lookAhead(build);
            QVERIFY2(std::abs(view.hidden - share) < 0.002 + 0.02 * share, qPrintable(QString::number(view.hidden)));
            QCOMPARE(view.propellers, 0.0);
        }
    }
    void aWallAcrossHalfThePictureHidesHalf() {
        // A tall narrow picture: across a wide one the horizon would bend.
        Build build = cameraAnd(6, 80);
        addBox(build, "wall", {0.1, 4000, 2000}, {20, 0, -1000}, 1); // everything below the axis
        QVERIFY(std::abs(lookAhead(build).hidden - 0.5) < 0.01);
        const auto up = tiltCamera(build, "cam", 20);
        QVERIFY(bool(up));
        // 20 of 80 degrees more sky: a quarter of the picture.
        QVERIFY(std::abs(lookAhead(*up).hidden - 0.25) < 0.01);
        QVERIFY(std::abs(tiltOf(*typeOf(*up, up->parts[0]), framePose(*up, up->parts[0])) - 20) < 1e-9);
    }
    void tiltsOutsideTheBracketAreRefused() {
        const Build build = cameraAnd(100, 80);
        QVERIFY(!tiltCamera(build, "cam", 61));
        QVERIFY(!tiltCamera(build, "cam", -1));
        QVERIFY(!tiltCamera(build, "nobody", 10));
        QVERIFY(bool(tiltCamera(build, "cam", 60)));
    }
    void propellersAreCountedApart() {
        Build build = test::bareQuad(100, 127);
        Build camera = cameraAnd(120, 90);
        build.types = camera.types;
        build.parts = camera.parts;
        build.parts[0].placement.pose.position_mm = {60, 0, 0};
        const CameraView view = lookAhead(build);
        QVERIFY(view.propellers > 0.001);
        QCOMPARE(view.hidden, 0.0);
        for (const auto &by : view.by) QVERIFY(by.id == "m1" || by.id == "m2");
    }
    void theBestTiltIsTheWidestRunWithinThePractice() {
        Build build = cameraAnd(6, 80);
        addBox(build, "wall", {0.1, 4000, 2000}, {20, 0, -1000}, 1);
        Analyser analyser;
        const Survey &survey = *analyseFully(analyser, build).derived.survey;
        const CameraSurvey &camera = survey.cameras[0];
        QCOMPARE(camera.tilts.size(), std::size_t(13)); // 0 to 60 in fives
        QVERIFY(camera.bestFrom_deg.has_value());
        QCOMPARE(*camera.bestFrom_deg, 40.0); // half the height of the picture
        QCOMPARE(*camera.bestTo_deg, 60.0);
        for (std::size_t i = 1; i < camera.tilts.size(); ++i)
            QVERIFY(camera.tilts[i].hidden <= camera.tilts[i - 1].hidden);
    }
    void aLensBehindItsFrameIsCovered() {
        Build build = cameraAnd(100, 80);
        build.frame.edit([](Frame &frame) {
            frame.plates.push_back(
                {"top", "Top", {{-50, -20}, {30, -20}, {30, 20}, {-50, 20}}, {}, {}, 20, 2, "carbon", false, {}, {}});
            frame.plates.push_back(
                {"low", "Low", {{-50, -20}, {30, -20}, {30, 20}, {-50, 20}}, {}, {}, -22, 2, "carbon", false, {}, {}});
        });
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        QVERIFY(*lensOvershoot_mm(build, derived.scene, 0, {20, 0, 0}) < 0);
        // Straight ahead the plates end at 30: a lens at 45 stands 15 mm out, and no plane meets it later.
        QVERIFY(std::abs(*lensOvershoot_mm(build, derived.scene, 0, {45, 0, 0}) - 15) < 1e-9);
        const Build bare = cameraAnd(100, 80); // without a frame there is nothing to judge by
        Analyser other;
        QVERIFY(!lensOvershoot_mm(bare, other.update(bare).derived.scene, 0, {0, 0, 0}));
    }
    void aLampIsSeenFromTheHalfThatItShinesInto() {
        Build build;
        addBox(build, "fc", {30, 30, 2}, {0, 0, 0}, 8, PartKind::flightController);
        build.types.edit([](TypeTable &types) {
            types.at("fc-type").ports = {{"status", PortKind::lamp, {0, 0, 1.01}, {0, 0, 1}, {}, {}, false}};
        });
        Analyser analyser;
        LampSurvey open = analyseFully(analyser, build).derived.survey->lamps.at(0);
        QVERIFY(std::abs(open.view.seen - 0.5) < 0.03); // nothing about: from above only
        addBox(build, "lid", {200, 200, 2}, {0, 0, 6}, 5);
        const LampSurvey covered = analyseFully(analyser, build).derived.survey->lamps.at(0);
        QVERIFY(covered.view.seen < open.view.seen);
        QCOMPARE(covered.view.by.at(0).id.empty(), false);
    }

    void anglesReadBackAsInTheTable_data() {
        // Orientation table: R = Rz(yaw) Ry(pitch) Rx(roll), read back as roll, pitch, yaw. Diebel 2006.
        QTest::addColumn<QVector<double>>("given");
        QTest::addColumn<QVector<double>>("read");
        using V = QVector<double>;
        QTest::newRow("level") << V{0, 0, 0} << V{0, 0, 0};
        QTest::newRow("arrow left") << V{0, 0, 90} << V{0, 0, 90};
        QTest::newRow("upside down") << V{180, 0, 0} << V{180, 0, 0};
        QTest::newRow("mast nose up") << V{0, -20, 0} << V{0, -20, 0};
        QTest::newRow("mast nose down, right") << V{0, 20, -35} << V{0, 20, -35};
        QTest::newRow("on edge") << V{90, 0, 45} << V{90, 0, 45};
        QTest::newRow("general") << V{10, 20, 30} << V{10, 20, 30};
        QTest::newRow("lock, nose down") << V{0, 90, 30} << V{0, 90, 30};
        QTest::newRow("lock, nose up") << V{20, -90, 50} << V{0, -90, 70};
    }
    void anglesReadBackAsInTheTable() {
        QFETCH(QVector<double>, given);
        QFETCH(QVector<double>, read);
        const MountingAngles angles = mountingAngles(Vec3::UnitX(), quaternionFrom({given[0], given[1], given[2]}));
        QVERIFY(std::abs(angles.up.roll_deg - read[0]) < 1e-5);
        QVERIFY(std::abs(angles.up.pitch_deg - read[1]) < 1e-5);
        QVERIFY(std::abs(angles.up.yaw_deg - read[2]) < 1e-5);
        // Forward, right, down: roll the same, pitch and yaw change sign.
        QVERIFY(std::abs(angles.down.roll_deg - angles.up.roll_deg) < 1e-12);
        QVERIFY(std::abs(angles.down.pitch_deg + angles.up.pitch_deg) < 1e-12);
        QVERIFY(std::abs(std::remainder(angles.down.yaw_deg + angles.up.yaw_deg, 360)) < 1e-12);
        QCOMPARE(angles.gimbalLocked, std::abs(read[1]) == 90);
    }
    void theArrowCountsNotTheBoardsOwnAxes() {
        // The arrow points to the board's left; the board is turned right by 90: the arrow points forward again.
        const MountingAngles angles = mountingAngles(Vec3::UnitY(), quaternionFrom({0, 0, -90}));
        QVERIFY(std::abs(angles.up.yaw_deg) < 1e-9 && std::abs(angles.headingOff_deg) < 1e-9);
        QVERIFY(angles.offNearest_deg < 1e-9);
    }
    void everyQuarterTurnIsItsOwnNearest() {
        std::set<std::string> words;
        for (const auto &turn : quarterTurns()) {
            const MountingAngles angles = mountingAngles(Vec3::UnitX(), quaternionFrom(turn));
            QVERIFY(angles.offNearest_deg < 1e-6);
            words.insert(angles.inWords);
            const Quat off = quaternionFrom(turn) * quaternionFrom({3, 0, 0});
            QVERIFY(std::abs(mountingAngles(Vec3::UnitX(), off).offNearest_deg - 3) < 1e-6);
        }
        QCOMPARE(words.size(), std::size_t(24)); // each has a name of its own
    }
    void aTiltedMastLeansItsTop() {
        const MountingAngles angles = mountingAngles(Vec3::UnitX(), quaternionFrom({0, -20, 0}));
        QVERIFY(std::abs(angles.topTilt_deg - 20) < 1e-9);
        QVERIFY(std::abs(angles.offNearest_deg - 20) < 1e-9);
    }

    void cutsHaveTheAreaOfTheSection() {
        const CutPlane across{{0, 0, 0}, Vec3::UnitX(), Vec3::UnitZ()}; // the plane y = 0
        QVERIFY(std::abs(ringArea(sectionOf(Box{{20, 10, 4}}, {}, across)) - 80) < 1e-9);
        // A cylinder along z cut at distance d from its axis: 2 sqrt(r2 - d2) wide.
        for (const double d : {0.0, 3.0, 6.0}) {
            const Pose pose{{1, d, 2}, Quat::Identity()};
            const double area = 2 * std::sqrt(64 - d * d) * 30;
            QVERIFY(std::abs(ringArea(sectionOf(Cylinder{16, 30}, pose, across)) - area) < 0.01 * area);
        }
        const double ball = ringArea(sectionOf(Sphere{20}, {{0, 6, 0}, Quat::Identity()}, across));
        QVERIFY(std::abs(ball - kPi * 64) < 0.02 * kPi * 64);
        QVERIFY(sectionOf(Box{{20, 10, 4}}, {{0, 6, 0}, Quat::Identity()}, across).empty());
    }
    void aCutThroughAHoleLeavesTwoPieces() {
        const Prism plate{{{{-20, -10}, {20, -10}, {20, 10}, {-20, 10}}, {circleRing({0, 0}, 8)}}, 2};
        const auto rings = sectionOf(plate, {}, {{0, 0, 0}, Vec3::UnitX(), Vec3::UnitZ()});
        QCOMPARE(rings.size(), std::size_t(2));
        QVERIFY(std::abs(ringArea({rings[0]}) + ringArea({rings[1]}) - (40 - 8) * 2) < 0.2);
    }
    void randomBodiesAreCutAlongTheirWholeWidth() {
        // Integrating the sections over the height gives the volume (Cavalieri).
        std::mt19937 random(7);
        std::uniform_real_distribution<double> size(5, 30), turn(-180, 180);
        for (int i = 0; i < 20; ++i) {
            const Shape shape = i % 2 ? Shape(Box{{size(random), size(random), size(random)}})
                                      : Shape(Cylinder{size(random), size(random)});
            const Pose pose{{1, 2, 3}, quaternionFrom({turn(random), turn(random) / 2, turn(random)})};
            const Aabb box = boundsOf(shape, pose);
            constexpr int kSlices = 400;
            const double step = box.size_mm().z() / kSlices;
            double volume = 0;
            for (int s = 0; s < kSlices; ++s)
                volume +=
                    step * ringArea(sectionOf(
                               shape, pose, {{0, 0, box.min_mm.z() + (s + 0.5) * step}, Vec3::UnitX(), Vec3::UnitY()}));
            QVERIFY(std::abs(volume / shapeProperties(shape).volume_mm3 - 1) < 0.003);
        }
    }
    void theHullHoldsEveryPointAndTurnsLeft() {
        std::mt19937 random(3);
        std::uniform_real_distribution<double> at(-10, 10);
        std::vector<Vec2> points;
        for (int i = 0; i < 60; ++i) points.emplace_back(at(random), at(random));
        const auto hull = convexHull(points);
        for (std::size_t i = 0; i < hull.size(); ++i) {
            const Vec2 a = hull[i], d = hull[(i + 1) % hull.size()] - a;
            for (const auto &p : points) QVERIFY(d.x() * (p - a).y() - d.y() * (p - a).x() > -1e-9);
        }
    }
};

QTEST_APPLESS_MAIN(TestViews)
#include "test_views.moc"
