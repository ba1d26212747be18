// Where parts sit and how they are held: perches, fastening hardware, edits of several parts together.
#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "core/edits/group_edits.h"
#include "core/edits/perch_edits.h"
#include "core/kit/holding.h"
#include "core/kit/kit.h"
#include "core/placing/perch.h"
#include "core/practice/practice.h"
#include "support/builds.h"

using namespace waxis;
using test::addBox;

namespace {

constexpr std::array<bool, 3> kPlan{true, true, false}, kSide{true, false, true};

/// A plate with a 30.5 mm stack site, a tail mount that leans, an arm out to the front left, and a post.
Build bench() {
    Build build;
    build.frame.edit([](Frame &frame) {
        frame.plates.push_back(
            {"main", "Main", {{-80, -30}, {80, -30}, {80, 30}, {-80, 30}}, {}, {}, -2, 2, "carbon", false, {}, {}});
        Site stack;
        stack.id = "stack";
        stack.kind = SiteKind::pattern;
        stack.X_FrameSite.position_mm = {0, 0, 10};
        stack.on = "main";
        stack.pattern = HolePattern{PatternShape::square, 30.5, 0, 3.2, 4};
        Site tail;
        tail.id = "tail";
        tail.kind = SiteKind::mast;
        tail.on = "main";
        tail.X_FrameSite = {{-70, 0, 30}, quaternionFrom({0, 20, 0})};
        frame.sites = {stack, tail};
        Arm arm;
        arm.id = "arm";
        arm.root_mm = {40, 25, 0};
        arm.tip_mm = {120, 105, 0};
        arm.width_mm = 14;
        arm.thickness_mm = 5;
        Arm mirror = arm;
        mirror.id = "arm-2";
        mirror.root_mm.y() *= -1;
        mirror.tip_mm.y() *= -1;
        frame.arms = {arm, mirror};
        frame.standoffs = {{"post", StandoffRole::standoff, {50, 20, 0}, 25, 5, 3, "M3", "aluminium", {}}};
    });
    return build;
}

Build boardOf(double side_mm, std::optional<double> pattern_mm) {
    Build build = bench();
    addBox(build, "board", {side_mm, side_mm, 4}, {0, 0, 40}, 8);
    if (pattern_mm)
        build.types.edit([&](TypeTable &types) {
            types.at("board-type").mounting =
                HolePattern{PatternShape::square, *pattern_mm, 0, *pattern_mm > 25 ? 3.2 : 2.2, 4};
        });
    return build;
}

std::optional<Perch> perchAt(const Build &build, const Vec3 &at, const std::array<bool, 3> &shown = kPlan,
                             const TypeTable &adapters = {}) {
    return nearestPerch(build, build.parts.back(), {at, framePose(build, build.parts.back()).rotation}, shown, 6,
                        adapters);
}

TypeTable adapterPlates() {
    PartType plate;
    plate.id = "adapter";
    plate.name = "Adapter 30.5 to 20";
    plate.kind = PartKind::mount;
    plate.solids = {test::solidBox({36, 36, 2}, {0, 0, 1})};
    plate.mass_g = catalogueValue(2);
    plate.mounting = HolePattern{PatternShape::square, 30.5, 0, 3.2, 4};
    plate.carries = HolePattern{PatternShape::square, 20, 0, 2.2, 4};
    return {{plate.id, plate}};
}

} // namespace

