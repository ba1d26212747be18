// From loose lines to plates. Sizes of screw holes against ISO 273, patterns against common practice; the numbers are
// those of reference/values.json.
#include "core/recognise/laying.h"
#include "support/builds.h"

#include <fstream>
#include <nlohmann/json.hpp>

using namespace waxis;

namespace {

void addLayer(FlatDrawing &drawing, const std::string &layer) {
    if (std::find(drawing.layers.begin(), drawing.layers.end(), layer) == drawing.layers.end())
        drawing.layers.push_back(layer);
}
void addRing(FlatDrawing &drawing, const Ring &ring, const std::string &layer = "main") {
    addLayer(drawing, layer);
    drawing.paths.push_back({layer, "polyline", ring, true, {}});
}
void addLine(FlatDrawing &drawing, const Vec2 &a, const Vec2 &b, const std::string &layer = "main") {
    addLayer(drawing, layer);
    drawing.paths.push_back({layer, "line", {a, b}, false, {}});
}
void addCircle(FlatDrawing &drawing, const Vec2 &centre, double diameter, const std::string &layer = "main") {
    addLayer(drawing, layer);
    drawing.paths.push_back({layer, "circle", circleRing(centre, diameter, 48), true, DrawnCircle{centre, diameter}});
}
Ring rectangle(double x0, double y0, double x1, double y1) { return {{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}; }

Ring obround(const Vec2 &centre, double length, double width, double angle) {
    Ring ring;
    const Vec2 d(std::cos(angle), std::sin(angle));
    for (int end : {1, -1})
        for (int i = 0; i <= 16; ++i) {
            const double turn = angle - end * M_PI / 2 + M_PI * i / 16;
            ring.push_back(centre + d * (end * (length - width) / 2) +
                           Vec2(std::cos(turn), std::sin(turn)) * (width / 2));
        }
    return ring;
}

FlatDrawing plateWith(const std::function<void(FlatDrawing &)> &more) {
    FlatDrawing drawing;
    addRing(drawing, rectangle(0, 0, 200, 120));
    more(drawing);
    return drawing;
}

void addPattern(FlatDrawing &drawing, const Vec2 &centre, double radius, double hole, double angle_deg,
                const std::string &layer = "main") {
    for (int k = 0; k < 4; ++k) {
        const double a = (angle_deg + 90 * k) * M_PI / 180;
        addCircle(drawing, centre + Vec2(std::cos(a), std::sin(a)) * radius, hole, layer);
    }
}

} // namespace

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
    void writingNamesAPlateAndSaysItsThickness_data() {
        QTest::addColumn<QString>("text");
        QTest::addColumn<QString>("name");
        QTest::addColumn<double>("thickness");
        QTest::newRow("both") << "Roof plate, 2.5 mm carbon"
                              << "Roof plate" << 2.5;
        QTest::newRow("decimal comma") << "Roof plate 2,5mm"
                                       << "Roof plate" << 2.5;
        QTest::newRow("t =") << "Deck t=3"
                             << "Deck" << 3.0;
        QTest::newRow("thickness alone") << "1.5 mm"
                                         << "Main plate" << 1.5;
        QTest::newRow("name alone") << "Bottom deck"
                                    << "Bottom deck" << 2.0;
        QTest::newRow("no thickness of a plate") << "Deck 180 mm"
                                                 << "Deck 180 mm" << 2.0;
        QTest::newRow("nothing") << ""
                                 << "Main plate" << 2.0;
        QTest::newRow("a caption of the sheet") << "main plate 5 mm, top plate 2 mm"
                                                << "Main plate" << 5.0;
    }
    void writingNamesAPlateAndSaysItsThickness() {
        QFETCH(QString, text);
        QFETCH(QString, name);
        QFETCH(double, thickness);
        FlatDrawing drawing = plateWith([](FlatDrawing &) {});
        if (!text.isEmpty()) drawing.texts.push_back({{100, 60}, text.toStdString(), "words"});
        const Recognition found = recognise(drawing);
        const DrawingChoices choices = guessChoices(found);
        QCOMPARE(QString::fromStdString(choices.plates.at(0).name), name);
        QVERIFY2(std::abs(choices.plates[0].thickness_mm - thickness) < 1e-9,
                 qPrintable(QString::number(choices.plates[0].thickness_mm)));
    }
    void writingBesideAPlateBelongsToTheNearest() {
        FlatDrawing drawing;
        addRing(drawing, rectangle(0, 0, 100, 60));
        addRing(drawing, rectangle(150, 0, 250, 60));
        drawing.texts = {{{160, -8}, "Top plate 2 mm", "0"}, {{50, 200}, "far off", "0"}};
        const Recognition found = recognise(drawing);
        QCOMPARE(found.plates.size(), std::size_t(2));
        for (const auto &plate : found.plates)
            QCOMPARE(plate.text, std::string(plate.outline_mm[0].x() > 120 ? "Top plate 2 mm" : ""));
    }
    void whatCannotBeCutIsSaidWhereItIs_data() {
        QTest::addColumn<int>("what");
        QTest::addColumn<QString>("says"); // empty: nothing is wrong
        QTest::newRow("a hole well inside") << 0 << "";
        QTest::newRow("a hole that just touches the edge") << 1 << "";
        QTest::newRow("a hole through the edge") << 2 << "an outline of 3.2 x 3.2 mm crosses the edge";
        QTest::newRow("a hole of another layer through the edge") << 9 << "an outline of 3.2 x 3.2 mm crosses the edge";
        QTest::newRow("a slot over the edge") << 3 << "runs over the edge";
        QTest::newRow("holes in one another") << 4 << "run into one another";
        QTest::newRow("holes beside one another") << 5 << "";
        QTest::newRow("a hole in a slot") << 6 << "hole runs into the slot";
        QTest::newRow("slots that cross") << 7 << "runs into the slot";
        QTest::newRow("more out than in: an outline of its own") << 8 << "crosses the edge of another";
    }
    void whatCannotBeCutIsSaidWhereItIs() {
        QFETCH(int, what);
        QFETCH(QString, says);
        const FlatDrawing drawing = plateWith([&](FlatDrawing &d) {
            switch (what) {
            case 0: addCircle(d, {100, 60}, 3.2); break;
            case 1: addCircle(d, {1.6, 60}, 3.2); break;
            case 2: addCircle(d, {1.2, 60}, 3.2); break;
            case 3: addRing(d, rectangle(190, 50, 203, 53)); break;
            case 4: addCircle(d, {100, 60}, 3.2), addCircle(d, {103, 60}, 3.2); break;
            case 5: addCircle(d, {100, 60}, 3.2), addCircle(d, {103.3, 60}, 3.2); break;
            case 6: addCircle(d, {100, 60}, 3.2), addRing(d, obround({101, 61}, 20, 3, 0)); break;
            case 7: addRing(d, obround({100, 60}, 20, 3, 0)), addRing(d, obround({104, 60}, 20, 3, 1.5)); break;
            case 9: // most of it lies inside
                for (const double y : {20.0, 60.0}) addCircle(d, {y > 50 ? 1.5 : 30.0, y}, 3.2, "drill");
                break;
            default: addRing(d, rectangle(196, 50, 230, 53)); break;
            }
        });
        const Recognition found = recognise(drawing);
        if (says.isEmpty()) {
            QVERIFY2(found.faults.empty(), found.faults.empty() ? "" : found.faults.front().text.c_str());
            return;
        }
        QVERIFY(!found.faults.empty());
        QVERIFY2(QString::fromStdString(found.faults.front().text).contains(says), found.faults.front().text.c_str());
    }
    void aPlateLiesWhereSomebodyPutIt() {
        FlatDrawing drawing;
        addRing(drawing, rectangle(0, 0, 100, 60), "main");
        addRing(drawing, rectangle(150, 0, 250, 60), "top");
        for (const double x : {0.0, 150.0})
            for (const Vec2 &p : {Vec2(10, 10), Vec2(90, 12), Vec2(10, 50), Vec2(80, 50)})
                addCircle(drawing, p + Vec2(x, 0), 3.2, x > 0 ? "top" : "main");
        const Recognition found = recognise(drawing);
        DrawingChoices choices = guessChoices(found);
        const std::size_t top = found.plates[0].layer == "top" ? 0 : 1;
        QVERIFY((plateShifts(found, choices)[top] - Vec2(-150, 0)).norm() < 0.01);
        choices.plates[top].shift_mm = Vec2(-140, 3);
        QVERIFY((plateShifts(found, choices)[top] - Vec2(-140, 3)).norm() < 1e-9);
        // Near common holes it catches; away from them it does not.
        QVERIFY((snapShift(found, choices, top, {-149.2, 0.5}, 2) - Vec2(-150, 0)).norm() < 0.01);
        QVERIFY((snapShift(found, choices, top, {-145, 4}, 2) - Vec2(-145, 4)).norm() < 1e-9);
        const auto frame = frameFromDrawing(found, choices);
        QVERIFY(frame);
        double least[2] = {1e9, 1e9};
        for (std::size_t i = 0; i < 2; ++i)
            for (const auto &p : frame->plates[i].outline_mm) least[i] = std::min(least[i], p.x());
        QVERIFY(std::abs(std::abs(least[0] - least[1]) - 10) < 0.01);
    }
    void aNestedPlateIsTurnedByItsHoles_data() {
        QTest::addColumn<double>("drawn_deg"); // how the top plate was nested on the sheet
        QTest::addColumn<int>("holes");        // how many of its five it has
        QTest::addColumn<double>("turned_deg");
        QTest::newRow("as in the frame") << 0.0 << 5 << 0.0;
        QTest::newRow("a quarter") << 90.0 << 5 << -90.0;
        QTest::newRow("half round") << 180.0 << 5 << 180.0;
        QTest::newRow("three quarters") << 270.0 << 5 << 90.0;
        QTest::newRow("askew: for the hand") << 30.0 << 5 << 0.0;
        QTest::newRow("two holes say nothing") << 90.0 << 2 << 0.0;
    }
    void aNestedPlateIsTurnedByItsHoles() {
        QFETCH(double, drawn_deg);
        QFETCH(int, holes);
        QFETCH(double, turned_deg);
        const std::vector<Vec2> posts{{10, 10}, {90, 12}, {10, 50}, {80, 50}, {45, 15}};
        FlatDrawing drawing;
        addRing(drawing, rectangle(0, 0, 100, 60), "main");
        const Eigen::Rotation2Dd turn(drawn_deg * M_PI / 180);
        const auto nested = [&](const Vec2 &p) { return Vec2(Vec2(250, 30) + turn * (p - Vec2(50, 30))); };
        Ring outline = rectangle(5, 5, 95, 55);
        for (auto &p : outline) p = nested(p);
        addRing(drawing, outline, "top");
        for (std::size_t i = 0; i < posts.size(); ++i) {
            addCircle(drawing, posts[i], 3.2, "main");
            if (int(i) < holes) addCircle(drawing, nested(posts[i]), 3.2, "top");
        }
        Recognition found = recognise(drawing);
        DrawingChoices choices = guessChoices(found);
        turnByHoles(found, choices);
        const std::size_t top = found.plates[0].layer == "top" ? 0 : 1;
        QCOMPARE(choices.plates[top].turn_deg, turned_deg);
        QCOMPARE(choices.plates[1 - top].turn_deg, 0.0);
        if (drawn_deg == 30) turnPlate(found, choices, top, -30); // by hand
        if (holes < 3) return;
        // It lies as in the frame now: hole on hole.
        const Vec2 shift = plateShifts(found, choices)[top];
        for (const auto &hole : found.plates[top].holes)
            QVERIFY(std::any_of(posts.begin(), posts.end(),
                                [&](const Vec2 &p) { return (hole.centre_mm + shift - p).norm() < 0.01; }));
    }
    void aTurnedPlateIsTheSameTurned() {
        const auto found = recognise(plateWith([](FlatDrawing &d) {
            addPattern(d, {100, 60}, 30.5 / std::sqrt(2.0), 3.2, 45);
            addRing(d, obround({100, 100}, 20, 4, 0));
        }));
        const FoundPlate &drawn = found.plates.at(0);
        FoundPlate turned = turnedPlate(drawn, 90);
        QVERIFY(std::abs(std::abs(turned.cutouts.at(0).angle_deg - drawn.cutouts.at(0).angle_deg) - 90) < 1e-6);
        QVERIFY(turned.patterns.at(0).angle_deg > -45 - 1e-9 && turned.patterns.at(0).angle_deg <= 45 + 1e-9);
        for (int i = 0; i < 3; ++i) turned = turnedPlate(turned, 90);
        for (std::size_t i = 0; i < drawn.outline_mm.size(); ++i)
            QVERIFY((turned.outline_mm[i] - drawn.outline_mm[i]).norm() < 1e-9);
        // A fault goes with its plate; another plate's stays.
        Recognition faulty = found;
        const Vec2 middle = areaProperties({drawn.outline_mm, {}}).centroid_mm;
        faulty.faults = {{0, middle + Vec2(10, 0), "here"}, {1, Vec2(1, 2), "elsewhere"}};
        DrawingChoices choices = guessChoices(faulty);
        turnPlate(faulty, choices, 0, 90);
        QVERIFY((faulty.faults[0].at_mm - middle - Vec2(0, 10)).norm() < 1e-9);
        QCOMPARE(faulty.faults[1].at_mm, Vec2(1, 2));
        turnPlate(faulty, choices, 7, 90); // no such plate: nothing happens
    }
    void correctionsOutliveAnotherReadingOfTheLayers() {
        const FlatDrawing drawing = [] {
            FlatDrawing d;
            addRing(d, rectangle(0, 0, 100, 60), "main");
            addRing(d, obround({50, 30}, 20, 4, 0), "main");
            addCircle(d, {20, 30}, 3.2, "main");
            addRing(d, rectangle(0, 100, 100, 160), "extra");
            return d;
        }();
        Recognition before = recognise(drawing);
        DrawingChoices corrected = guessChoices(before);
        const std::size_t main = before.plates[0].layer == "main" ? 0 : 1;
        corrected.plates[main].thickness_mm = 3.7;
        corrected.plates[main].name = "My deck";
        corrected.propDiameter_mm = 99;
        turnPlate(before, corrected, main, 90);
        before.plates[main].cutouts.at(0).use = SlotUse::window;
        before.plates[main].holes.at(0).screw = ScrewHole{findThread("M2"), HoleFit::fine, 0};
        RecogniseOptions options;
        options.layers["extra"] = LayerUse::ignore;
        Recognition now = recognise(drawing, options);
        DrawingChoices choices = guessChoices(now);
        QCOMPARE(now.plates.size(), std::size_t(1));
        keepCorrections(before, corrected, now, choices);
        QCOMPARE(choices.plates[0].thickness_mm, 3.7);
        QCOMPARE(choices.plates[0].name, std::string("My deck"));
        QCOMPARE(choices.propDiameter_mm, 99.0);
        QCOMPARE(choices.plates[0].turn_deg, 90.0);
        QVERIFY((now.plates[0].cutouts[0].centre_mm - before.plates[main].cutouts[0].centre_mm).norm() < 1e-9);
        QCOMPARE(now.plates[0].cutouts[0].use, SlotUse::window);
        QCOMPARE(now.plates[0].holes[0].screw->thread->name, std::string_view("M2"));
    }
    void postsTakeTheThreadThatSomebodyCorrected() {
        FlatDrawing drawing;
        addRing(drawing, rectangle(0, 0, 100, 60), "main");
        addRing(drawing, rectangle(2, 2, 98, 58), "top");
        for (const char *layer : {"main", "top"})
            for (const Vec2 &p : {Vec2(10, 10), Vec2(90, 12), Vec2(10, 50)}) addCircle(drawing, p, 3.2, layer);
        Recognition found = recognise(drawing);
        const DrawingChoices choices = guessChoices(found);
        const auto drawn = frameFromDrawing(found, choices);
        QVERIFY(drawn && !drawn->standoffs.empty());
        QCOMPARE(drawn->standoffs[0].thread, std::string("M3"));
        for (auto &plate : found.plates)
            for (auto &hole : plate.holes) hole.screw = ScrewHole{findThread("M2.5"), HoleFit::fine, 0};
        const auto corrected = frameFromDrawing(found, choices);
        QVERIFY(corrected);
        QCOMPARE(corrected->standoffs.size(), drawn->standoffs.size());
        for (const auto &post : corrected->standoffs) QCOMPARE(post.thread, std::string("M2.5"));
    }
    void aFrameIsMadeOfWhatWasFound() {
        FlatDrawing drawing; // drawn with the nose up, the plates beside each other
        addRing(drawing, rectangle(-90, -90, 90, 90), "main plate");
        for (double x : {-70.0, 70.0})
            for (double y : {-70.0, 70.0}) {
                addPattern(drawing, {x, y}, 8, 3.2, 45, "main plate");
                addCircle(drawing, {x, y}, 6, "main plate");
            }
        addPattern(drawing, {0, 10}, 30.5 / std::sqrt(2.0), 3.2, 45, "main plate");
        for (double y : {-40.0, 40.0})
            for (double x : {-18.0, 18.0}) addCircle(drawing, {x, y + 10}, 3.3, "main plate");
        addRing(drawing, rectangle(300, -60, 350, 60), "top plate");
        addPattern(drawing, {325, 0}, 30.5 / std::sqrt(2.0), 3.2, 45, "top plate");
        for (double y : {-40.0, 40.0})
            for (double x : {-18.0, 18.0}) addCircle(drawing, {325 + x, y}, 3.3, "top plate");
        addRing(drawing, rectangle(314, 50, 336, 53), "top plate");
        const auto found = recognise(drawing);
        auto choices = guessChoices(found);
        QCOMPARE(choices.plates[0].role, PlateRole::main);
        QCOMPARE(choices.plates[1].role, PlateRole::top);
        choices.nose = NoseSide::up;
        const auto made = frameFromDrawing(found, choices);
        QVERIFY2(bool(made), made ? "" : made.error().c_str());
        QCOMPARE(made->motorMounts.size(), std::size_t(4));
        QCOMPARE(made->plates.size(), std::size_t(2));
        QCOMPARE(made->standoffs.size(), std::size_t(4));
        for (const auto &standoff : made->standoffs) QCOMPARE(standoff.thread, std::string("M3"));
        // The stack was 10 mm towards the nose of the motors' centroid; up in the drawing is forward.
        const auto stack =
            std::find_if(made->sites.begin(), made->sites.end(), [](const Site &s) { return s.on == "plate-main"; });
        QVERIFY((stack->X_FrameSite.position_mm.head<2>() - Vec2(10, 0)).norm() < 1e-9);
        // The top plate was laid onto the same pattern.
        const auto upper = std::find_if(made->sites.begin(), made->sites.end(), [](const Site &s) {
            return s.on == "plate-top" && s.kind == SiteKind::pattern;
        });
        QVERIFY((upper->X_FrameSite.position_mm.head<2>() - Vec2(10, 0)).norm() < 1e-9);
        QVERIFY(std::any_of(made->sites.begin(), made->sites.end(),
                            [](const Site &s) { return s.kind == SiteKind::strap; }));
        Build build;
        build.name = "From a drawing";
        build.frame = *made;
        QVERIFY(parseBuild(writeBuild(build)));
        for (auto &plate : choices.plates) plate.role = PlateRole::ignore;
        QVERIFY(!frameFromDrawing(found, choices));
    }
};

QTEST_APPLESS_MAIN(TestRecognise)
#include "test_recognise.moc"
