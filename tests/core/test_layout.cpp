// Frames from layouts: geometry by closed forms, numbering by the customs of the trade (common practice, no source).
#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/build/frame_shapes.h"
#include "core/layout/frame_report.h"
#include "core/layout/handles.h"
#include "core/layout/numbering.h"
#include "core/layout/relayout.h"
#include "core/rules/rule.h"
#include "support/builds.h"
#include "support/layouts.h"

using namespace waxis;
using test::buildOn, test::frameOf;

namespace {

const MotorMount &mountIn(const Frame &frame, const std::string &id) {
    for (const auto &mount : frame.motorMounts)
        if (mount.id == id) return mount;
    qFatal("no mount %s", id.c_str());
}

std::map<std::string, int> numbersOf(const Frame &frame, Numbering numbering) {
    std::map<std::string, int> result;
    const auto numbers = motorNumbers(frame.motorMounts, numbering);
    for (std::size_t i = 0; i < numbers.size(); ++i) result[frame.motorMounts[i].id] = numbers[i];
    return result;
}

} // namespace

class TestLayout : public QObject {
    Q_OBJECT

    static void everyLayout() {
        QTest::addColumn<int>("index");
        for (int i = 0; i < int(layouts().size()); ++i) QTest::newRow(layouts()[std::size_t(i)].id.data()) << i;
    }

private slots:
    void everyLayoutIsSoundByItsStandards_data() { everyLayout(); }
    void everyLayoutIsSoundByItsStandards() {
        QFETCH(int, index);
        const auto &layout = layouts()[std::size_t(index)];
        const Frame frame = frameOf(layout.kind);
        QCOMPARE(int(frame.motorMounts.size()), layout.motors);
        QCOMPARE(frame.layout, std::string(layout.id));
        // The datum is the centroid of the motor axes, on top of the main plate.
        Vec2 sum = Vec2::Zero();
        for (const auto &mount : frame.motorMounts) sum += mount.position_mm.head<2>();
        QVERIFY(sum.norm() < 1e-9);
        QCOMPARE(frame.plates[0].id, std::string("plate-main"));
        QVERIFY(std::abs(frame.plates[0].z_mm + frame.plates[0].thickness_mm) < 1e-12);
        // Left and right are mirror images.
        for (const auto &mount : frame.motorMounts) {
            const Vec3 mirrored = mount.position_mm.cwiseProduct(Vec3(1, -1, 1));
            QVERIFY(std::any_of(frame.motorMounts.begin(), frame.motorMounts.end(),
                                [&](const auto &other) { return (other.position_mm - mirrored).norm() < 1e-9; }));
        }
        // Nothing is wrong with a frame that nobody touched, but for the tail servo that a tricopter wants.
        Analyser analyser;
        for (const auto &finding : analyser.update(buildOn(frame)).findings)
            QVERIFY2(finding.variant == "servo", wordFinding(buildOn(frame), finding).headline.text().c_str());
        // It comes back from a file.
        const auto loaded = parseBuild(writeBuild(buildOn(frame)));
        QVERIFY2(bool(loaded), loaded ? "" : loaded.error().text().c_str());
        QVERIFY(*loaded->build.frame == frame);
        QVERIFY(isGenerated(frame));
    }
    void everyParameterCanGoToItsEndsOrSaysWhyNot_data() { everyLayout(); }
    void everyParameterCanGoToItsEndsOrSaysWhyNot() {
        QFETCH(int, index);
        const auto kind = layouts()[std::size_t(index)].kind;
        for (const auto &parameter : parametersOf(kind)) {
            for (double value : {parameter.minimum, parameter.maximum}) {
                const auto frame = generateFrame(kind, {{std::string(parameter.id), value}});
                if (!frame) {
                    QVERIFY(!frame.error().reason.empty());
                    continue;
                }
                const auto loaded = parseBuild(writeBuild(buildOn(*frame)));
                QVERIFY2(bool(loaded), qPrintable(QString("%1 = %2: %3")
                                                      .arg(parameter.id.data())
                                                      .arg(value)
                                                      .arg(loaded ? "" : loaded.error().text().c_str())));
            }
            const double outside = parameter.maximum + 1;
            const auto refused = generateFrame(kind, {{std::string(parameter.id), outside}});
            QVERIFY(!refused);
            QCOMPARE(refused.error().parameter, std::string(parameter.id));
        }
    }
    void unknownParametersAreRefusedWithTheNearestOne() {
        const auto frame = generateFrame(LayoutKind::quadX, {{"arn_mm", 100}});
        QVERIFY(!frame);
        QVERIFY2(frame.error().text().find("arm_mm") != std::string::npos, frame.error().text().c_str());
        QVERIFY(!generateFrame(LayoutKind::quadX, {{"standoffs", 4.5}}));
        QVERIFY(!generateFrame(LayoutKind::quadX, {{"arm_mm", std::nan("")}}));
    }
    void motorsStandWhereTheLayoutSays() {
        const Frame x = frameOf(LayoutKind::quadX, {{"arm_mm", 100}});
        QVERIFY((mountIn(x, "mount-fr").position_mm.head<2>() - Vec2(100, -100) / std::sqrt(2.0)).norm() < 1e-9);
        QVERIFY(std::abs(motorDiagonal_mm(x) - 200) < 1e-9);
        const Frame h = frameOf(LayoutKind::quadH, {{"spread_mm", 180}, {"length_mm", 140}});
        QVERIFY((mountIn(h, "mount-rl").position_mm.head<2>() - Vec2(-70, 90)).norm() < 1e-9);
        // A tricopter with arms of 150 at 60 degrees and a tail of 180: the centroid lies (2 * 75 - 180) / 3 = -10 of
        // the hub.
        const Frame tri = frameOf(LayoutKind::triY, {{"arm_mm", 150}, {"tail_mm", 180}});
        QVERIFY((mountIn(tri, "mount-fl").position_mm.head<2>() - Vec2(85, 150 * std::sqrt(0.75))).norm() < 1e-9);
        QVERIFY((mountIn(tri, "mount-rear").position_mm.head<2>() - Vec2(-170, 0)).norm() < 1e-9);
        const Frame hybrid = frameOf(LayoutKind::quadHybrid, {{"arm_mm", 130}, {"rearArm_mm", 110}});
        const auto front = mountIn(hybrid, "mount-fr").position_mm, rear = mountIn(hybrid, "mount-rr").position_mm;
        QVERIFY(std::abs((front - rear).x() - (130 * std::cos(42 * M_PI / 180) + 110 * std::cos(48 * M_PI / 180))) <
                1e-9);
        const Frame x8 = frameOf(LayoutKind::coaxialX8);
        QCOMPARE(mountIn(x8, "mount-fr").position_mm.head<2>(), mountIn(x8, "mount-fr-low").position_mm.head<2>());
        QVERIFY(propCentre_mm(mountIn(x8, "mount-fr-low")).z() < 0 && propCentre_mm(mountIn(x8, "mount-fr")).z() > 0);
    }
    void optionsAddTheirPieces() {
        const Frame plain = frameOf(LayoutKind::quadX);
        const Frame full = frameOf(
            LayoutKind::quadX, {{"cleanPlate", 1}, {"footHeight_mm", 20}, {"foldJoint_mm", 40}, {"bodyWidth_mm", 60}});
        auto count = [](const Frame &frame, StandoffRole role) {
            return std::count_if(frame.standoffs.begin(), frame.standoffs.end(),
                                 [&](const auto &s) { return s.role == role; });
        };
        QCOMPARE(count(plain, StandoffRole::bobbin), 0);
        QCOMPARE(count(full, StandoffRole::bobbin), 4);
        QCOMPARE(count(full, StandoffRole::foot), 4);
        QCOMPARE(full.arms[0].foldJoint_mm, std::optional(40.0));
        const auto clean =
            std::find_if(full.plates.begin(), full.plates.end(), [](const Plate &p) { return p.isolated; });
        QVERIFY(clean != full.plates.end());
        QCOMPARE(full.sites[0].on, clean->id); // the stack goes onto the clean frame
        QVERIFY(full.sites[0].isolated);
        const Frame bare = frameOf(LayoutKind::quadX, {{"topPlate", 0}, {"secondPlate", 0}});
        QCOMPARE(bare.plates.size(), std::size_t(1));
        QVERIFY(bare.standoffs.empty());
    }
    void quadsAreNumberedByTheThreeCustoms() {
        const Frame x = frameOf(LayoutKind::quadX);
        using Numbers = std::map<std::string, int>;
        QCOMPARE(numbersOf(x, Numbering::rearRightFirst),
                 (Numbers{{"mount-rr", 1}, {"mount-fr", 2}, {"mount-rl", 3}, {"mount-fl", 4}}));
        QCOMPARE(numbersOf(x, Numbering::diagonalFirst),
                 (Numbers{{"mount-fr", 1}, {"mount-rl", 2}, {"mount-fl", 3}, {"mount-rr", 4}}));
        QCOMPARE(numbersOf(x, Numbering::clockwise),
                 (Numbers{{"mount-fl", 1}, {"mount-fr", 2}, {"mount-rr", 3}, {"mount-rl", 4}}));
        const Frame wide = frameOf(LayoutKind::quadWide, {{"frontAngle_deg", 75}});
        QCOMPARE(numbersOf(wide, Numbering::clockwise), numbersOf(x, Numbering::clockwise));
        const Frame plus = frameOf(LayoutKind::quadPlus);
        QCOMPARE(numbersOf(plus, Numbering::rearRightFirst),
                 (Numbers{{"mount-rear", 1}, {"mount-right", 2}, {"mount-left", 3}, {"mount-front", 4}}));
        QCOMPARE(numbersOf(plus, Numbering::clockwise),
                 (Numbers{{"mount-front", 1}, {"mount-right", 2}, {"mount-rear", 3}, {"mount-left", 4}}));
    }
    void trisHexasAndCoaxialsAreNumberedToo() {
        using Numbers = std::map<std::string, int>;
        QCOMPARE(numbersOf(frameOf(LayoutKind::triY), Numbering::rearRightFirst),
                 (Numbers{{"mount-rear", 1}, {"mount-fr", 2}, {"mount-fl", 3}}));
        QCOMPARE(numbersOf(frameOf(LayoutKind::hexaX), Numbering::rearRightFirst), (Numbers{{"mount-rr", 1},
                                                                                            {"mount-fr", 2},
                                                                                            {"mount-rl", 3},
                                                                                            {"mount-fl", 4},
                                                                                            {"mount-right", 5},
                                                                                            {"mount-left", 6}}));
        const auto x8 = numbersOf(frameOf(LayoutKind::coaxialX8), Numbering::rearRightFirst);
        QCOMPARE(x8.at("mount-rr"), 1);
        QCOMPARE(x8.at("mount-rr-low"), 5);
        for (const auto &layout : layouts())
            for (const auto &custom : numberings()) {
                if (custom.numbering == Numbering::own) continue;
                const Frame frame = frameOf(layout.kind);
                auto numbers = motorNumbers(frame.motorMounts, custom.numbering);
                std::sort(numbers.begin(), numbers.end());
                for (int i = 0; i < int(numbers.size()); ++i) QCOMPARE(numbers[std::size_t(i)], i + 1);
            }
    }
    void neighboursTurnAgainstEachOther() {
        for (const auto &layout : layouts()) {
            const Frame frame = frameOf(layout.kind);
            QVERIFY2(likeTurningNeighbours(frame.motorMounts).empty(), layout.id.data());
            QCOMPARE(std::abs(yawSurplus(frame.motorMounts)), layout.motors % 2);
            const Frame reversed = frameOf(layout.kind, {{"reversedSpin", 1}});
            for (std::size_t i = 0; i < frame.motorMounts.size(); ++i)
                QCOMPARE(reversed.motorMounts[i].spin, opposite(frame.motorMounts[i].spin));
        }
        QCOMPARE(selfTighteningThread(Spin::clockwise), std::string_view("left-hand"));
    }
    void givingANumberTakesItFromWhoHadIt() {
        Build build = buildOn(frameOf(LayoutKind::quadX));
        const auto swapped = setMotorNumber(build, "mount-fl", 1);
        QVERIFY(bool(swapped));
        QCOMPARE(mountIn(*swapped->frame, "mount-fl").number, 1);
        QCOMPARE(mountIn(*swapped->frame, "mount-rr").number, 4);
        QCOMPARE(swapped->frame->numbering, std::string("own"));
        QVERIFY(!setMotorNumber(build, "mount-fl", 5));
        QVERIFY(!setMotorNumber(build, "mount-xx", 1));
        QVERIFY(!setMotorSpin(build, "nobody", Spin::clockwise));
        const auto back = chooseNumbering(*swapped, Numbering::rearRightFirst);
        QVERIFY(back->frame->motorMounts == build.frame->motorMounts);
    }
    void longerArmsTakeAlongWhatHangsOnThem() {
        Build build = buildOn(frameOf(LayoutKind::quadX, {{"arm_mm", 100}}));
        test::addBox(build, "motor", {20, 20, 10}, {0, 0, 5}, 30).placement.site = "mount-fr";
        Part &lamp = test::addBox(build, "lamp", {10, 6, 2}, {60, -60, 5}, 1);
        lamp.fastening = {FasteningMethod::tape, {"arm-fr"}, false, {}};
        Part &ring = test::addBox(build, "ring", {4, 4, 1}, {60, -60, 7}, 1);
        ring.fastening = {FasteningMethod::glue, {"lamp"}, false, {}}; // on the lamp, which hangs on the arm
        test::addBox(build, "free", {5, 5, 5}, {0, 0, 40}, 5);
        const auto longer = setLayoutValue(build, "arm_mm", 120);
        QVERIFY2(bool(longer), longer ? "" : longer.error().message.c_str());
        auto moved = [&](const char *id) {
            return Vec3(framePose(*longer, *findPart(*longer, id)).position_mm -
                        framePose(build, *findPart(build, id)).position_mm);
        };
        const Vec3 out(20 / std::sqrt(2.0), -20 / std::sqrt(2.0), 0);
        QVERIFY((moved("motor") - out).norm() < 1e-9);
        QVERIFY((moved("lamp") - out).norm() < 1e-9);
        QVERIFY((moved("ring") - out).norm() < 1e-9);
        QVERIFY(moved("free").norm() < 1e-12);
        // and back again
        const auto back = setLayoutValue(*longer, "arm_mm", 100);
        QVERIFY((framePose(*back, *findPart(*back, "lamp")).position_mm - Vec3(60, -60, 5)).norm() < 1e-9);
        // Propeller fit follows: 127 mm propellers on 118 mm arms leave 39.9 mm between tips, 20 mm more arm 28.3 mm
        // more.
        const auto before = frameReport(*build.frame), after = frameReport(*longer->frame);
        QVERIFY(std::abs(*after.motors[0].tipGap_mm - *before.motors[0].tipGap_mm - 20 * std::sqrt(2.0)) < 1e-9);
    }
    void relayoutKeepsWhatAPersonChanged() {
        Build build = buildOn(frameOf(LayoutKind::quadX));
        Plate top = build.frame->plates[2];
        top.material = "aluminium";
        build = *setPlate(build, top);
        build.frame.edit([](Frame &frame) {
            frame.standoffs.erase(frame.standoffs.begin()); // one is not wanted
            Site own;
            own.id = "site-own";
            own.name = "Own";
            own.on = "plate-top";
            frame.sites.push_back(own);
            frame.materials = {{"mine", 1.4, false, false}};
        });
        build = *setMotorNumber(build, "mount-fl", 1);
        const auto next = setLayoutValue(build, "arm_mm", 130);
        QVERIFY(bool(next));
        QCOMPARE(next->frame->plates[2].material, std::string("aluminium"));
        QCOMPARE(next->frame->standoffs.size(), build.frame->standoffs.size());
        QVERIFY(sitePose(*next->frame, "site-own").has_value());
        QCOMPARE(next->frame->materials.size(), std::size_t(1));
        QCOMPARE(mountIn(*next->frame, "mount-fl").number, 1);
        QVERIFY(std::abs(motorDiagonal_mm(*next->frame) - 260) < 1e-9);
    }
    void partsOnSeatsThatGoKeepTheirPlace() {
        Build build = buildOn(frameOf(LayoutKind::hexaX));
        test::addBox(build, "motor", {20, 20, 10}, {0, 0, 5}, 30).placement.site = "mount-left";
        const Vec3 before = framePose(build, build.parts[0]).position_mm;
        const auto next = relayout(build, LayoutKind::quadX, {});
        QVERIFY(bool(next));
        QVERIFY(next->parts[0].placement.site.empty());
        QVERIFY((framePose(*next, next->parts[0]).position_mm - before).norm() < 1e-9);
        QVERIFY(parseBuild(writeBuild(*next))); // no reference hangs in the air
    }
    void framesThatClashWithPartsAreRefused() {
        Build build = buildOn(frameOf(LayoutKind::quadX));
        test::addBox(build, "plate-clean", {5, 5, 5}, {0, 0, 50}, 1);
        QVERIFY(!setLayoutValue(build, "cleanPlate", 1));
        QVERIFY(!setLayoutValue(Build{}, "arm_mm", 100));
        QVERIFY(!setLayoutValue(build, "arm_mm", -1));
    }
    void handlesChangeTheLayoutTheyBelongTo() {
        const Build build = buildOn(frameOf(LayoutKind::quadStretched));
        FrameHandle handle;
        for (const auto &h : frameHandles(*build.frame))
            if (h.kind == HandleKind::motor && h.mount == "mount-fr") handle = h;
        const auto pulled = pullHandle(build, handle, {120, -90});
        QVERIFY2(bool(pulled), pulled ? "" : pulled.error().message.c_str());
        QCOMPARE(pulled->frame->layoutParameters.at("arm_mm"), 150.0);
        QCOMPARE(pulled->frame->layoutParameters.at("frontAngle_deg"), 37.0); // atan2(90, 120) = 36.87 degrees
        for (const auto &h : frameHandles(*build.frame)) {
            if (h.kind == HandleKind::bodyLength)
                QCOMPARE(pullHandle(build, h, {60, 0})->frame->layoutParameters.at("bodyLength_mm"), 120.0);
            if (h.kind == HandleKind::bodyWidth)
                QCOMPARE(pullHandle(build, h, {0, 25})->frame->layoutParameters.at("bodyWidth_mm"), 50.0);
            if (h.kind == HandleKind::propeller && h.mount == "mount-fr")
                QCOMPARE(pullHandle(build, h, mountIn(*build.frame, "mount-fr").position_mm.head<2>() + Vec2(50, 0))
                             ->frame->layoutParameters.at("prop_mm"),
                         100.0);
            QVERIFY(!handleInWords(*build.frame, h).empty());
        }
        QVERIFY(!pullHandle(build, handle, {std::nan(""), 0}));
    }
    void everyHandlePulledToItsPlaceChangesLittle() {
        for (const auto &layout : layouts()) {
            const Build build = buildOn(frameOf(layout.kind));
            for (const auto &handle : frameHandles(*build.frame)) {
                const auto pulled = pullHandle(build, handle, handle.position_mm);
                QVERIFY2(bool(pulled), pulled ? "" : pulled.error().message.c_str());
                for (std::size_t i = 0; i < build.frame->motorMounts.size(); ++i) // half a degree at 250 mm is 2.2 mm
                    QVERIFY2(
                        (pulled->frame->motorMounts[i].position_mm - build.frame->motorMounts[i].position_mm).norm() <
                            1.5,
                        layout.id.data());
            }
        }
    }
    void ownFramesAreEditedMotorByMotor() {
        Build build = test::stakewalker();
        QVERIFY(!isGenerated(*build.frame));
        const Vec3 foot = framePose(build, *findPart(build, "foot-2")).position_mm;
        const auto moved = moveMotor(build, "m2", {140, -120});
        QVERIFY(bool(moved));
        QVERIFY((mountIn(*moved->frame, "m2").position_mm.head<2>() - Vec2(140, -120)).norm() < 1e-9);
        QVERIFY((framePose(*moved, *findPart(*moved, "prop-2")).position_mm.head<2>() - Vec2(140, -120)).norm() < 1e-9);
        QVERIFY((framePose(*moved, *findPart(*moved, "foot-2")).position_mm - foot - Vec3(10, -8, 0)).norm() < 2);
        const auto longer = extendArms(build, 10);
        QVERIFY(std::abs(motorDiagonal_mm(*longer->frame) - motorDiagonal_mm(*build.frame) - 20) < 0.5);
        QVERIFY(!moveMotor(build, "m9", {0, 0}));
        QVERIFY(!moveMotor(build, "m2", {28, -12})); // on its own arm's root
        QVERIFY(!setPropDiameter(build, "m2", 0));
        QCOMPARE(mountIn(*setPropDiameter(build, "m2", 203.2)->frame, "m2").propDiameter_mm, 203.2);
        QCOMPARE(mountIn(*setPropDiameter(build, "", 203.2)->frame, "m4").propDiameter_mm, 203.2);
    }
    void platesThatCannotBeCutAreRefused() {
        const Build build = buildOn(frameOf(LayoutKind::quadX));
        Plate plate = build.frame->plates[0];
        plate.outline_mm = {{0, 0}, {10, 10}, {10, 0}, {0, 10}};
        QVERIFY(!setPlate(build, plate));
        plate = build.frame->plates[0];
        plate.thickness_mm = 0;
        QVERIFY(!setPlate(build, plate));
        plate.thickness_mm = 3;
        plate.id = "plate-extra";
        QCOMPARE(setPlate(build, plate)->frame->plates.size(), build.frame->plates.size() + 1);
        QVERIFY(!removePlate(build, "plate-extra"));
        const auto without = removePlate(build, "plate-second");
        QVERIFY(parseBuild(writeBuild(*without))); // sites and pass-throughs of the plate do not hang in the air
    }
    void aThickerPlateLiftsWhatStandsOnIt() {
        Build build = buildOn(frameOf(LayoutKind::quadX));
        test::addBox(build, "pack", {60, 30, 30}, {0, 0, 15}, 200).placement.site = "site-pack";
        Part &gps = test::addBox(build, "gps", {20, 20, 8}, {-40, 0, 38}, 10);
        gps.fastening = {FasteningMethod::tape, {"plate-top"}, false, {}};
        Plate top = build.frame->plates[2];
        top.thickness_mm += 1.5;
        const auto next = setPlate(build, top);
        for (const char *id : {"pack", "gps"}) {
            const double rise = framePose(*next, *findPart(*next, id)).position_mm.z() -
                                framePose(build, *findPart(build, id)).position_mm.z();
            QVERIFY2(std::abs(rise - 1.5) < 1e-9, id);
        }
    }
    void theReportAgreesWithGeometry() {
        const Frame frame = frameOf(LayoutKind::quadX, {{"arm_mm", 118}, {"prop_mm", 127}});
        const FrameReport report = frameReport(frame);
        QVERIFY(std::abs(*report.motors[0].tipGap_mm - (118 * std::sqrt(2.0) - 127)) < 1e-9);
        QVERIFY(std::abs((report.motors[0].tipFrom_mm - report.motors[0].tipTo_mm).norm() -
                         *report.motors[0].tipGap_mm) < 1e-9);
        QVERIFY(std::abs((report.motors[0].frameFrom_mm - report.motors[0].frameTo_mm).norm() -
                         *report.motors[0].frameGap_mm) < 1e-9);
        double mass = 0;
        for (const auto &plate : report.plates) mass += *plate.mass_g;
        Analyser analyser;
        double rows = 0;
        for (const auto &row : analyser.update(buildOn(frame)).derived.massRows)
            if (row.kind == MassKind::plate) rows += row.element.mass_g;
        QVERIFY(std::abs(mass - rows) < 1e-9);
    }
};

QTEST_APPLESS_MAIN(TestLayout)
#include "test_layout.moc"
