// Triangle meshes: what they weigh and how far they are from other things, against shapes with closed forms.
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "support/builds.h"

using namespace waxis;

namespace {

/// A box as twelve triangles, counter-clockwise from outside.
Mesh boxMesh(const Vec3 &size, const Vec3 &centre = Vec3::Zero()) {
    Mesh mesh;
    for (int i = 0; i < 8; ++i)
        mesh.points_mm.push_back(
            centre + Vec3((i & 1 ? .5 : -.5) * size.x(), (i & 2 ? .5 : -.5) * size.y(), (i & 4 ? .5 : -.5) * size.z()));
    mesh.triangles = {{0, 2, 1}, {1, 2, 3}, {4, 5, 6}, {5, 7, 6}, {0, 1, 4}, {1, 5, 4},
                      {2, 6, 3}, {3, 6, 7}, {0, 4, 2}, {2, 4, 6}, {1, 3, 5}, {3, 7, 5}};
    return mesh;
}

Body body(const Shape &shape, const Vec3 &at, const RollPitchYaw &turn = {}) {
    return {0, shape, {at, quaternionFrom(turn)}, 0};
}

} // namespace

class TestMesh : public QObject {
    Q_OBJECT

private slots:
    void aBoxOfTrianglesWeighsWhatABoxWeighs() {
        const ShapeProperties mesh = shapeProperties(boxMesh({30, 20, 10}, {5, -3, 8})),
                              box = shapeProperties(Box{{30, 20, 10}});
        QVERIFY(std::abs(mesh.volume_mm3 - box.volume_mm3) < 1e-9);
        QVERIFY((mesh.centroid_mm - Vec3(5, -3, 8)).norm() < 1e-12);
        QVERIFY((mesh.inertia_mm5 - box.inertia_mm5).norm() < 1e-9 * box.inertia_mm5.norm());
    }
    void exactPropertiesWinOverTheTriangles() {
        Mesh mesh = boxMesh({10, 10, 10});
        mesh.exact = ShapeProperties{990, {1, 2, 3}, Mat3::Identity()};
        QCOMPARE(shapeProperties(mesh).volume_mm3, 990.0);
    }
    void distancesEqualThoseOfTheBoxItStandsFor() {
        std::mt19937 random(7);
        std::uniform_real_distribution<double> place(-40, 40), angle(-180, 180), size(3, 25);
        int apart = 0;
        for (int round = 0; round < 300; ++round) {
            const Vec3 s(size(random), size(random), size(random));
            const Pose pose{{place(random), place(random), place(random)},
                            quaternionFrom({angle(random), angle(random), angle(random)})};
            const Body asMesh{0, boxMesh(s), pose, 0}, asBox{0, Box{s}, pose, 0};
            for (const Shape &other :
                 {Shape(Box{{12, 8, 5}}), Shape(Cylinder{9, 14}), Shape(Sphere{11}), Shape(boxMesh({12, 8, 5})),
                  Shape(Prism{{{{-9, -9}, {9, -9}, {9, 9}, {-9, 9}}, {}}, 2})}) {
                const Body that = body(other, {0, 0, 0}, {20, 30, 40});
                const double expected = measureGap(asBox, that).distance_mm,
                             found = measureGap(asMesh, that).distance_mm;
                QVERIFY2(std::abs(found - expected) < 2e-4,
                         qPrintable(QString("round %1: %2 for %3").arg(round).arg(found).arg(expected)));
                apart += expected > 0;
            }
        }
        QVERIFY(apart > 500);
    }
    void whatLiesWhollyInsideOverlaps() {
        const Body shell = body(boxMesh({50, 50, 50}), {0, 0, 0});
        QCOMPARE(measureGap(shell, body(Box{{5, 5, 5}}, {3, 2, 1})).distance_mm, 0.0);
        QCOMPARE(measureGap(body(boxMesh({5, 5, 5}), {3, 2, 1}), shell).distance_mm, 0.0);
        QVERIFY(measureGap(shell, body(Sphere{5}, {40, 0, 0})).distance_mm > 12);
    }
    void theFreeingMoveFreesIt() {
        const Body mesh = body(boxMesh({20, 20, 20}), {0, 0, 0});
        Body box = body(Box{{10, 10, 10}}, {12, 0, 0});
        const Vec3 move = freeingMove(box, mesh);
        QVERIFY(std::abs(move.norm() - 3) < 0.05);
        box.X_FrameBody.position_mm += move * 1.001;
        QVERIFY(measureGap(box, mesh).distance_mm >= 0);
        QVERIFY(freeingMove(box, mesh).norm() < 0.05);
    }
    void plateMassAndInertiaAgreeWithNumericalIntegration() {
        // Independent of Green's theorem: the plate is counted in cells of 0.1 mm (midpoint rule).
        Plate plate;
        plate.outline_mm = {{-40, -20}, {35, -22}, {48, 0}, {35, 22}, {-40, 20}, {-52, 3}};
        plate.holes = {{{10, 8}, 3.2}, {{-20, -5}, 9}};
        plate.cutouts_mm = {{{-8, -14}, {14, -14}, {14, -8}, {-8, -8}}};
        plate.thickness_mm = 2;
        const ShapeProperties exact = shapeProperties(plateShape(plate));
        const Polygon outline{plate.outline_mm, plate.cutouts_mm};
        constexpr double kCell = 0.1;
        double area = 0, sx = 0, sy = 0, sxx = 0, syy = 0, sxy = 0;
        for (double x = -52 + kCell / 2; x < 48; x += kCell)
            for (double y = -22 + kCell / 2; y < 22; y += kCell) {
                if (!contains(outline, {x, y})) continue;
                if (std::any_of(plate.holes.begin(), plate.holes.end(), [&](const RoundHole &h) {
                        return (h.centre_mm - Vec2(x, y)).norm() < h.diameter_mm / 2;
                    }))
                    continue;
                area += 1, sx += x, sy += y, sxx += x * x, syy += y * y, sxy += x * y;
            }
        const double cell = kCell * kCell, cx = sx / area, cy = sy / area;
        const double t = plate.thickness_mm, a = area * cell;
        const double xx = (sxx / area - cx * cx) * a, yy = (syy / area - cy * cy) * a, xy = (sxy / area - cx * cy) * a;
        // 0.05 %: the border of about 300 mm is counted to half a cell, and round holes are polygons within 0.03 mm.
        QVERIFY(std::abs(exact.volume_mm3 - a * t) < 5e-4 * a * t);
        QVERIFY((exact.centroid_mm.head<2>() - Vec2(cx, cy)).norm() < 0.01);
        QVERIFY(std::abs(exact.inertia_mm5(0, 0) - (yy * t + a * t * t * t / 12)) < 1e-3 * exact.inertia_mm5(0, 0));
        QVERIFY(std::abs(exact.inertia_mm5(1, 1) - (xx * t + a * t * t * t / 12)) < 1e-3 * exact.inertia_mm5(1, 1));
        QVERIFY(std::abs(exact.inertia_mm5(2, 2) - (xx + yy) * t) < 1e-3 * exact.inertia_mm5(2, 2));
        QVERIFY(std::abs(exact.inertia_mm5(0, 1) + xy * t) < 1e-3 * exact.inertia_mm5(2, 2));
    }
};

QTEST_APPLESS_MAIN(TestMesh)
#include "test_mesh.moc"