class TestPlacing : public QObject {
    Q_OBJECT

private slots:
    void boardsSitWhereTheirHolesLineUp() {
        const auto perch = perchAt(boardOf(36, 30.5), {3, -2, 40});
        QVERIFY(perch && perch->kind == PerchKind::pattern);
        QCOMPARE(perch->fastening.method, FasteningMethod::screws);
        QCOMPARE(perch->fastening.onto, std::vector<std::string>{"main"});
        QVERIFY((perch->X_FramePart.position_mm - Vec3(0, 0, 10)).norm() < 1e-12);
        QVERIFY(!perchAt(boardOf(36, 30.5), {12, 0, 40})); // out of reach
    }
    void anAdapterPlateGoesBetweenOtherPatterns() {
        const Build build = boardOf(26, 20);
        QVERIFY(!perchAt(build, {2, 1, 40}));
        const TypeTable adapters = adapterPlates();
        const auto perch = perchAt(build, {2, 1, 40}, kPlan, adapters);
        QVERIFY(perch && perch->kind == PerchKind::adapter);
        const auto placed = perchPart(build, "board", *perch, adapters);
        QVERIFY(bool(placed));
        QCOMPARE(placed->parts.size(), build.parts.size() + 1);
        const Part &plate = placed->parts.back();
        QCOMPARE(plate.placement.site, std::string("stack"));
        const Part &board = *findPart(*placed, "board");
        QCOMPARE(board.fastening.onto, std::vector<std::string>{plate.id});
        QVERIFY(std::abs(framePose(*placed, board).position_mm.z() - 12) < 1e-9); // on top of 2 mm of plate
    }
    void aTailMountGivesItsLean() {
        Build build = boardOf(20, {});
        build.parts.back().placement.pose.rotation = quaternionFrom({0, 0, 90});
        const auto perch = perchAt(build, {-68, 1, 40});
        QVERIFY(perch && perch->kind == PerchKind::mast);
        const Vec3 top = perch->X_FramePart.rotation * Vec3::UnitZ();
        QVERIFY(std::abs(std::acos(top.z()) * 180 / std::acos(-1.0) - 20) < 1e-6);
    }
    void partsLieOnUnderAndBesideArms() {
        Build build = bench();
        addBox(build, "esc", {24, 10, 5}, {0, 0, 0}, 6);
        const Vec3 along = Vec3(1, 1, 0).normalized(), middle(80, 65, 0);
        const auto top = perchAt(build, middle + Vec3(0, 0, 3));
        QVERIFY(top && top->kind == PerchKind::armTop && top->on == "arm");
        QVERIFY(std::abs(std::abs((top->X_FramePart.rotation * Vec3::UnitX()).dot(along)) - 1) < 1e-9); // lengthways
        QVERIFY(std::abs(top->X_FramePart.position_mm.z() - 2.5) < 1e-9);
        const auto under = perchAt(build, middle + Vec3(0, 0, -6));
        QVERIFY(under && under->kind == PerchKind::armUnder);
        QVERIFY(std::abs(under->X_FramePart.position_mm.z() + 7.5) < 1e-9);
        const Vec3 aside(-std::sqrt(0.5), std::sqrt(0.5), 0);
        const auto side = perchAt(build, middle + 12 * aside);
        QVERIFY(side && side->kind == PerchKind::armSide);
        const Vec3 off = side->X_FramePart.position_mm - middle;
        QVERIFY(std::abs(off.dot(aside) - 12) < 1e-9); // half the arm and half the part
    }
    void postsHoldSmallPartsByTheirSide() {
        Build build = bench();
        addBox(build, "rx", {12, 8, 4}, {0, 0, 0}, 2);
        const auto perch = perchAt(build, {60, 20, 10});
        QVERIFY(perch && perch->kind == PerchKind::standoff && perch->on == "post");
        QCOMPARE(perch->fastening.method, FasteningMethod::ties);
        QVERIFY(std::abs(perch->X_FramePart.position_mm.x() - (50 + 2.5 + 6)) < 1e-9);
    }
    void packsAndBoardsAreNotTiedToArms() {
        Build build = bench();
        addBox(build, "pack", {50, 20, 20}, {0, 0, 0}, 100, PartKind::battery);
        QVERIFY(!perchAt(build, {80, 65, 3}));
        QVERIFY(!perchAt(boardOf(20, 16), {80, 65, 3}));
    }
    void sittingDownTouchesAndDoesNotOverlap() {
        // Whatever perch is taken, the part does not stand in what carries it.
        Build build = bench();
        addBox(build, "esc", {24, 10, 5}, {0, 0, 0}, 6);
        std::mt19937 random(5);
        std::uniform_real_distribution<double> x(40, 120), y(25, 105), z(-12, 30);
        int taken = 0;
        for (int i = 0; i < 400; ++i) {
            const auto perch = perchAt(build, {x(random), y(random), z(random)}, i % 2 ? kPlan : kSide);
            if (!perch || perch->kind == PerchKind::armInside) continue;
            ++taken;
            const auto placed = perchPart(build, "esc", *perch);
            QVERIFY(bool(placed));
            Analyser analyser;
            const Derived &derived = analyser.update(*placed).derived;
            for (std::size_t b = 0; b < derived.scene.traits.size(); ++b)
                if (derived.scene.owners[std::size_t(derived.scene.traits[b].owner)].id == perch->on) {
                    const Vec3 freeing =
                        freeingMove(derived.scene.world->bodies()[0], derived.scene.world->bodies()[b]);
                    QVERIFY2(freeing.norm() < 1e-6, perchWord(perch->kind).data());
                }
        }
        QVERIFY(taken > 20);
    }

