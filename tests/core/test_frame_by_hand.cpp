// The frame by hand, plates of a drawing laid on one another by their holes, and the wires that every craft has.
#include "core/analysis/analysis.h"
#include "core/build/frame_shapes.h"
#include "core/edits/perch_edits.h"
#include "core/edits/usual_wires.h"
#include "core/layout/hand_edits.h"
#include "core/layout/layout.h"
#include "core/links/link_report.h"
#include "core/placing/perch.h"
#include "core/recognise/recognise.h"
#include "core/rules/wording.h"
#include "support/builds.h"
#include "support/library.h"

#include <cmath>
#include <set>

using namespace waxis;

namespace {

Build freshQuad() {
    Build build;
    build.frame = *generateFrame(LayoutKind::quadX, {});
    return build;
}

const Plate &plateOf(const Build &build, const std::string &id) {
    for (const auto &plate : build.frame->plates)
        if (plate.id == id) return plate;
    qFatal("no plate %s", id.c_str());
}

bool hasHole(const Plate &plate, const Vec2 &at) {
    return std::any_of(plate.holes.begin(), plate.holes.end(),
                       [&](const RoundHole &h) { return (h.centre_mm - at).norm() < 0.06; });
}

FrameWish wish(FrameThing thing, const std::string &plate, const Vec2 &at) {
    FrameWish made;
    made.thing = thing;
    made.plate = plate;
    made.at_mm = at;
    return made;
}

} // namespace

