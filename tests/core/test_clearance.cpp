// Distances against closed forms (elementary geometry), against a slow reference that shares no code with the program,
// and each proved right by a plane between the bodies.
#include "core/base/units.h"
#include "core/clearance/clearance_world.h"

#include <QtTest>
#include <random>

using namespace waxis;

namespace {

Body at(const Shape &shape, const Vec3 &p, const RollPitchYaw &turn = {}) {
    return {0, shape, {p, quaternionFrom(turn)}, 0};
}
double gap(const Body &a, const Body &b) { return measureGap(a, b).distance_mm; }

Shape randomShape(std::mt19937 &random, std::uniform_real_distribution<double> &size) {
    const double s = size(random), t = size(random), u = size(random);
    switch (random() % 3) {
    case 0: return Box{{s, t, u}};
    case 1: return Cylinder{s, t};
    default: return Sphere{s};
    }
}

/// Alternating projections between two boxes: slow, simple, convergent for convex bodies.
double boxGapByProjection(const Body &a, const Body &b) {
    auto project = [](const Body &body, const Vec3 &p) {
        const Vec3 half = std::get<Box>(body.shape).fullSize_mm / 2;
        return Vec3(body.X_FrameBody * Vec3((body.X_FrameBody.inverse() * p).cwiseMax(-half).cwiseMin(half)));
    };
    Vec3 p = a.X_FrameBody.position_mm, q = p;
    for (int i = 0; i < 20000; ++i) {
        q = project(b, p);
        const Vec3 next = project(a, q);
        if ((next - p).norm() < 1e-12) break;
        p = next;
    }
    return (p - q).norm();
}

} // namespace