    void screwsFollowPatternPlateAndBoard() {
        Build build = boardOf(36, 30.5);
        build.parts.back().fastening = {FasteningMethod::screws, {"main"}, false, {}};
        const auto hardware = holdingOf(build, build.parts.back(), practiceOf({})).pieces;
        QCOMPARE(hardware.size(), std::size_t(1));
        QCOMPARE(hardware[0].pieces, 4);
        // 2 mm plate, 1.6 mm board, 3 mm of thread: 6.6, so 8 is the next of the series.
        QCOMPARE(hardware[0].item, std::string("screw-m3x8"));
        // ISO 4762 M3 x 8 in steel weighs 0.67 g (handbook tables, from memory); this estimate is rough.
        QVERIFY(hardware[0].piece_g > 0.45 && hardware[0].piece_g < 0.9);
        build.parts.back().fastening.pieces = 3;
        QCOMPARE(holdingOf(build, build.parts.back(), practiceOf({})).pieces[0].pieces, 3);
        build.parts.back().fastening.pieces = 0;
        QVERIFY(holdingOf(build, build.parts.back(), practiceOf({})).pieces.empty());
    }
    void hardwareWeighsAndIsCounted() {
        Build build = boardOf(36, 30.5);
        Analyser analyser;
        const double bare = allUp(analyser.update(build).derived).mass_g;
        const auto kitBefore = kitLines(build, practiceOf({})).size();
        build = *fastenPart(build, "board", {FasteningMethod::tape, {"main"}, false, {}});
        const Analysis &held = analyser.update(build);
        const auto hardware = holdingOf(build, *findPart(build, "board"), practiceOf({})).pieces;
        QVERIFY(std::abs(allUp(held.derived).mass_g - bare - hardware[0].piece_g) < 1e-9);
        QVERIFY(std::any_of(held.derived.massRows.begin(), held.derived.massRows.end(), [](const MassRow &row) {
            return row.id == "board/fastening" && row.kind == MassKind::fastening;
        }));
        QCOMPARE(kitLines(build, practiceOf({})).size(), kitBefore + 1);
        for (const auto method : {FasteningMethod::none, FasteningMethod::stack, FasteningMethod::pressed,
                                  FasteningMethod::soldered, FasteningMethod::glue}) {
            const Build other = *fastenPart(build, "board", {method, {"main"}, false, {}});
            QVERIFY(holdingOf(other, *findPart(other, "board"), practiceOf({})).pieces.empty());
        }
    }
    void drawnScrewsAreNotCountedTwice() {
        const Build build = test::stakewalker();
        const Part &fc = *findPart(build, "fc"); // its stack screws are parts of their own
        QVERIFY(holdingOf(build, fc, practiceOf({})).pieces.empty());
    }
    void fasteningOntoNothingIsRefused() {
        const Build build = boardOf(36, 30.5);
        QVERIFY(!fastenPart(build, "board", {FasteningMethod::tape, {"nowhere"}, false, {}}));
        QVERIFY(!fastenPart(build, "board", {FasteningMethod::tape, {"board"}, false, {}}));
        QVERIFY(!fastenPart(build, "nobody", {}));
        QVERIFY(!fastenPart(build, "board", {FasteningMethod::ties, {"main"}, false, -1}));
    }