class TestFrameByHand : public QObject {
    Q_OBJECT

private slots:
    void aPostDrillsBothPlatesAndHealsThemWhenItGoes() {
        const Build build = freshQuad();
        const Vec2 at(0, 17);
        std::string id;
        const auto added = addToFrame(build, wish(FrameThing::post, "plate-second", at), &id);
        QVERIFY2(bool(added), added ? "" : added.error().message.c_str());
        QCOMPARE(added->frame->standoffs.size(), build.frame->standoffs.size() + 1);
        const Standoff &post = added->frame->standoffs.back();
        QCOMPARE(post.id, id);
        QCOMPARE(post.height_mm, 25.0); // up to the top plate
        for (const char *plate : {"plate-second", "plate-top"}) QVERIFY(hasHole(plateOf(*added, plate), at));
        const auto moved = moveOnFrame(*added, id, Vec2(4, 17));
        QVERIFY2(bool(moved), moved ? "" : moved.error().message.c_str());
        QVERIFY(hasHole(plateOf(*moved, "plate-top"), {4, 17}) && !hasHole(plateOf(*moved, "plate-top"), at));
        const auto gone = removeFromFrame(*moved, id);
        QVERIFY(bool(gone));
        QVERIFY(plateOf(*gone, "plate-top") == plateOf(build, "plate-top"));
        QVERIFY(gone->frame->standoffs == build.frame->standoffs);
    }
    void whatDoesNotGoInIsSaidWithWhatIsMissing_data() {
        QTest::addColumn<int>("thing");
        QTest::addColumn<QPointF>("at");
        QTest::addColumn<QString>("says");
        QTest::newRow("beside the plate") << int(FrameThing::post) << QPointF(0, 90) << "no material";
        QTest::newRow("over the edge") << int(FrameThing::post) << QPointF(0, 20) << "too near to an edge";
        QTest::newRow("into a hole") << int(FrameThing::post) << QPointF(15.25, 13) << "too near to another hole";
        QTest::newRow("slot over the edge") << int(FrameThing::slot) << QPointF(0, 20) << "over the edge";
        QTest::newRow("pattern on a pattern") << int(FrameThing::pattern) << QPointF(1.5, 0) << "another hole";
    }
    void whatDoesNotGoInIsSaidWithWhatIsMissing() {
        QFETCH(int, thing);
        QFETCH(QPointF, at);
        QFETCH(QString, says);
        FrameWish made = wish(FrameThing(thing), "plate-second", {at.x(), at.y()});
        made.pattern = {PatternShape::square, 30.5, 0, 3.2, 4};
        const auto refused = addToFrame(freshQuad(), made);
        QVERIFY(!refused);
        QVERIFY2(QString::fromStdString(refused.error().message).contains(says), refused.error().message.c_str());
        QVERIFY(!addToFrame(freshQuad(), wish(FrameThing(thing), "nothing", {0, 0})));
    }
    void placesPatternsAndOpeningsComeAndGo() {
        Build build = freshQuad();
        FrameWish pattern = wish(FrameThing::pattern, "plate-top", {-18, 0});
        pattern.pattern = {PatternShape::square, 16, 0, 2.2, 4};
        std::string id;
        const auto drilled = addToFrame(build, pattern, &id);
        QVERIFY2(bool(drilled), drilled ? "" : drilled.error().message.c_str());
        QVERIFY(hasHole(plateOf(*drilled, "plate-top"), {-10, 8}));
        const auto seat = sitePose(*drilled->frame, id);
        QVERIFY(seat && std::abs(seat->position_mm.z() - 34) < 1e-9);
        const auto healed = removeFromFrame(*drilled, id);
        QVERIFY(plateOf(*healed, "plate-top") == plateOf(build, "plate-top"));
        FrameWish pass = wish(FrameThing::passThrough, "plate-top", {44, 0});
        pass.size_mm = {6, 12};
        const auto open = addToFrame(build, pass, &id);
        QVERIFY2(bool(open), open ? "" : open.error().message.c_str());
        QCOMPARE(open->frame->passThroughs.back().id, id);
        QCOMPARE(plateOf(*open, "plate-top").cutouts_mm.size(), plateOf(build, "plate-top").cutouts_mm.size() + 1);
        const auto closed = removeFromFrame(*open, id);
        QVERIFY(plateOf(*closed, "plate-top") == plateOf(build, "plate-top"));
        for (const auto thing : {FrameThing::facePlace, FrameThing::mast, FrameThing::cameraCage, FrameThing::plate,
                                 FrameThing::foot, FrameThing::bobbin}) {
            const auto more = addToFrame(build, wish(thing, "plate-second", {-4, 17}), &id);
            QVERIFY2(bool(more), more ? "" : more.error().message.c_str());
            const auto again = parseBuild(writeBuild(*more));
            QVERIFY2(bool(again), again ? "" : again.error().text().c_str());
        }
        QVERIFY(!removeFromFrame(build, "arm-fr"));
        QVERIFY(!moveOnFrame(build, "nothing", {0, 0}));
    }
    void aMotorHangsWithWhatSitsOnItsMount() {
        Build build = freshQuad();
        const auto &library = waxis::test::shippedLibrary();
        for (const char *type : {"motor-2207", "prop-5"}) {
            const auto places = perchesFor(build, library.at(type), library);
            build = *addPerched(build, library.at(type), alikeTo(places.front(), places), library);
        }
        const auto hung = hangMotor(build, "mount-fr", true);
        QVERIFY(bool(hung));
        for (const auto &part : hung->parts)
            if (part.placement.site == "mount-fr") {
                const Pose pose = framePose(*hung, part);
                QVERIFY(pose.position_mm.z() <= 1e-9); // under the arm, which reaches from 0 to 5
                QVERIFY((pose.rotation * Vec3::UnitZ()).z() < -0.999);
            }
        Analyser analyser;
        for (const auto &finding : analyser.update(*hung).findings)
            QVERIFY2(finding.rule != RuleId::fitHeld, wordFinding(*hung, finding).headline.text().c_str());
        const auto back = hangMotor(*hung, "mount-fr", false);
        for (std::size_t i = 0; i < build.parts.size(); ++i)
            QVERIFY(
                (framePose(*back, back->parts[i]).position_mm - framePose(build, build.parts[i]).position_mm).norm() <
                1e-9);
        QVERIFY(!hangMotor(build, "nothing", true));
    }
    void aTopPlateDrawnBesideIsLaidOnByItsHoles() {
        // Its middle is not over the main plate's: only the posts' holes tell where it belongs.
        Recognition found;
        const std::vector<Vec2> posts{{20, 14}, {20, -14}, {-30, 14}, {-30, -14}};
        auto plate = [&](double x0, double x1, double half, const Vec2 &shift) {
            FoundPlate made;
            made.outline_mm = {{x0, -half}, {x1, -half}, {x1, half}, {x0, half}};
            for (auto &p : made.outline_mm) p += shift;
            for (const auto &p : posts) {
                FoundHole hole;
                hole.centre_mm = p + shift;
                hole.diameter_mm = 3.2;
                hole.screw = screwForHole(hole.diameter_mm);
                made.holes.push_back(hole);
            }
            made.area_mm2 = (x1 - x0) * 2 * half;
            return made;
        };
        const Vec2 beside(300, 40);
        found.plates = {plate(-50, 50, 20, {0, 0}), plate(-70, 28, 18, beside)};
        DrawingChoices choices = guessChoices(found);
        choices.plates[0].role = PlateRole::main;
        choices.plates[1].role = PlateRole::top;
        const auto frame = frameFromDrawing(found, choices);
        QVERIFY2(bool(frame), frame ? "" : frame.error().c_str());
        QCOMPARE(frame->standoffs.size(), posts.size());
        const Plate &main = frame->plates[0], &top = frame->plates[1];
        for (std::size_t i = 0; i < posts.size(); ++i)
            QVERIFY((main.holes[i].centre_mm - top.holes[i].centre_mm).norm() < 1e-9);
        // A stack's holes that happen to be the same on both plates do not lead astray: no post stands in them.
        Recognition decoy = found;
        for (auto *of : {&decoy.plates[0], &decoy.plates[1]}) {
            const bool upper = of == &decoy.plates[1];
            FoundPattern stack;
            stack.use = PatternUse::stack;
            stack.pattern = {PatternShape::square, 20, 0, 2.2, 4};
            stack.centre_mm = upper ? Vec2(beside + Vec2(-12, 0)) : Vec2(0, 0);
            for (int corner = 0; corner < 4; ++corner) {
                FoundHole hole;
                hole.centre_mm = stack.centre_mm + Vec2(corner & 1 ? 10 : -10, corner & 2 ? 10 : -10);
                hole.diameter_mm = 2.2;
                hole.pattern = 0;
                stack.holes.push_back(int(of->holes.size()));
                of->holes.push_back(hole);
            }
            of->patterns.push_back(stack);
        }
        const auto still = frameFromDrawing(decoy, choices);
        QVERIFY(bool(still));
        QCOMPARE(still->standoffs.size(), posts.size());
        // With two holes in common only, the middles count as before.
        found.plates[1].holes.resize(2);
        const auto loose = frameFromDrawing(found, choices);
        QVERIFY(bool(loose));
        QVERIFY((loose->plates[0].holes[0].centre_mm - loose->plates[1].holes[0].centre_mm).norm() > 1);
    }
    void aCameraFindsItsPicturesWay_data() {
        QTest::addColumn<QStringList>("types");
        QTest::addColumn<int>("camera");
        QTest::addColumn<int>("sender");
        using L = QStringList;
        // By way of the controller's overlay, or without one straight to the transmitter.
        QTest::newRow("overlay") << L{"fc-305", "cam-14", "vtx-58-400"} << 1 << 0;
        QTest::newRow("no overlay") << L{"fc-305l", "cam-14", "vtx-58-400"} << 0 << 1;
        QTest::newRow("digital") << L{"fc-305", "cam-14d", "dvu-20"} << 0 << 1;
        QTest::newRow("the wrong kind of sender") << L{"fc-305l", "cam-14", "dvu-20"} << 0 << 0;
    }
    void aCameraFindsItsPicturesWay() {
        QFETCH(QStringList, types);
        const auto &library = waxis::test::shippedLibrary();
        Build build = freshQuad();
        for (const auto &type : types) {
            const auto places = perchesFor(build, library.at(type.toStdString()), library);
            QVERIFY2(!places.empty(), qPrintable(type));
            build = *addPerched(build, library.at(type.toStdString()), {places.front()}, library);
        }
        build = joinWhatFits(build);
        const auto carrying = [&](PartKind other) {
            return int(std::count_if(build.wires.begin(), build.wires.end(), [&](const Wire &w) {
                const auto kindAt = [&](const WireEnd &end) { return typeOf(build, *findPart(build, end.part))->kind; };
                const bool pair = (kindAt(w.from) == PartKind::flightCamera && kindAt(w.to) == other) ||
                                  (kindAt(w.to) == PartKind::flightCamera && kindAt(w.from) == other);
                return pair && std::any_of(w.cores.begin(), w.cores.end(), [](const WireCore &c) {
                           return c.fromPin == "VIDEO" || c.fromPin == "LINK+" || c.toPin == "VIDEO";
                       });
            }));
        };
        QTEST(carrying(PartKind::flightController), "camera");
        QTEST(carrying(PartKind::videoTransmitter) + carrying(PartKind::digitalVideoUnit), "sender");
    }
    void whatFitsIsJoinedOnceAndOnlyOnce() {
        const auto &library = waxis::test::shippedLibrary();
        Build build = freshQuad();
        for (const char *type :
             {"motor-2207", "esc-45", "pdb-305", "fc-305", "pack-4s1300", "plug-60a", "rx-868n", "gps-n10c"}) {
            const auto places = perchesFor(build, library.at(type), library);
            QVERIFY2(!places.empty(), type);
            build = *addPerched(build, library.at(type), alikeTo(places.front(), places), library);
        }
        std::vector<std::string> joined;
        const Build wired = joinWhatFits(build, &joined);
        QCOMPARE(joined.size(), wired.wires.size());
        const auto between = [&](PartKind a, PartKind b) {
            return std::count_if(wired.wires.begin(), wired.wires.end(), [&](const Wire &w) {
                const PartKind from = typeOf(wired, *findPart(wired, w.from.part))->kind,
                               to = typeOf(wired, *findPart(wired, w.to.part))->kind;
                return (from == a && to == b) || (from == b && to == a);
            });
        };
        QCOMPARE(between(PartKind::motor, PartKind::esc), 4);
        QCOMPARE(between(PartKind::esc, PartKind::distributionBoard), 4);
        QCOMPARE(between(PartKind::battery, PartKind::powerPlug), 1);
        QCOMPARE(between(PartKind::receiver, PartKind::flightController), 1);
        QCOMPARE(between(PartKind::gps, PartKind::flightController), 2); // serial, and the compass' bus
        std::multiset<std::string> pins;
        for (const auto &wire : wired.wires)
            if (typeOf(wired, *findPart(wired, wire.from.part))->kind == PartKind::gps)
                for (const auto &core : wire.cores) pins.insert(core.fromPin);
        for (const char *pin : {"5V", "GND", "TX", "RX", "SDA", "SCL"}) QVERIFY2(pins.count(pin) == 1, pin);
        QCOMPARE(between(PartKind::distributionBoard, PartKind::flightController), 1);
        // Each controller commanded by the output of its motor's number.
        std::set<std::string> outputs;
        for (const auto &wire : wired.wires)
            if (typeOf(wired, *findPart(wired, wire.from.part))->kind == PartKind::esc)
                for (const auto &core : wire.cores)
                    if (core.fromPin == "SIG") outputs.insert(core.toPin);
        QCOMPARE(outputs, (std::set<std::string>{"M1", "M2", "M3", "M4"}));
        // Each motor on the controller of its own arm.
        for (const auto &wire : wired.wires) {
            const Part &from = *findPart(wired, wire.from.part), &to = *findPart(wired, wire.to.part);
            if (typeOf(wired, from)->kind != PartKind::motor) continue;
            QVERIFY((framePose(wired, from).position_mm - framePose(wired, to).position_mm).norm() < 90);
        }
        for (const auto &fault : linkReport(wired).faults)
            QVERIFY(fault.fault != LinkFault::sameWay && fault.fault != LinkFault::shortCircuit);
        joined.clear();
        QVERIFY(joinWhatFits(wired, &joined) == wired);
        QVERIFY(joined.empty());
        QVERIFY(joinWhatFits(Build{}, &joined).wires.empty());
    }
};

QTEST_APPLESS_MAIN(TestFrameByHand)
#include "test_frame_by_hand.moc"
