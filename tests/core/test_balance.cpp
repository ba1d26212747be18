#include "core/balance/mass_properties.h"
#include "core/balance/mass_rows.h"
#include "core/balance/statics.h"
#include "core/base/units.h"
#include "core/practice/practice.h"
#include "support/builds.h"

#include <QtTest>
#include <random>

using namespace waxis;

class TestBalance : public QObject {
    Q_OBJECT

private slots:
    void nothingHasNoCentreOfGravity() {
        QVERIFY(!rollUp({}).cg_mm);
        const MassElement weightless{0, {5, 5, 5}, Mat3::Zero()};
        QVERIFY(!rollUp(std::span(&weightless, 1)).cg_mm);
    }
    void principalAxesRebuildTheTensor() {
        Mat3 inertia;
        inertia << 173001.9, 18102.6, 110399.9, 18102.6, 290694.1, 5434.9, 110399.9, 5434.9, 221211.9;
        const auto p = principalAxes(inertia);
        const Mat3 rebuilt = p.axes * p.moments_gmm2.asDiagonal() * p.axes.transpose();
        QVERIFY((rebuilt - inertia).norm() < 1e-6 * inertia.norm());
        QVERIFY(std::abs(p.axes.determinant() - 1) < 1e-9);
        QVERIFY(p.moments_gmm2.x() <= p.moments_gmm2.y() && p.moments_gmm2.y() <= p.moments_gmm2.z());
    }
    void firstOrderDoubtAgreesWithDraws() {
        // 200,000 draws, fixed seed; the sampling error of a standard deviation is 1/sqrt(2 N) = 0.16 %,
        // second-order terms add less than 1 % at 5 % mass doubt.
        const std::vector<UncertainMass> masses{
            {350, 8, {-10, 0, 50}, 1}, {134, 3, {80, 0, 60}, 0.5}, {600, 12, {0, 2, 5}, 0}};
        const auto doubt = propagate(masses);
        std::mt19937 random(5);
        std::normal_distribution<double> normal;
        double sum = 0, sum2 = 0;
        constexpr int kDraws = 200000;
        for (int i = 0; i < kDraws; ++i) {
            double m = 0, mx = 0;
            for (const auto &u : masses) {
                const double mass = u.mass_g + u.sigmaMass_g * normal(random);
                mx += mass * (u.centroid_mm.x() + u.sigmaPosition_mm * normal(random));
                m += mass;
            }
            sum += mx / m;
            sum2 += mx / m * mx / m;
        }
        const double sigma = std::sqrt(sum2 / kDraws - std::pow(sum / kDraws, 2));
        QVERIFY(std::abs(sigma / std::sqrt(doubt.covariance_mm2(0, 0)) - 1) < 0.02);
        QVERIFY(std::abs(doubt.sigmaMass_g - std::sqrt(8. * 8 + 3 * 3 + 12 * 12)) < 1e-12);
    }
    void platesWeighOutlineTimesThicknessLessHoles() {
        Build build = test::bareQuad();
        build.frame.edit([](Frame &frame) {
            Plate plate;
            plate.id = "p";
            plate.outline_mm = {{-50, -20}, {50, -20}, {50, 20}, {-50, 20}};
            plate.holes = {{{40, 0}, 10}};
            plate.cutouts_mm = {{{-30, -5}, {-10, -5}, {-10, 5}, {-30, 5}}};
            plate.thickness_mm = 2;
            plate.material = "carbon";
            frame.plates.push_back(plate);
        });
        const auto rows = structureMassRows(build, practiceOf({}), 1);
        // 1.55 g/cm3 (typical carbon laminate, from memory)
        const double area = 100 * 40 - kPi * 25 - 200;
        QCOMPARE(rows.size(), std::size_t(1));
        QVERIFY(std::abs(rows[0].element.mass_g - area * 2 * 1.55e-3) < 1e-9);
        const double x = (-kPi * 25 * 40 + 200 * 20) / area;
        QVERIFY(std::abs(rows[0].element.centroid_mm.x() - x) < 1e-9);
    }
    void standoffsAreTubes() {
        Build build = test::bareQuad();
        build.frame.edit([](Frame &frame) {
            frame.standoffs.push_back({"s", StandoffRole::standoff, {0, 0, 0}, 25, 5, 3, "M3", "aluminium", {}});
        });
        const auto row = structureMassRows(build, practiceOf({}), 1).front();
        const double m = kPi / 4 * (25 - 9) * 25 * 2.70e-3;
        QVERIFY(std::abs(row.element.mass_g - m) < 1e-9);
        // Tube about its axis: m (R2 + r2) / 2 (any handbook of mechanics).
        QVERIFY(std::abs(row.element.inertia_gmm2(2, 2) - m * (2.5 * 2.5 + 1.5 * 1.5) / 2) < 1e-9);
    }
    void measuredBeatsCatalogueAndUnknownIsNotZero() {
        Build build = test::bareQuad();
        test::addBox(build, "a", {10, 10, 10}, {0, 0, 0}, 20).mass_g = measuredValue(22, 0.5);
        auto row = massRowOf(build, build.parts[0], practiceOf({}), 1);
        QCOMPARE(row.element.mass_g, 22.0);
        QCOMPARE(row.tolerance_g, 0.5);
        build.parts[0].mass_g = {};
        row = massRowOf(build, build.parts[0], practiceOf({}), 1);
        QCOMPARE(row.element.mass_g, 20.0);
        QCOMPARE(row.tolerance_g, 1.0); // 5 % of a catalogue mass, common practice, no source
        build.types.edit([](TypeTable &t) { test::typeIn(t, "a").mass_g = {}; });
        row = massRowOf(build, build.parts[0], practiceOf({}), 1);
        QVERIFY(!row.known);
    }
    void centreOfMassFollowsDensities() {
        Build build = test::bareQuad();
        test::addBox(build, "a", {10, 10, 10}, {0, 0, 0}, 30);
        build.types.edit([](TypeTable &t) {
            auto steel = test::solidBox({10, 10, 10}, {-10, 0, 0}), nylon = test::solidBox({10, 10, 10}, {10, 0, 0});
            steel.material = "steel";
            nylon.material = "nylon";
            test::typeIn(t, "a").solids = {steel, nylon};
        });
        const auto row = massRowOf(build, build.parts[0], practiceOf({}), 1);
        QVERIFY(std::abs(row.element.centroid_mm.x() - (-10 * 7.85 + 10 * 1.14) / (7.85 + 1.14)) < 1e-9);
    }
    void allowancesAndWeighedPlatesAreRowsLikeOthers() {
        Build build = test::bareQuad();
        build.frame.edit([](Frame &frame) {
            Plate plate;
            plate.id = "p";
            plate.outline_mm = {{-50, -20}, {50, -20}, {50, 20}, {-50, 20}};
            plate.thickness_mm = 2;
            plate.material = "something new";
            frame.plates.push_back(plate);
        });
        build.allowances = {{"solder", "Solder", {4, {}, Source::estimated}, {0, 0, 5}}, {"ties", "Ties", {}, {}}};
        auto rows = structureMassRows(build, practiceOf({}), 1);
        QCOMPARE(rows.size(), std::size_t(3));
        QVERIFY(!rows[0].known); // of no known material
        QCOMPARE(rows[1].element.mass_g, 4.0);
        QCOMPARE(rows[1].tolerance_g, 0.8); // 20 % of an estimate, common practice, no source
        QVERIFY(!rows[2].known);
        build.frame.edit([](Frame &frame) { frame.plates[0].mass_g = measuredValue(11.5); });
        rows = structureMassRows(build, practiceOf({}), 1);
        QCOMPARE(rows[0].element.mass_g, 11.5);
        // A thin rectangle about its own axes: m b^2 / 12 (any handbook of mechanics), thickness added.
        QVERIFY(std::abs(rows[0].element.inertia_gmm2(0, 0) - 11.5 * (40 * 40 + 2 * 2) / 12) < 1e-9);
        build.frame.edit([](Frame &frame) {
            frame.plates[0].mass_g = {};
            frame.materials.push_back({"something new", 2.0, false, false});
        });
        rows = structureMassRows(build, practiceOf({}), 1);
        QVERIFY(std::abs(rows[0].element.mass_g - 100 * 40 * 2 * 2e-3) < 1e-9); // the build's own material
    }
    void armsTurnTheirInertiaWithThem() {
        Build build = test::bareQuad();
        build.frame.edit([](Frame &frame) {
            frame.arms.push_back(
                {"arm", {0, 0, 5}, {60, 80, 5}, 12, 5, ArmSection::bar, 0, "carbon", {}, {}, false, {}, {}}); // 100 mm
                                                                                                              // long
        });
        const auto row = structureMassRows(build, practiceOf({}), 1).at(0);
        const double m = 100 * 12 * 5 * 1.55e-3;
        QVERIFY(std::abs(row.element.mass_g - m) < 1e-9);
        QVERIFY((row.element.centroid_mm - Vec3(30, 40, 2.5)).norm() < 1e-9);
        // About the direction along the arm only width and thickness count, about z length and width.
        const Vec3 along(0.6, 0.8, 0);
        QVERIFY(std::abs(along.dot(row.element.inertia_gmm2 * along) - m * (12 * 12 + 5 * 5) / 12) < 1e-6);
        QVERIFY(std::abs(row.element.inertia_gmm2(2, 2) - m * (100 * 100 + 12 * 12) / 12) < 1e-6);
    }
    void weighingAPartNarrowsTheDoubt() {
        Build build = test::bareQuad();
        test::addBox(build, "pack", {80, 35, 35}, {-20, 0, 30}, 350);
        test::addBox(build, "camera", {40, 30, 30}, {60, 0, 20}, 130);
        auto doubt = [](const Build &b) {
            std::vector<UncertainMass> masses;
            for (const auto &part : b.parts) {
                const MassRow row = massRowOf(b, part, practiceOf({}), 1);
                masses.push_back(
                    {row.element.mass_g, row.tolerance_g / 2, row.element.centroid_mm, row.sigmaPosition_mm});
            }
            return propagate(masses);
        };
        const auto before = doubt(build);
        // By hand: sigma of the pack 8.75 g, of the camera 3.25 g; CG at 1.667 mm; d = (x - 1.667) / 480 * sigma.
        const double expected = std::hypot((-20 - 5.0 / 3) / 480 * 8.75, (60 - 5.0 / 3) / 480 * 3.25);
        QVERIFY(std::abs(std::sqrt(before.covariance_mm2(0, 0)) - expected) < 1e-3);
        build.parts[0].mass_g = measuredValue(350, 1);
        const auto after = doubt(build);
        QVERIFY(after.sigmaMass_g < before.sigmaMass_g);
        QVERIFY(after.covariance_mm2(0, 0) < before.covariance_mm2(0, 0));
        build.parts[0].placement.tolerance_mm = 4; // where exactly does it lie?
        QVERIFY(doubt(build).covariance_mm2(1, 1) > 1.0);
    }
    void badWeighingsAreRefused() {
        QVERIFY(!cgFromScales({{0, 0}, {1, 0}, {2, 0}}, {1, 1, 1}));
        QVERIFY(!cgFromScales({{0, 0}, {1, 0}}, {1, 1}));
        QVERIFY(!cgFromScales({{0, 0}, {1, 0}, {0, 1}}, {0, 0, 0}));
        QVERIFY(!cgFromScales({{0, 0}, {1, 0}, {0, 1}}, {1, -1, 1}));
        QVERIFY(!cgFromTwoSupports(0, 1, 1));
        QVERIFY(!cgHeightFromTilt(200, 900, 470, 430, 90));
        QVERIFY(!thrustSplit({{-1, 0}, {0, 0}, {1, 0}}, {0, 0}, 1, 9.8));
    }
    void hoverThrustsBalanceForceRollAndPitch() {
        std::mt19937 random(12);
        std::uniform_real_distribution<double> place(-200, 200);
        for (int run = 0; run < 100; ++run) {
            std::vector<Vec2> motors;
            for (int i = 0; i < 6; ++i) motors.emplace_back(place(random), place(random));
            const Vec2 cg(place(random) / 10, place(random) / 10);
            const auto t = thrustSplit(motors, cg, 1.2, kStandardGravity_m_s2);
            QVERIFY(bool(t));
            double force = 0;
            Vec2 moment = Vec2::Zero();
            for (std::size_t i = 0; i < 6; ++i) {
                force += (*t)[i];
                moment += (*t)[i] * (motors[i] - cg);
            }
            QVERIFY2(std::abs(force - 1.2 * kStandardGravity_m_s2) < 1e-9 && moment.norm() < 1e-6, "seed 12");
        }
    }
    void leaningMotorsCarryWithTheirUprightPart() {
        // By hand: four motors 20 degrees outwards share the weight alike, T = m g / (4 cos 20); nothing is left aside.
        const double g = kStandardGravity_m_s2, lean = radiansFromDegrees(20);
        std::vector<Thruster> motors;
        for (const Vec2 &at : {Vec2(100, 100), Vec2(100, -100), Vec2(-100, 100), Vec2(-100, -100)}) {
            const Vec2 out = at.normalized() * std::sin(lean);
            motors.push_back({{at.x(), at.y(), 20}, {out.x(), out.y(), std::cos(lean)}});
        }
        const auto out = tiltedSplit(motors, {0, 0, 0}, 1, g);
        QVERIFY(out);
        for (const double t : *out) QVERIFY(std::abs(t - g / 4 / std::cos(lean)) < 1e-9);
        // All forward by 10 degrees, 20 mm over the CG: the moment of the side force comes on top; statics by hand:
        // (front less rear) cos 10 * 100 = sum T sin 10 * 20, so that the nose is not pushed down.
        for (auto &motor : motors) motor.axis = {std::sin(radiansFromDegrees(10)), 0, std::cos(radiansFromDegrees(10))};
        const auto forward = tiltedSplit(motors, {0, 0, 0}, 1, g);
        QVERIFY(forward);
        double sum = 0;
        for (const double t : *forward) sum += t;
        QVERIFY(std::abs(sum - g / std::cos(radiansFromDegrees(10))) < 1e-9);
        const double rear = (*forward)[2] + (*forward)[3], front = (*forward)[0] + (*forward)[1];
        QVERIFY(std::abs((front - rear) * 100 * std::cos(radiansFromDegrees(10)) -
                         sum * std::sin(radiansFromDegrees(10)) * 20) < 1e-7);
    }
    void uprightMotorsAreASpecialCase() {
        std::mt19937 random(20261130);
        std::uniform_real_distribution<double> somewhere(-150, 150);
        for (int i = 0; i < 200; ++i) {
            std::vector<Vec2> plan;
            std::vector<Thruster> motors;
            for (int m = 0; m < 4 + i % 5; ++m) {
                plan.emplace_back(somewhere(random), somewhere(random));
                motors.push_back({{plan.back().x(), plan.back().y(), somewhere(random)}, Vec3::UnitZ()});
            }
            const Vec2 cg(somewhere(random) / 10, somewhere(random) / 10);
            const auto flat = thrustSplit(plan, cg, 1.5, kStandardGravity_m_s2);
            const auto leaning = tiltedSplit(motors, {cg.x(), cg.y(), 12}, 1.5, kStandardGravity_m_s2);
            QCOMPARE(bool(flat), bool(leaning));
            for (std::size_t m = 0; flat && m < plan.size(); ++m) QVERIFY(std::abs((*flat)[m] - (*leaning)[m]) < 1e-7);
        }
    }
};

QTEST_APPLESS_MAIN(TestBalance)
#include "test_balance.moc"
