// What a drawing says of its plates: named by writing, laid, turned, corrected, made into a frame.
#include "core/recognise/laying.h"
#include "support/builds.h"
#include "support/drawn_plates.h"

#include <nlohmann/json.hpp>

using namespace waxis;
using test::addCircle;
using test::addPattern;
using test::addRing;
using test::obround;
using test::plateWith;
using test::rectangle;

class TestRecognisePlates : public QObject {
    Q_OBJECT

private slots:
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

QTEST_APPLESS_MAIN(TestRecognisePlates)
#include "test_recognise_plates.moc"