    void alignedPartsShareTheEdge_data() {
        QTest::addColumn<int>("axis");
        QTest::addColumn<int>("to");
        for (int axis = 0; axis < 3; ++axis)
            for (int to = 0; to < 3; ++to) QTest::newRow(qPrintable(QString("%1/%2").arg(axis).arg(to))) << axis << to;
    }
    void alignedPartsShareTheEdge() {
        QFETCH(int, axis);
        QFETCH(int, to);
        Build build;
        addBox(build, "a", {10, 20, 30}, {1, 2, 3}, 1);
        addBox(build, "b", {4, 6, 8}, {50, -20, 11}, 1);
        addBox(build, "c", {2, 2, 2}, {-50, 20, -11}, 1).placement.pose.rotation = quaternionFrom({10, 20, 30});
        const auto aligned = alignParts(build, {"a", "b", "c"}, axis, AlignTo(to));
        QVERIFY(bool(aligned));
        auto edge = [&](const char *id) {
            const Aabb box = partBounds(*aligned, *findPart(*aligned, id));
            return to == 0 ? box.min_mm[axis] : to == 2 ? box.max_mm[axis] : (box.min_mm[axis] + box.max_mm[axis]) / 2;
        };
        QVERIFY(std::abs(edge("a") - edge("b")) < 1e-9 && std::abs(edge("a") - edge("c")) < 1e-9);
        QVERIFY(findPart(*aligned, "a")->placement == findPart(build, "a")->placement); // the first one stays
        QVERIFY(!alignParts(build, {"a"}, axis, AlignTo(to)));
        QVERIFY(!alignParts(build, {"a", "nobody"}, axis, AlignTo(to)));
    }
    void spreadPartsStandAtEvenSteps() {
        Build build;
        int n = 0;
        for (double x : {-40.0, 3.0, 17.0, 60.0})
            addBox(build, std::string(1, char('a' + n++)), {6, 6, 6}, {x, 0, 0}, 1);
        const auto spread = distributeParts(build, {"c", "a", "d", "b"}, 0);
        QVERIFY(bool(spread));
        double last = -40;
        for (const char *id : {"b", "c", "d"}) {
            const double x = framePose(*spread, *findPart(*spread, id)).position_mm.x();
            QVERIFY(std::abs(x - last - 100.0 / 3) < 1e-9);
            last = x;
        }
        QVERIFY(!distributeParts(build, {"a", "b"}, 0));
    }
    void mirroringTwiceGivesTheBuildBack() {
        Build build = bench();
        addBox(build, "lamp", {10, 6, 3}, {30, 18, 5}, 1).fastening = {FasteningMethod::tape, {"arm"}, false, {}};
        build.parts.back().placement.pose.rotation = quaternionFrom({15, -20, 35});
        const auto once = mirrorParts(build, {"lamp"});
        QVERIFY(bool(once));
        const Pose a = framePose(build, build.parts[0]), b = framePose(*once, once->parts[0]);
        QVERIFY((b.position_mm - Vec3(30, -18, 5)).norm() < 1e-12);
        // A mirror keeps x and z of every direction of a thing that is alike left and right.
        const Vec3 nose = a.rotation * Vec3::UnitX(), mirrored = b.rotation * Vec3::UnitX();
        QVERIFY((mirrored - Vec3(nose.x(), -nose.y(), nose.z())).norm() < 1e-9);
        const Vec3 top = a.rotation * Vec3::UnitZ(), mirroredTop = b.rotation * Vec3::UnitZ();
        QVERIFY((mirroredTop - Vec3(top.x(), -top.y(), top.z())).norm() < 1e-9);
        QCOMPARE(once->parts[0].fastening.onto, std::vector<std::string>{"arm-2"});
        const auto twice = mirrorParts(*once, {"lamp"});
        QVERIFY((framePose(*twice, twice->parts[0]).position_mm - a.position_mm).norm() < 1e-9);
        QCOMPARE(twice->parts[0].fastening.onto, std::vector<std::string>{"arm"});
    }
    void copiesGoToTheOtherSideAndTheOtherArms() {
        Build build = bench();
        addBox(build, "lamp", {10, 6, 3}, {80, 65, 1.5}, 1).fastening = {FasteningMethod::tape, {"arm"}, false, {}};
        std::vector<std::string> added;
        const auto copied = mirrorCopies(build, {"lamp"}, &added);
        QVERIFY(bool(copied));
        QCOMPARE(added.size(), std::size_t(1));
        QVERIFY((framePose(*copied, *findPart(*copied, added[0])).position_mm - Vec3(80, -65, 1.5)).norm() < 1e-9);
        added.clear();
        const auto round = copyToOtherArms(build, "lamp", &added);
        QVERIFY(bool(round));
        QCOMPARE(added.size(), std::size_t(1));
        QVERIFY((framePose(*round, *findPart(*round, added[0])).position_mm - Vec3(80, -65, 1.5)).norm() < 1e-9);
        QVERIFY(!copyToOtherArms(*round, "lamp", nullptr)); // every arm has one
        addBox(build, "fin", {10, 2, 10}, {0, 0, 5}, 1);
        QVERIFY(!mirrorCopies(build, {"fin"}, nullptr));
        QVERIFY(!copyToOtherArms(build, "fin", nullptr));
    }
    void aMovedPlateTakesAlongWhatItCarries() {
        Build build = boardOf(36, 30.5);
        build = *perchPart(build, "board", *perchAt(build, {1, 1, 40}));
        addBox(build, "rx", {10, 10, 4}, {30, 0, 4}, 2).fastening = {FasteningMethod::tape, {"main"}, false, {}};
        addBox(build, "on-rx", {4, 4, 2}, {30, 0, 7}, 1).fastening = {FasteningMethod::glue, {"rx"}, false, {}};
        addBox(build, "free", {4, 4, 2}, {0, 0, 60}, 1);
        const Vec3 shift(3, -2, 5);
        const auto moved = shiftPlate(build, "main", shift);
        QVERIFY(bool(moved));
        for (const char *id : {"board", "rx", "on-rx"})
            QVERIFY2((framePose(*moved, *findPart(*moved, id)).position_mm -
                      framePose(build, *findPart(build, id)).position_mm - shift)
                             .norm() < 1e-9,
                     id);
        QVERIFY(findPart(*moved, "free")->placement == findPart(build, "free")->placement);
        QCOMPARE(moved->frame->plates[0].z_mm, build.frame->plates[0].z_mm + 5);
        QVERIFY(!shiftPlate(build, "arm", shift));
        QVERIFY(!shiftPlate(build, "main", {std::nan(""), 0, 0}));
    }
    void pinnedPartsStayWhenManyMove() {
        Build build;
        addBox(build, "a", {2, 2, 2}, {0, 0, 0}, 1);
        addBox(build, "b", {2, 2, 2}, {10, 0, 0}, 1).pinned = true;
        const auto moved = shiftParts(build, {"a", "b"}, {5, 0, 0});
        QCOMPARE(framePose(*moved, moved->parts[0]).position_mm.x(), 5.0);
        QCOMPARE(framePose(*moved, moved->parts[1]).position_mm.x(), 10.0);
        QCOMPARE(removeParts(build, {"a", "b"})->parts.size(), std::size_t(0));
        QVERIFY(!mirrorParts(build, {"b"}));
    }
};

QTEST_APPLESS_MAIN(TestPlacing)
#include "test_placing.moc"