class TestClearance : public QObject {
    Q_OBJECT

private slots:
    void closedForms_data() {
        QTest::addColumn<double>("measured");
        QTest::addColumn<double>("expected");
        QTest::addColumn<double>("tolerance");
        const Body ball = at(Sphere{10}, {0, 0, 0});
        QTest::newRow("sphere sphere") << gap(ball, at(Sphere{6}, {20, 0, 0})) << 12.0 << 1e-9;
        QTest::newRow("sphere sphere, askew") << gap(ball, at(Sphere{6}, {10, 20, 20})) << 30.0 - 8.0 << 1e-9;
        QTest::newRow("sphere box face") << gap(ball, at(Box{{4, 4, 4}}, {15, 0, 0})) << 8.0 << 1e-6;
        QTest::newRow("sphere box corner")
            << gap(ball, at(Box{{4, 4, 4}}, {12, 12, 12})) << std::sqrt(300.0) - 5 << 1e-6;
        QTest::newRow("box box face") << gap(at(Box{{10, 10, 10}}, {0, 0, 0}), at(Box{{4, 4, 4}}, {10, 1, 1})) << 3.0
                                      << 1e-9;
        QTest::newRow("box box edge") << gap(at(Box{{10, 10, 10}}, {0, 0, 0}), at(Box{{4, 4, 4}}, {10, 10, 0}))
                                      << std::sqrt(18.0) << 1e-9;
        QTest::newRow("box, turned box") << gap(at(Box{{10, 10, 10}}, {0, 0, 0}),
                                                at(Box{{4, 4, 4}}, {15, 0, 0}, {0, 0, 45}))
                                         << 10 - 2 * std::sqrt(2.0) << 1e-9;
        QTest::newRow("upright cylinders")
            << gap(at(Cylinder{10, 20}, {0, 0, 0}), at(Cylinder{6, 8}, {12, 0, 0})) << 4.0 << 1e-6;
        QTest::newRow("stacked cylinders")
            << gap(at(Cylinder{10, 20}, {0, 0, 0}), at(Cylinder{6, 8}, {0, 0, 17})) << 3.0 << 1e-6;
        QTest::newRow("crossed cylinders")
            << gap(at(Cylinder{10, 100}, {0, 0, 0}), at(Cylinder{6, 100}, {0, 12, 0}, {0, 90, 0})) << 4.0 << 1e-6;
        QTest::newRow("cylinder box side")
            << gap(at(Cylinder{10, 20}, {0, 0, 0}), at(Box{{4, 40, 4}}, {10, 0, 0})) << 3.0 << 1e-6;
        QTest::newRow("touching boxes") << gap(at(Box{{10, 10, 10}}, {0, 0, 0}), at(Box{{4, 4, 4}}, {7, 0, 0})) << 0.0
                                        << 1e-9;
    }
    void closedForms() {
        QFETCH(double, measured);
        QFETCH(double, expected);
        QFETCH(double, tolerance);
        QVERIFY2(std::abs(measured - expected) <= tolerance,
                 qPrintable(QString("%1 instead of %2").arg(measured, 0, 'g', 12).arg(expected)));
    }
    void turnedBoxesAgreeWithAlternatingProjections() {
        std::mt19937 random(99);
        std::uniform_real_distribution<double> size(2, 30), place(-40, 40), angle(-180, 180);
        int separated = 0;
        for (int i = 0; i < 300; ++i) {
            auto draw = [&] {
                return at(Box{{size(random), size(random), size(random)}},
                          {place(random), place(random), place(random)},
                          {angle(random), angle(random) / 2.1, angle(random)});
            };
            const Body a = draw(), b = draw();
            const double measured = gap(a, b), reference = boxGapByProjection(a, b);
            if (reference > 0.01) {
                ++separated;
                QVERIFY2(std::abs(measured - reference) < 2e-4,
                         qPrintable(QString("%1 %2, seed 99").arg(measured).arg(reference)));
            }
        }
        QVERIFY(separated > 150);
    }
    void thingsSetSquareOnAGridAgreeWithClosedForms() {
        // Builds are full of faces, edges and corners in line, where a simplex search can go astray.
        std::mt19937 random(1);
        std::uniform_int_distribution<int> size(1, 20), place(-20, 20);
        auto sizes = [&] { return Vec3(size(random), size(random), size(random)); };
        auto anywhere = [&] { return Vec3(place(random), place(random), place(random)); };
        auto agrees = [](double measured, double expected, const char *what) {
            return std::abs(measured - expected) <= 1e-6 ||
                   (qWarning("%s: %.9g instead of %.9g, seed 1", what, measured, expected), false);
        };
        for (int i = 0; i < 20000; ++i) {
            const Vec3 s = sizes(), t = sizes(), p = anywhere(), q = anywhere();
            const Vec3 apart = ((p - q).cwiseAbs() - (s + t) / 2).cwiseMax(0.0);
            QVERIFY(agrees(gap(at(Box{s}, p), at(Box{t}, q)), apart.norm(), "boxes"));
            const double along = std::max(0.0, std::abs(p.z() - q.z()) - (s.z() + t.z()) / 2);
            const double sides = std::max(0.0, (p - q).head<2>().norm() - (s.x() + t.x()) / 2);
            QVERIFY(agrees(gap(at(Cylinder{s.x(), s.z()}, p), at(Cylinder{t.x(), t.z()}, q)), std::hypot(sides, along),
                           "upright cylinders"));
            const Vec2 beside = ((p - q).head<2>().cwiseAbs() - t.head<2>() / 2).cwiseMax(0.0);
            QVERIFY(agrees(gap(at(Cylinder{s.x(), s.z()}, p), at(Box{t}, q)),
                           std::hypot(std::max(0.0, beside.norm() - s.x() / 2), along), "upright cylinder and box"));
            const Vec3 off = ((p - q).cwiseAbs() - t / 2).cwiseMax(0.0);
            QVERIFY(agrees(gap(at(Sphere{s.x()}, p), at(Box{t}, q)), std::max(0.0, off.norm() - s.x() / 2),
                           "sphere and box"));
        }
    }
    void aPlaneBetweenTheBodiesProvesEveryDistance() {
        // No distance can be less than the width of an empty slab between the two; the nearest points show that it is
        // no more.
        std::mt19937 random(17);
        std::uniform_real_distribution<double> size(1, 30), place(-30, 30);
        std::uniform_int_distribution<int> turn(-12, 12);
        int separated = 0;
        for (int i = 0; i < 20000; ++i) {
            auto draw = [&] {
                return at(randomShape(random, size), {place(random), place(random), place(random)},
                          {turn(random) * 15.0, turn(random) * 7.5, turn(random) * 15.0});
            };
            const Body a = draw(), b = draw();
            const BodyGap g = measureGap(a, b);
            if (!(g.distance_mm > 0)) continue;
            ++separated;
            const Vec3 n = (g.onB_mm - g.onA_mm).normalized();
            auto reach = [](const Body &body, const Vec3 &d) {
                return (body.X_FrameBody * supportPoint(body.shape, body.X_FrameBody.rotation.conjugate() * d)).dot(d);
            };
            const double slab = -reach(b, -n) - reach(a, n);
            QVERIFY2(std::abs((g.onB_mm - g.onA_mm).norm() - g.distance_mm) < 1e-9, "seed 17");
            QVERIFY2(std::abs(slab - g.distance_mm) < 1e-4,
                     qPrintable(QString("%1 proved, %2 measured, seed 17").arg(slab, 0, 'g', 12).arg(g.distance_mm)));
        }
        QVERIFY(separated > 10000);
    }
    void aPlateWithoutHolesMeasuresLikeTheSameBox() {
        std::mt19937 random(23);
        std::uniform_real_distribution<double> place(-60, 60), angle(-180, 180);
        const Vec3 size(60, 36, 2);
        const Shape plate = Prism{{{{-30, -18}, {30, -18}, {30, 18}, {-30, 18}}, {}}, 2};
        for (int i = 0; i < 2000; ++i) {
            const Pose pose{{place(random), place(random), place(random) / 3},
                            quaternionFrom({angle(random), angle(random) / 2.1, angle(random)})};
            const Body prism{0, plate, pose, 0}, box{0, Box{size}, pose * Pose{{0, 0, 1}, Quat::Identity()}, 0};
            const Body other = i % 2 ? at(Box{{12, 8, 5}}, {0, 0, 0}) : at(Cylinder{12, 20}, {0, 0, 0}, {30, 0, 0});
            const Body slab = at(plate, {0, 0, 0});
            QVERIFY2(std::abs(gap(prism, other) - gap(box, other)) < 1e-6, "seed 23");
            QVERIFY2(std::abs(gap(prism, slab) - gap(box, at(Box{size}, {0, 0, 1}))) < 1e-6, "seed 23");
        }
    }
    void overlapDepthOfAlignedBoxesIsTheShortestWayOut() {
        const BodyGap result = measureGap(at(Box{{10, 10, 10}}, {0, 0, 0}), at(Box{{20, 20, 4}}, {0, 0, 6}));
        QVERIFY(std::abs(result.depth_mm - 1.0) < 1e-9);
        QVERIFY((result.freeingMove_mm - Vec3(0, 0, -1)).norm() < 1e-9);
    }
    void freeingMovesFreeEveryPairAndWasteNothing() {
        std::mt19937 random(7);
        std::uniform_real_distribution<double> size(4, 20), place(-8, 8), angle(-180, 180);
        auto draw = [&] {
            return at(randomShape(random, size), {place(random), place(random), place(random)},
                      {angle(random), angle(random) / 2.1, angle(random)});
        };
        int overlapping = 0;
        for (int i = 0; i < 200; ++i) {
            Body a = draw();
            const Body b = draw();
            const BodyGap before = measureGap(a, b);
            if (before.depth_mm < 0.05) continue;
            ++overlapping;
            const Vec3 start = a.X_FrameBody.position_mm;
            a.X_FrameBody.position_mm = start + before.freeingMove_mm * 1.002;
            const BodyGap after = measureGap(a, b);
            QVERIFY2(after.depth_mm < 0.03, qPrintable(QString("still %1 deep, seed 7").arg(after.depth_mm)));
            QVERIFY2(after.distance_mm < 0.1, qPrintable(QString("%1 too far, seed 7").arg(after.distance_mm)));
        }
        QVERIFY(overlapping > 60);
    }
    void platesRespectTheirHoles() {
        const Polygon plate{{{-30, -30}, {30, -30}, {30, 30}, {-30, 30}}, {circleRing({10, 0}, 8, 32)}};
        const Body body = at(Prism{plate, 2}, {0, 0, 0});
        const auto screw = [&](double x) { return at(Cylinder{3, 20}, {x, 0, 1}); };
        QVERIFY(std::abs(gap(body, screw(10)) - 2.5) < 0.05);                       // centred in the hole: 4 - 1.5
        QVERIFY(measureGap(screw(-10), body).depth_mm > 0.5);                       // through the material
        QVERIFY(std::abs(gap(body, at(Box{{5, 5, 5}}, {0, 0, 7.5})) - 3.0) < 1e-9); // above
        QVERIFY(std::abs(gap(body, at(Sphere{4}, {10, 0, 7})) - 3.0) > 0.1); // above the hole: farther than the slab
        QVERIFY(std::abs(gap(body, at(Box{{4, 4, 4}}, {36, 0, 1})) - 4.0) < 1e-6); // beside
        QCOMPARE(gap(body, at(Box{{1, 1, 1}}, {-10, 0, 1})), 0.0);                 // wholly inside the material
    }
    void notchesOfAPlateAreFree() {
        // An L: what stands in its corner touches neither leg, whatever the hull says.
        const Body plate = at(Prism{{{{0, 0}, {60, 0}, {60, 20}, {20, 20}, {20, 60}, {0, 60}}, {}}, 4}, {0, 0, 0});
        QVERIFY(std::abs(gap(plate, at(Box{{10, 10, 10}}, {30, 31, 2})) - 5.0) < 1e-9); // 20 to 25 in x
        QVERIFY(std::abs(gap(plate, at(Box{{10, 10, 10}}, {32, 28, 2})) - 3.0) < 1e-9); // 20 to 23 in y
        QVERIFY(std::abs(gap(plate, at(Cylinder{6, 30}, {28, 28, 2})) - 5.0) < 1e-6);   // to the two edges alike
        QVERIFY(std::abs(gap(plate, at(Sphere{8}, {24, 24, 2}))) < 1e-9);               // just touches them
        QVERIFY(measureGap(at(Box{{10, 10, 10}}, {22, 31, 2}), plate).depth_mm > 2.9);  // 3 mm into the leg
    }
    void tiltedPlatesMeasureAsTheyStand() {
        // A round hole seen askew: a rod along the hole's own axis keeps its room, an upright one does not.
        const Polygon sheet{{{-30, -30}, {30, -30}, {30, 30}, {-30, 30}}, {circleRing({0, 0}, 10, 48)}};
        const RollPitchYaw lean{0, 40, 0};
        const Body plate = at(Prism{sheet, 3}, {0, 0, 0}, lean);
        QVERIFY(std::abs(gap(plate, at(Cylinder{4, 60}, {0, 0, 0}, lean)) - 3.0) < 0.05);
        QVERIFY(gap(plate, at(Cylinder{4, 60}, {0, 0, 0})) < 2.0);
        // Any pair keeps its distance when both are turned and moved together.
        const Pose together{{12, -7, 30}, quaternionFrom({25, -50, 140})};
        Body rod = at(Cylinder{4, 60}, {9, 3, 5}, {10, 20, 30}), turnedPlate = plate, turnedRod = rod;
        turnedPlate.X_FrameBody = together * plate.X_FrameBody;
        turnedRod.X_FrameBody = together * rod.X_FrameBody;
        QVERIFY(std::abs(gap(plate, rod) - gap(turnedPlate, turnedRod)) < 1e-6);
    }
    void theOrderOfAPairDoesNotMatter() {
        std::mt19937 random(41);
        std::uniform_real_distribution<double> size(2, 25), place(-25, 25), angle(-180, 180);
        for (int i = 0; i < 500; ++i) {
            auto draw = [&] {
                return at(randomShape(random, size), {place(random), place(random), place(random)},
                          {angle(random), angle(random) / 2.1, angle(random)});
            };
            const Body a = draw(), b = draw();
            const BodyGap one = measureGap(a, b), other = measureGap(b, a);
            QVERIFY2(std::abs(one.distance_mm - other.distance_mm) < 1e-4, "seed 41");
            QVERIFY2(std::abs(one.depth_mm - other.depth_mm) < 0.02 * std::max(1.0, one.depth_mm), "seed 41");
        }
    }
    void partsLeaveAPlateByTheNearestFaceOrEdge() {
        const Body plate = at(Prism{{{{-30, -30}, {30, -30}, {30, 30}, {-30, 30}}, {}}, 2}, {0, 0, 0});
        const Vec3 up = freeingMove(at(Box{{10, 10, 4}}, {0, 0, 3.5}), plate); // stands 0.5 mm in from above
        QVERIFY((up - Vec3(0, 0, 0.5)).norm() < 1e-6);
        const Vec3 aside = freeingMove(at(Box{{10, 10, 40}}, {34.4, 0, 0}), plate); // 0.6 mm over the edge
        QVERIFY2((aside - Vec3(0.6, 0, 0)).norm() < 5e-3, qPrintable(QString::number(aside.norm())));
    }
    void theWorldFindsWhatAllPairsFindAndKeepsItWhileThingsMove() {
        std::mt19937 random(31);
        std::uniform_real_distribution<double> place(-60, 60), size(3, 15);
        std::vector<Body> bodies;
        for (int i = 0; i < 60; ++i)
            bodies.push_back({i,
                              Box{{size(random), size(random), size(random)}},
                              {Vec3(place(random), place(random), place(random) / 3), Quat::Identity()},
                              4});
        const auto interest = [](int, int) { return PairInterest{true, 4.0, true}; };
        ClearanceWorld world;
        world.reset(bodies, interest);
        for (int step = 0; step < 40; ++step) {
            const int owner = int(random() % bodies.size());
            bodies[std::size_t(owner)].X_FrameBody.position_mm = {place(random), place(random), place(random) / 3};
            world.move(owner, {bodies[std::size_t(owner)].X_FrameBody});
        }
        std::vector<std::pair<int, int>> found, expected;
        for (const auto &g : world.gaps()) found.emplace_back(g.a, g.b);
        for (int i = 0; i < 60; ++i)
            for (int j = i + 1; j < 60; ++j)
                if (gap(bodies[std::size_t(i)], bodies[std::size_t(j)]) <= 4.0) expected.emplace_back(i, j);
        QVERIFY(expected.size() > 10);
        QCOMPARE(found, expected);
    }
};

QTEST_APPLESS_MAIN(TestClearance)
#include "test_clearance.moc"
