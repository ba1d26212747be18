#include "core/base/text_match.h"
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/geometry/hole_pattern.h"
#include "core/geometry/solid.h"

#include <QtTest>
#include <random>

using namespace waxis;

class TestGeometry : public QObject {
    Q_OBJECT

private slots:
    void anglesSurviveTheWayThroughQuaternions() {
        std::mt19937 random(20260711);
        std::uniform_real_distribution<double> angle(-179.9, 179.9), pitch(-89.9, 89.9);
        for (int i = 0; i < 2000; ++i) {
            const RollPitchYaw in{angle(random), pitch(random), angle(random)};
            const auto out = rollPitchYawFrom(quaternionFrom(in));
            QVERIFY2(std::abs(out.roll_deg - in.roll_deg) < 1e-7 && std::abs(out.pitch_deg - in.pitch_deg) < 1e-7 &&
                         std::abs(out.yaw_deg - in.yaw_deg) < 1e-7,
                     "seed 20260711");
        }
    }
    void turnsAreSaidInWords_data() {
        QTest::addColumn<double>("roll");
        QTest::addColumn<double>("pitch");
        QTest::addColumn<double>("yaw");
        QTest::addColumn<QString>("words");
        QTest::newRow("level") << 0.0 << 0.0 << 0.0 << "level, facing forward";
        QTest::newRow("nose up") << 0.0 << -20.0 << 0.0 << "nose up 20°";
        QTest::newRow("left") << 0.0 << 0.0 << 90.0 << "turned left 90°";
        QTest::newRow("aft") << 0.0 << 0.0 << 180.0 << "turned aft";
        QTest::newRow("flipped") << 180.0 << 0.0 << 0.0 << "upside down";
        QTest::newRow("mixed") << 0.0 << 30.0 << -35.5 << "turned right 35.5°, nose down 30°";
    }
    void turnsAreSaidInWords() {
        QFETCH(double, roll);
        QFETCH(double, pitch);
        QFETCH(double, yaw);
        QTEST(QString::fromStdString(turnInWords(quaternionFrom({roll, pitch, yaw}))), "words");
    }
    void posesInvertAndCompose() {
        const Pose a{{1, 2, 3}, quaternionFrom({10, 20, 30})}, b{{-4, 5, 6}, quaternionFrom({-50, 5, 100})};
        const Vec3 p(7, -8, 9);
        QVERIFY(((a * b) * p - a * (b * p)).norm() < 1e-12);
        QVERIFY((a.inverse() * (a * p) - p).norm() < 1e-12);
    }
    void polygonAreaTakesHolesAwayInEitherDirection() {
        const Ring square{{0, 0}, {10, 0}, {10, 10}, {0, 10}};
        Ring hole{{2, 2}, {4, 2}, {4, 5}, {2, 5}};
        for (int i = 0; i < 2; ++i, std::reverse(hole.begin(), hole.end())) {
            const auto a = areaProperties({square, {hole}});
            QCOMPARE(a.area_mm2, 94.0);
            QVERIFY(std::abs(a.centroid_mm.x() - (100 * 5 - 6 * 3) / 94.0) < 1e-12);
        }
    }
    void secondMomentsMatchTheHandbookRectangle() {
        // b h^3 / 12 about the centroid (any handbook of mechanics).
        const auto a = areaProperties({{{3, 1}, {9, 1}, {9, 5}, {3, 5}}, {}});
        QVERIFY(std::abs(a.yy_mm4 - 6 * 4 * 4 * 4 / 12.0) < 1e-9);
        QVERIFY(std::abs(a.xx_mm4 - 4 * 6 * 6 * 6 / 12.0) < 1e-9);
        QVERIFY(std::abs(a.xy_mm4) < 1e-9);
    }
    void circleRingsKeepTheAreaOfTheCircle() {
        for (int corners : {8, 16, 24}) {
            const auto a = areaProperties({circleRing({5, -3}, 3.2, corners), {}});
            QVERIFY(std::abs(a.area_mm2 - kPi * 1.6 * 1.6) < 1e-9);
        }
    }
    void triangulationCoversTheMaterialExactly() {
        std::mt19937 random(4711);
        std::uniform_real_distribution<double> shift(-0.4, 0.4), size(1.0, 6.0);
        for (int run = 0; run < 200; ++run) {
            Polygon polygon;
            for (int i = 0; i < 24; ++i) { // a star-shaped outline, concave in places
                const double r = i % 3 == 0 ? 55 : 70, angle = i * 2 * kPi / 24;
                polygon.outline.push_back({r * std::cos(angle) + shift(random), r * std::sin(angle) + shift(random)});
            }
            for (int x = -1; x <= 1; ++x)
                for (int y = -1; y <= 1; ++y) // rows in line, as screw holes stand
                    polygon.holes.push_back(circleRing({x * 15.0, y * 15.0}, size(random), 12));
            const auto flat = triangulate(polygon);
            double area = 0;
            for (const auto &[a, b, c] : flat.triangles) {
                const Vec2 u = flat.points[b] - flat.points[a], v = flat.points[c] - flat.points[a];
                const double twice = u.x() * v.y() - u.y() * v.x();
                QVERIFY(twice >= -1e-9);
                area += twice / 2;
                QVERIFY(contains(polygon, (flat.points[a] + flat.points[b] + flat.points[c]) / 3) || twice < 1e-6);
            }
            QVERIFY2(std::abs(area - areaProperties(polygon).area_mm2) < 1e-6 * area, "seed 4711");
        }
    }
    void prismMomentsEqualThoseOfTheSameBox() {
        const Shape box = Box{{20, 8, 3}};
        const Shape prism = Prism{{{{-10, -4}, {10, -4}, {10, 4}, {-10, 4}}, {}}, 3};
        const auto a = shapeProperties(box), b = shapeProperties(prism);
        QVERIFY(std::abs(a.volume_mm3 - b.volume_mm3) < 1e-9);
        QVERIFY((a.inertia_mm5 - b.inertia_mm5).norm() < 1e-6);
        QCOMPARE(b.centroid_mm.z(), 1.5);
    }
    void boundsHoldEveryCornerOfATurnedBox() {
        const Pose pose{{3, 4, 5}, quaternionFrom({25, -40, 70})};
        const Vec3 half(6, 2, 1);
        const Aabb bounds = boundsOf(Box{2 * half}, pose);
        Aabb corners;
        for (int i = 0; i < 8; ++i)
            corners.include(
                pose * Vec3((i & 1 ? 1 : -1) * half.x(), (i & 2 ? 1 : -1) * half.y(), (i & 4 ? 1 : -1) * half.z()));
        QVERIFY((bounds.min_mm - corners.min_mm).norm() < 1e-9 && (bounds.max_mm - corners.max_mm).norm() < 1e-9);
    }
    void squarePatternsAreNamedBySide() {
        // 30.5 mm square: diagonal 43.134 mm (geometry).
        const auto holes = holeCentres({PatternShape::square, 30.5, 0, 3.2, 4});
        QVERIFY(std::abs((holes[0] - holes[2]).norm() - 43.1335) < 1e-3);
        QVERIFY(linesUp({PatternShape::square, 20, 0, 2.2, 4}, {PatternShape::square, 20.05, 0, 3.2, 4}));
        QVERIFY(!linesUp({PatternShape::square, 20, 0, 2.2, 4}, {PatternShape::square, 25.5, 0, 2.2, 4}));
        QVERIFY(!linesUp({PatternShape::square, 20, 0, 2.2, 4}, {PatternShape::circle, 20, 0, 2.2, 4}));
    }
    void armsReachFromRootToTipUnderTheirTopLine() {
        Arm arm;
        arm.root_mm = {10, 20, 6};
        arm.tip_mm = {110, 120, 6};
        arm.width_mm = 15;
        arm.thickness_mm = 6;
        const Pose pose = armPose(arm);
        const Vec3 size = std::get<Box>(armShape(arm)).fullSize_mm;
        QVERIFY((pose * Vec3(size.x() / 2, 0, size.z() / 2) - arm.tip_mm).norm() < 1e-9);
        QVERIFY((pose * Vec3(-size.x() / 2, 0, size.z() / 2) - arm.root_mm).norm() < 1e-9);
    }
    void slipsOfTheFingerFindTheirWord() {
        QCOMPARE(nearestWord("tolerence", {"value", "tolerance", "source"}), std::string("tolerance"));
        QCOMPARE(nearestWord("bater", {"battery", "aboard"}), std::string());
        QCOMPARE(editDistance("cg", "gc"), 1);
    }
};

QTEST_APPLESS_MAIN(TestGeometry)
#include "test_geometry.moc"
