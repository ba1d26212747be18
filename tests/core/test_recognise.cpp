// From loose lines to plates. Sizes of screw holes against ISO 273, patterns against common practice; the numbers are
// those of reference/values.json.
#include "core/recognise/laying.h"
#include "support/builds.h"
#include "support/drawn_plates.h"

#include <fstream>
#include <nlohmann/json.hpp>

using namespace waxis;
using test::addCircle;
using test::addLine;
using test::addPattern;
using test::addRing;
using test::obround;
using test::plateWith;
using test::rectangle;

class TestRecognise : public QObject {
    Q_OBJECT

private slots:
    void screwHolesFollowTheTable() {
        std::ifstream in(WEIGHTAXIS_REFERENCE_VALUES);
        int checked = 0;
        const auto cases = nlohmann::json::parse(in)["cases"];
        for (const auto &entry : cases) {
            if (entry["calc"] != "thread") continue;
            const std::string size = entry["inputs"]["size"];
            const std::pair<const char *, HoleFit> fits[] = {{"iso273_fine_mm", HoleFit::fine},
                                                             {"iso273_medium_mm", HoleFit::medium},
                                                             {"iso273_coarse_mm", HoleFit::coarse}};
            for (const auto &[key, fit] : fits) {
                const double diameter = entry["outputs"][key]["value"];
                for (double off : {-0.04, 0.0, 0.04}) {
                    const auto screw = screwForHole(diameter + off);
                    QVERIFY(screw.has_value());
                    QCOMPARE(std::string(screw->thread->name), size);
                    QCOMPARE(screw->fit, fit);
                    QVERIFY(std::abs(screw->off_mm - off) < 1e-9);
                }
                ++checked;
            }
        }
        QCOMPARE(checked, 15);
        QVERIFY(!screwForHole(3.3, 0.05));
        QCOMPARE(screwForHole(3.0)->fit, HoleFit::tight);
        QCOMPARE(screwForHole(2.0)->thread->name, std::string_view("M1.6")); // coarse clearance wins over a tight M2
        QVERIFY(!screwForHole(8.0));
        QVERIFY(!screwForHole(std::nan("")));
    }
    void stackSquaresAreFoundInAnyDirection_data() {
        QTest::addColumn<double>("side");
        QTest::addColumn<double>("angle");
        for (double side : {16.0, 20.0, 25.5, 30.5})
            for (double angle : {0.0, 7.0, 30.0, 45.0})
                QTest::newRow(qPrintable(QString("%1 at %2").arg(side).arg(angle))) << side << angle;
    }
    void stackSquaresAreFoundInAnyDirection() {
        QFETCH(double, side);
        QFETCH(double, angle);
        const auto found = recognise(plateWith([&](FlatDrawing &d) {
            addPattern(d, {80, 60}, side / std::sqrt(2.0), 3.2, angle + 45);
            addCircle(d, {10, 10}, 3.2); // and some that belong to nothing
            addCircle(d, {190, 10}, 3.2);
            addCircle(d, {150, 97}, 3.2);
        }));
        QCOMPARE(found.plates.size(), std::size_t(1));
        QCOMPARE(found.plates[0].patterns.size(), std::size_t(1));
        const auto &pattern = found.plates[0].patterns[0];
        QCOMPARE(pattern.use, PatternUse::stack);
        QCOMPARE(pattern.pattern.size_mm, side);
        QVERIFY(std::abs(pattern.measured_mm - side) < 1e-9);
        QVERIFY((pattern.centre_mm - Vec2(80, 60)).norm() < 1e-9);
        QVERIFY(std::abs(pattern.angle_deg - angle) < 1e-6);
        for (int h : pattern.holes) QCOMPARE(found.plates[0].holes[std::size_t(h)].pattern, 0);
    }
    void motorBasesAreFoundWithTheirShaftHole_data() {
        QTest::addColumn<double>("circle");
        for (double circle : {9.0, 12.0, 16.0, 19.0, 25.0})
            QTest::newRow(qPrintable(QString::number(circle))) << circle;
    }
    void motorBasesAreFoundWithTheirShaftHole() {
        QFETCH(double, circle);
        const auto found = recognise(plateWith([&](FlatDrawing &d) {
            addPattern(d, {40, 40}, circle / 2, 2.2, 20);
            addCircle(d, {40, 40}, 5);
        }));
        const auto &pattern = found.plates[0].patterns.at(0);
        QCOMPARE(pattern.use, PatternUse::motor);
        QCOMPARE(pattern.pattern.size_mm, circle);
        QCOMPARE(pattern.pattern.shape, PatternShape::circle);
        QVERIFY(pattern.shaftHole);
    }
    void crossedMotorBasesHaveTwoDiameters() {
        const auto found = recognise(plateWith([&](FlatDrawing &d) {
            for (double x : {-8.0, 8.0}) addCircle(d, Vec2(60 + x, 60), 3.2);
            for (double y : {-9.5, 9.5}) addCircle(d, Vec2(60, 60 + y), 3.2);
            addCircle(d, {60, 60}, 8);
        }));
        QCOMPARE(found.plates[0].patterns.at(0).pattern.size_mm, 16.0);
        QCOMPARE(found.plates[0].patterns[0].secondSize_mm, 19.0);
    }
    void nearMissesAreNoPatterns() {
        for (double side : {29.8, 31.2, 22.0, 18.0}) {
            const auto found = recognise(plateWith([&](FlatDrawing &d) {
                addPattern(d, {80, 60}, side / std::sqrt(2.0), 3.2, 45);
            }));
            QVERIFY2(found.plates[0].patterns.empty(), qPrintable(QString::number(side)));
        }
        // A rectangle of 30.5 x 31.5, three holes, and holes of two sizes.
        QVERIFY(recognise(plateWith([](FlatDrawing &d) {
                    for (double x : {0.0, 30.5})
                        for (double y : {0.0, 31.5}) addCircle(d, Vec2(50 + x, 50 + y), 3.2);
                }))
                    .plates[0]
                    .patterns.empty());
        QVERIFY(recognise(plateWith([](FlatDrawing &d) {
                    addPattern(d, {80, 60}, 30.5 / std::sqrt(2.0), 3.2, 45);
                    d.paths.pop_back();
                }))
                    .plates[0]
                    .patterns.empty());
        // Four screws round a stack that hold arms stand on a 25 mm circle by chance.
        const auto clamp = recognise(plateWith([](FlatDrawing &d) {
            addPattern(d, {80, 60}, 30.5 / std::sqrt(2.0), 3.2, 45);
            addPattern(d, {80, 60}, 12.5, 3.2, 45);
        }));
        QCOMPARE(clamp.plates[0].patterns.size(), std::size_t(1));
    }
    void nestedPatternsKeepTheirOwnHoles() {
        const auto found = recognise(plateWith([](FlatDrawing &d) {
            addPattern(d, {80, 60}, 30.5 / std::sqrt(2.0), 3.2, 45);
            addPattern(d, {80, 60}, 20 / std::sqrt(2.0), 2.2, 45);
        }));
        QCOMPARE(found.plates[0].patterns.size(), std::size_t(2));
        QCOMPARE(found.plates[0].patterns[0].pattern.size_mm, 30.5);
        QCOMPARE(found.plates[0].patterns[1].pattern.size_mm, 20.0);
    }
    void roundThingsAreToldFromOthers() {
        auto ringHole = [](const Ring &ring) {
            const auto found = recognise(plateWith([&](FlatDrawing &d) { addRing(d, ring); }));
            return found.plates[0].holes.size();
        };
        QCOMPARE(ringHole(circleRing({50, 50}, 6, 64)), std::size_t(1)); // a circle drawn as a polygon
        Ring hexagon = circleRing({50, 50}, 6.4, 6);
        QCOMPARE(ringHole(hexagon), std::size_t(0)); // a nut trap is no hole for a screw
        QCOMPARE(ringHole(rectangle(50, 50, 56, 56)), std::size_t(0));
        const auto circle = circleOf({"", circleRing({50, 50}, 6, 64), {}, 0});
        QVERIFY(std::abs(circle->diameter_mm - 6) < 0.02 && (circle->centre_mm - Vec2(50, 50)).norm() < 1e-6);
    }
    void slotsAreMeasuredAndNamed() {
        struct Case {
            double length, width, angle_deg;
            SlotUse use;
        };
        for (const Case c : {Case{6, 2.5, 0, SlotUse::tie}, Case{22, 3, 30, SlotUse::strap},
                             Case{20, 12, -40, SlotUse::passThrough}, Case{60, 30, 90, SlotUse::window}}) {
            const auto found = recognise(plateWith([&](FlatDrawing &d) {
                addRing(d, obround({100, 60}, c.length, c.width, c.angle_deg * M_PI / 180));
            }));
            const auto &slot = found.plates[0].cutouts.at(0);
            QVERIFY(std::abs(slot.length_mm - c.length) < 0.05);
            QVERIFY(std::abs(slot.width_mm - c.width) < 0.05);
            QVERIFY(std::abs(slot.angle_deg - c.angle_deg) < 1.5);
            QVERIFY((slot.centre_mm - Vec2(100, 60)).norm() < 0.05);
            QVERIFY(slot.roundEnds);
            QCOMPARE(slot.use, c.use);
        }
        const auto motor = recognise(plateWith([](FlatDrawing &d) {
            addCircle(d, {60, 60}, 6);
            for (int k = 0; k < 4; ++k) {
                const double a = M_PI / 4 + k * M_PI / 2;
                addRing(d, obround(Vec2(60, 60) + Vec2(std::cos(a), std::sin(a)) * 8.75, 4.7, 3.2, a));
            }
        }));
        for (const auto &slot : motor.plates[0].cutouts) QCOMPARE(slot.use, SlotUse::motorSlot);
    }
    void looseLinesAreJoinedInAnyOrder() {
        std::mt19937 random(20261125);
        for (int round = 0; round < 50; ++round) {
            FlatDrawing drawing;
            const Ring ring = circleRing({0, 0}, 100, 5 + round % 20);
            std::vector<std::size_t> order(ring.size());
            for (std::size_t i = 0; i < ring.size(); ++i) order[i] = i;
            std::shuffle(order.begin(), order.end(), random);
            std::uniform_real_distribution<double> jitter(-0.015, 0.015);
            for (std::size_t i : order) {
                Vec2 a = ring[i], b = ring[(i + 1) % ring.size()];
                a += Vec2(jitter(random), jitter(random));
                b += Vec2(jitter(random), jitter(random));
                if (random() % 2) std::swap(a, b);
                addLine(drawing, a, b);
            }
            const auto found = closedLoops(drawing, 0.05);
            QVERIFY2(found.loops.size() == 1 && found.skipped.empty(), qPrintable(QString("round %1").arg(round)));
            const double expected = areaProperties({ring, {}}).area_mm2;
            QVERIFY(std::abs(found.loops[0].area_mm2 - expected) < 0.002 * expected);
        }
    }
    void gapsBranchesRepeatsAndSpecksAreReported() {
        FlatDrawing drawing;
        for (const auto &[a, b] : {std::pair{Vec2(0, 0), Vec2(50, 0)},
                                   {Vec2(50, 0), Vec2(50, 50)},
                                   {Vec2(50, 50), Vec2(0.4, 50)},
                                   {Vec2(0, 50), Vec2(0, 0)}})
            addLine(drawing, a, b);
        auto found = closedLoops(drawing, 0.05);
        QVERIFY(found.loops.empty());
        QCOMPARE(found.skipped.size(), std::size_t(1));
        QVERIFY2(found.skipped[0].reason.find("0.40 mm apart") != std::string::npos, found.skipped[0].reason.c_str());
        QCOMPARE(closedLoops(drawing, 0.5).loops.size(), std::size_t(1)); // a wider tolerance closes it
        addLine(drawing, {0.4, 50}, {0, 50});
        addLine(drawing, {0, 0}, {50, 0});    // drawn twice
        addLine(drawing, {50, 50}, {90, 90}); // a whisker at a corner
        found = closedLoops(drawing, 0.05);
        QCOMPARE(found.loops.size(), std::size_t(1));
        QVERIFY(std::abs(found.loops[0].area_mm2 - 2500) < 1);
        std::string all;
        for (const auto &skipped : found.skipped) all += skipped.what + ";";
        QVERIFY2(all.find("drawn twice") != std::string::npos && all.find("open outline") != std::string::npos,
                 all.c_str());
        FlatDrawing touching; // two squares that share a corner: straight on is not possible, both are found
        for (const Vec2 &o : {Vec2(0, 0), Vec2(10, 10)})
            for (int i = 0; i < 4; ++i) {
                const Ring r = rectangle(o.x(), o.y(), o.x() + 10, o.y() + 10);
                addLine(touching, r[std::size_t(i)], r[std::size_t((i + 1) % 4)]);
            }
        found = closedLoops(touching, 0.05);
        double area = 0;
        for (const auto &loop : found.loops) area += loop.area_mm2;
        QVERIFY(std::abs(area - 200) < 1e-6);
        QVERIFY(std::any_of(found.skipped.begin(), found.skipped.end(),
                            [](const Skipped &s) { return s.what.find("branching") != std::string::npos; }));
        FlatDrawing specks;
        addRing(specks, {{0, 0}, {0.01, 0}, {0, 0.01}});
        addRing(specks, {{0, 0}, {5, 5}, {10, 10}});
        QVERIFY(closedLoops(specks, 0.05).loops.empty());
        QVERIFY(recognise(FlatDrawing{}).plates.empty());
        QVERIFY(!recognise(FlatDrawing{}).skipped.empty());
    }
    void layersHoldPlatesOrTheHolesOfOthers() {
        FlatDrawing drawing;
        addRing(drawing, rectangle(0, 0, 100, 60), "bottom");
        addPattern(drawing, {50, 30}, 30.5 / std::sqrt(2.0), 3.2, 45, "drill");
        addRing(drawing, rectangle(5, 5, 95, 55), "top"); // lies over the other, and is a plate of its own
        addRing(drawing, rectangle(10, 10, 30, 13), "top");
        auto found = recognise(drawing);
        QCOMPARE(found.plates.size(), std::size_t(2));
        QCOMPARE(found.layers.at("drill"), LayerUse::holes);
        // The holes go to the smallest outline that holds them.
        QCOMPARE(found.plates[1].holes.size(), std::size_t(4));
        QCOMPARE(found.plates[1].cutouts.size(), std::size_t(1));
        RecogniseOptions options;
        options.layers["drill"] = LayerUse::ignore;
        found = recognise(drawing, options);
        QVERIFY(found.plates[0].holes.empty() && found.plates[1].holes.empty());
    }
    void aPieceInsideAHoleIsAPlateOfItsOwn() {
        FlatDrawing drawing;
        addRing(drawing, rectangle(0, 0, 100, 60));
        addRing(drawing, rectangle(10, 10, 90, 50));
        addRing(drawing, rectangle(20, 20, 80, 40));
        addCircle(drawing, {50, 30}, 3.2);
        const auto found = recognise(drawing);
        QCOMPARE(found.plates.size(), std::size_t(2));
        QVERIFY(std::abs(found.plates[0].area_mm2 - (6000 - 3200)) < 1e-6);
        QVERIFY(std::abs(found.plates[1].area_mm2 - (1200 - M_PI * 2.56)) < 1e-6);
    }
};

QTEST_APPLESS_MAIN(TestRecognise)
#include "test_recognise.moc"
