// The frame's own screws: which ones a layout takes, how long, what they weigh, what becomes of them as it changes.
#include "core/analysis/analysis.h"
#include "core/build/frame_screws.h"
#include "core/derived/all_up.h"
#include "core/edits/part_edits.h"
#include "core/fasteners/all_threads.h"
#include "core/fasteners/fastener.h"
#include "core/findings/fix.h"
#include "core/kit/holding.h"
#include "core/kit/kit.h"
#include "core/layout/hand_edits.h"
#include "core/layout/layout.h"
#include "core/layout/relayout.h"
#include "core/layout/screw_edits.h"
#include "core/stack/frame_screws.h"
#include "support/builds.h"
#include "support/layouts.h"

#include <QTest>
#include <numeric>

using namespace waxis;

namespace {

Build laidOut(LayoutKind kind, const LayoutValues &values = {}) { return test::buildOn(test::frameOf(kind, values)); }

double grams(const std::vector<FramePiece> &pieces) {
    return std::accumulate(pieces.begin(), pieces.end(), 0.0,
                           [](double sum, const FramePiece &one) { return sum + one.piece.piece_g; });
}

const FrameScrew &screwInto(const Frame &frame, const std::string &post, bool fromAbove) {
    for (const auto &screw : frame.screws)
        if (screw.into == post && screw.fromAbove == fromAbove) return screw;
    qFatal("no such screw");
}

} // namespace

class TestFrameScrews : public QObject {
    Q_OBJECT

private slots:
    void everyLayoutIsHeldTogether_data() {
        QTest::addColumn<int>("kind");
        for (const auto &layout : layouts()) QTest::newRow(std::string(layout.id).c_str()) << int(layout.kind);
    }
    void everyLayoutIsHeldTogether() {
        QFETCH(int, kind);
        for (const double second : {0.0, 1.0}) {
            const Build build = laidOut(LayoutKind(kind), {{"secondPlate", second}});
            const Frame &frame = *build.frame;
            QVERIFY(missingScrews(frame).empty());
            for (const auto &arm : frame.arms)
                QVERIFY2(std::any_of(frame.screws.begin(), frame.screws.end(),
                                     [&](const FrameScrew &screw) {
                                         return std::find(screw.through.begin(), screw.through.end(), arm.id) !=
                                                screw.through.end();
                                     }),
                         arm.id.c_str());
            for (const auto &report : frameScrewReports(frame, practiceOf({}))) {
                QVERIFY2(report.now && report.now->verdict == ScrewVerdict::good, report.screw.c_str());
                QVERIFY(report.column.missed.empty() && report.column.narrow.empty() && report.column.air_mm < 1e-9);
            }
        }
    }
    void theUsualFrameWeighsWhatScrewsWeigh() {
        // Four arms with two clamp screws each, six posts with a screw at each end.
        const Build build = laidOut(LayoutKind::quadX);
        QCOMPARE(build.frame->screws.size(), std::size_t(20));
        const auto pieces = frameHardware(build, practiceOf({}));
        QCOMPARE(pieces.size(), std::size_t(28)); // eight lock nuts
        // An M3 x 16 button screw weighs about 1.0 g, a lock nut 0.4 g (handbook figures, from memory).
        QVERIFY2(grams(pieces) > 12 && grams(pieces) < 24, std::to_string(grams(pieces)).c_str());
        Analyser analyser;
        const auto &derived = analyser.update(build).derived;
        double rows = 0;
        for (const auto &screw : build.frame->screws) rows += gramsOf(derived, screw.id).value();
        QVERIFY(std::abs(rows - grams(pieces)) < 1e-9);
        int inKit = 0;
        for (const auto &line : derived.kit)
            if (line.kind == KitKind::hardware) inKit += line.needed;
        QCOMPARE(inKit, 28);
    }
    void columnsAreClampedFromPlateToPlate() {
        const Build build = laidOut(LayoutKind::quadX); // 2 mm plate, 5 mm arm, 2 mm plate
        const auto reports = frameScrewReports(*build.frame, practiceOf({}));
        for (std::size_t i = 0; i < reports.size(); ++i) {
            const FrameScrew &screw = build.frame->screws[i];
            if (!screw.into.empty()) continue;
            QVERIFY(std::abs(reports[i].column.grip_mm - 9) < 1e-9);
            QCOMPARE(*reports[i].length_mm, 14.0); // 9 + lock nut 4.5 (ISO 7040) + a pitch of 0.5
        }
        const FrameScrew &top = screwInto(*build.frame, "standoff-1", true);
        QCOMPARE(top.through, std::vector<std::string>{"plate-top"});
    }
    void twoScrewsShareAShortPost() {
        Build build = laidOut(LayoutKind::quadX, {{"standoffHeight_mm", 8.0}});
        const Practice practice = practiceOf({});
        for (const auto &report : frameScrewReports(*build.frame, practice)) { // 4 mm each, 4.5 mm wanted
            const bool post = !report.meets.empty();
            QCOMPARE(bool(report.length_mm), !post);
        }
        build = laidOut(LayoutKind::quadX, {{"standoffHeight_mm", 12.0}});
        for (const auto &report : frameScrewReports(*build.frame, practice)) QVERIFY(report.length_mm);
        // What one of them takes, the other has not.
        FrameScrew low = screwInto(*build.frame, "standoff-1", false);
        low.length_mm = frameScrewReports(*build.frame, practice)[0].column.grip_mm + 10;
        const auto next = setFrameScrew(build, low);
        QVERIFY(next);
        for (const auto &report : frameScrewReports(*next->frame, practice))
            if (report.meets == low.id) QVERIFY(!report.length_mm);
    }
    void aFrameWithFeetAndBobbins() {
        const Build build = laidOut(LayoutKind::coaxialX8, {{"footHeight_mm", 120.0}, {"cleanPlate", 1.0}});
        const auto pieces = frameHardware(build, practiceOf({}));
        int bobbinNuts = 0, intoFeet = 0;
        for (const auto &one : pieces) bobbinNuts += one.member.starts_with("bobbin");
        for (const auto &screw : build.frame->screws) intoFeet += screw.into.starts_with("foot");
        QCOMPARE(bobbinNuts, 8);
        QCOMPARE(intoFeet, 4);
    }
    void cleanPlatesOfAllLayoutsStandInNothing_data() {
        QTest::addColumn<int>("kind");
        for (const auto &layout : layouts()) QTest::newRow(std::string(layout.id).c_str()) << int(layout.kind);
    }
    void cleanPlatesOfAllLayoutsStandInNothing() {
        QFETCH(int, kind);
        const Build build = laidOut(LayoutKind(kind), {{"cleanPlate", 1.0}});
        Analyser analyser;
        for (const auto &f : analyser.update(build).findings)
            QVERIFY2(f.severity != Severity::stop, (std::string(ruleName(f.rule)) + " " + f.variant).c_str());
        int stoppers = 0;
        for (const auto &post : build.frame->standoffs) stoppers += post.role == StandoffRole::stopper;
        QVERIFY2(stoppers >= 2, std::to_string(stoppers).c_str());
    }
    void stoppersStandBesideTheBobbins() {
        const Build build = laidOut(LayoutKind::quadX, {{"cleanPlate", 1.0}});
        int stoppers = 0;
        for (const auto &post : build.frame->standoffs) {
            if (post.role != StandoffRole::stopper) continue;
            ++stoppers;
            QCOMPARE(post.height_mm, 6.0); // bobbins of 8 mm
            QVERIFY(screwInto(*build.frame, post.id, false).through.size() >= 1);
        }
        QCOMPARE(stoppers, 4);
        Analyser analyser;
        for (const auto &f : analyser.update(build).findings)
            QVERIFY2(f.rule != RuleId::frmMeet && f.rule != RuleId::fitHeld && f.rule != RuleId::frmLoose,
                     f.variant.c_str());
        for (const auto &post : laidOut(LayoutKind::quadX, {{"cleanPlate", 1.0}, {"stoppers", 0.0}}).frame->standoffs)
            QVERIFY(post.role != StandoffRole::stopper);
    }
    void aBracketSharesAScrew() {
        // Two plates on a post of M3; a bracket 3 mm thick lies under the head on top.
        Build build = test::bareQuad();
        build.frame.edit([](Frame &frame) {
            for (const auto &[id, z] : {std::pair{"floor", -2.0}, {"roof", 20.0}}) {
                Plate plate;
                plate.id = id;
                plate.outline_mm = {{-40, -20}, {40, -20}, {40, 20}, {-40, 20}};
                plate.z_mm = z;
                plate.thickness_mm = 2;
                plate.holes = {{{20, 10}, 3.2}};
                frame.plates.push_back(plate);
            }
            frame.standoffs = {{"post", StandoffRole::standoff, {20, 10, 0}, 20, 5, 2.5, "M3", "aluminium", {}}};
            frame.screws = missingScrews(frame);
        });
        test::addBox(build, "bracket", {20, 20, 3}, {20, 10, 23.5}, 4, PartKind::other).fastening = {
            FasteningMethod::screws, {"roof"}, false, {}};
        build.types.edit([](TypeTable &types) {
            test::typeIn(types, "bracket").mounting = HolePattern{PatternShape::circle, 0, 0, 3.2, 1};
        });
        const std::string high = screwInto(*build.frame, "post", true).id;
        const auto report = [&](const Build &of) {
            for (const auto &one : frameScrewReports(*of.frame, practiceOf({}), bracketsOf(of)))
                if (one.screw == high) return one;
            qFatal("no report");
        };
        QCOMPARE(report(build).column.grip_mm, 2.0);
        Analyser analyser;
        const auto onHeads = [&](const Build &of) {
            for (const auto &f : analyser.update(of).findings)
                if (f.rule == RuleId::frmHeads) return std::optional<Finding>(f);
            return std::optional<Finding>();
        };
        const auto found = onHeads(build);
        QVERIFY(found.has_value()); // it sits on the head
        QCOMPARE(mayShare(build, screwInto(*build.frame, "post", true)), std::vector<std::string>{"bracket"});
        const auto shared = applyFix(build, found->fixes.at(0)); // one screw for both
        QVERIFY(shared);
        QCOMPARE(report(*shared).column.grip_mm, 5.0);
        QCOMPARE(report(*shared).column.headFace_mm, 25.0);
        QCOMPARE(*report(*shared).length_mm - *report(build).length_mm, 2.0); // 8 to 10 mm are sold
        QVERIFY(!onHeads(*shared));
        // One screw in the box for both, and the bracket takes none of its own.
        const Part &bracket = *findPart(*shared, "bracket");
        QVERIFY(holdingOf(*shared, bracket, practiceOf({})).pieces.empty());
        QCOMPARE(holdingOf(*shared, bracket, practiceOf({})).drawn, std::vector<std::string>{high});
        QCOMPARE(frameHardware(*shared, practiceOf({})).size(), frameHardware(build, practiceOf({})).size());
        // It is given back, goes with the bracket, and keeps it when it is put in from the other side.
        QCOMPARE(report(*shareFrameScrew(*shared, high, "bracket", false)).column.grip_mm, 2.0);
        const auto gone = removePart(*shared, "bracket");
        QVERIFY(gone);
        QCOMPARE(report(*gone).column.grip_mm, 2.0);
        QCOMPARE(screwInto(*gone->frame, "post", true).through, std::vector<std::string>{"roof"});
        QVERIFY(!shareFrameScrew(build, "nothing", "bracket", true));
        QVERIFY(!shareFrameScrew(build, high, "nobody", true));
    }
    void theyFollowTheLayout() {
        Build build = laidOut(LayoutKind::quadX);
        FrameScrew mine = build.frame->screws.front();
        mine.head = HeadStyle::cap;
        build = *setFrameScrew(build, mine);
        const auto longer = setLayoutValue(build, "armThickness_mm", 6);
        QVERIFY(longer);
        QCOMPARE(longer->frame->screws.size(), build.frame->screws.size());
        QCOMPARE(int(longer->frame->screws.front().head), int(HeadStyle::cap)); // by hand: stays
        const auto without = setLayoutValue(build, "secondPlate", 0);
        QVERIFY(without);
        for (const auto &screw : without->frame->screws)
            for (const auto &id : screw.through) QVERIFY(id != "plate-second");
    }
    void theyGoWithWhatTheyHeld() {
        const Build build = laidOut(LayoutKind::quadX);
        const auto noPost = removeFromFrame(build, "standoff-1");
        QVERIFY(noPost);
        QCOMPARE(noPost->frame->screws.size(), build.frame->screws.size() - 2);
        const auto noRoof = removePlate(build, "plate-top");
        QVERIFY(noRoof);
        QCOMPARE(noRoof->frame->screws.size(), build.frame->screws.size() - 6);
        const auto moved = moveOnFrame(build, "standoff-1", build.frame->standoffs[0].base_mm.head<2>() + Vec2(-2, -1));
        QVERIFY(moved);
        QVERIFY(
            (screwInto(*moved->frame, "standoff-1", true).at_mm - moved->frame->standoffs[0].base_mm.head<2>()).norm() <
            1e-9);
    }
    void oneByOneAndAllAtOnce() {
        Build build = laidOut(LayoutKind::quadX, {{"screws", 0.0}});
        QVERIFY(build.frame->screws.empty());
        std::string id;
        const auto one = addFrameScrew(build, build.frame->standoffs[0].base_mm.head<2>(), &id);
        QVERIFY(one);
        QCOMPARE(one->frame->screws.front().into, std::string("standoff-1"));
        QVERIFY(!addFrameScrew(build, {500, 500}));
        const auto all = addMissingScrews(*one);
        QVERIFY(all);
        QCOMPARE(all->frame->screws.size(), std::size_t(20));
        QVERIFY(!addMissingScrews(*all));
        const auto gone = removeFromFrame(*all, id);
        QVERIFY(gone);
        QCOMPARE(gone->frame->screws.size(), std::size_t(19));
        // From the other side it meets what lies there.
        FrameScrew turned = all->frame->screws.front();
        turned.fromAbove = !turned.fromAbove;
        const auto other = setFrameScrew(*all, turned);
        QVERIFY(other);
        QVERIFY(other->frame->screws.front().through != all->frame->screws.front().through);
    }
    void sizesThatNobodySellsStay() {
        // M1.4, M1.7 and M5 are known, with lengths that are typed.
        Build build = laidOut(LayoutKind::quadX);
        FrameScrew screw = build.frame->screws.front();
        screw.thread = "M5";
        screw.length_mm = 21.5;
        const auto next = setFrameScrew(build, screw);
        QVERIFY(next);
        QCOMPARE(next->frame->screws.front().length_mm.value(), 21.5);
        QVERIFY(columnOf(*next->frame, next->frame->screws.front()).narrow.size() > 0); // holes of M3
        int known = 0;
        for (const auto &thread : allThreads()) known += findThread(thread.name) == &thread;
        QCOMPARE(known, 8);
    }
    void badScrewsAreRefused_data() {
        QTest::addColumn<QString>("thread");
        QTest::addColumn<double>("length");
        QTest::addColumn<int>("head");
        QTest::addColumn<double>("x");
        QTest::newRow("thread") << "M7" << 10.0 << int(HeadStyle::cap) << 0.0;
        QTest::newRow("length") << "M3" << -1.0 << int(HeadStyle::cap) << 0.0;
        QTest::newRow("too long") << "M3" << 999.0 << int(HeadStyle::cap) << 0.0;
        QTest::newRow("head") << "M1.6" << 10.0 << int(HeadStyle::button) << 0.0;
        QTest::newRow("place") << "M3" << 10.0 << int(HeadStyle::cap) << 900.0;
        QTest::newRow("no number") << "M3" << 10.0 << int(HeadStyle::cap) << qQNaN();
    }
    void badScrewsAreRefused() {
        QFETCH(QString, thread);
        QFETCH(double, length);
        QFETCH(int, head);
        QFETCH(double, x);
        const Build build = laidOut(LayoutKind::quadX);
        FrameScrew screw = build.frame->screws.front();
        screw.thread = thread.toStdString();
        screw.length_mm = length;
        screw.head = HeadStyle(head);
        if (x != 0) screw.at_mm.x() = x;
        const auto next = setFrameScrew(build, screw);
        QVERIFY(!next);
        QVERIFY(!next.error().message.empty());
    }
    void curesMendWhatTheyAreOfferedFor() {
        Build build = laidOut(LayoutKind::quadX);
        const auto screws = build.frame->screws;
        for (FrameScrew screw : screws) {
            screw.length_mm = 6;
            build = *setFrameScrew(build, screw);
        }
        Analyser analyser;
        for (int presses = 0; presses < 12; ++presses) {
            const auto findings = analyser.update(build).findings;
            const auto at = std::find_if(findings.begin(), findings.end(), [](const Finding &f) {
                return f.rule == RuleId::frmScrew && f.severity == Severity::stop && !f.fixes.empty();
            });
            if (at == findings.end()) break;
            const auto next = applyFix(build, at->fixes.front());
            QVERIFY(next);
            const int before = analyser.current().counts.stop;
            QVERIFY(analyser.update(*next).counts.stop < before); // of the whole craft
            build = *next;
        }
        for (const auto &f : analyser.update(build).findings)
            QVERIFY2(f.rule != RuleId::frmScrew || f.severity != Severity::stop, f.key().c_str());
        // Posts of another height, and a frame without its screws.
        Standoff post = build.frame->standoffs.front();
        post.height_mm += 4;
        build = *setStandoff(build, post);
        const auto mended = [&](RuleId rule) {
            const auto findings = analyser.update(build).findings;
            for (const auto &f : findings)
                if (f.rule == rule && f.severity != Severity::pass) {
                    build = *applyFix(build, f.fixes.at(0));
                    break;
                }
            for (const auto &f : analyser.update(build).findings)
                if (f.rule == rule && f.severity != Severity::pass) return false;
            return true;
        };
        QVERIFY(mended(RuleId::frmMeet));
        build.frame.edit([](Frame &frame) { frame.screws.clear(); });
        QVERIFY(mended(RuleId::frmLoose));
    }
    void whatLiesOnHeads_data() {
        QTest::addColumn<double>("x");
        QTest::addColumn<double>("lift_mm");
        QTest::addColumn<bool>("countersunk");
        QTest::addColumn<double>("depth_mm"); // 0: nothing to be said
        // ISO 7380-1: the head of an M3 button screw is 1.65 mm high.
        QTest::newRow("on the head") << 20.0 << 0.0 << false << 1.65;
        QTest::newRow("pressed in as far as foam gives") << 20.0 << 1.451 << false << 0.0;
        QTest::newRow("a little deeper") << 20.0 << 1.44 << false << 0.21;
        QTest::newRow("beside it") << 0.0 << 0.0 << false << 0.0;
        QTest::newRow("countersunk") << 20.0 << 0.0 << true << 0.0;
    }
    void whatLiesOnHeads() {
        QFETCH(double, x);
        QFETCH(double, lift_mm);
        QFETCH(bool, countersunk);
        QFETCH(double, depth_mm);
        Build build = test::bareQuad();
        build.frame.edit([&](Frame &frame) {
            Plate plate;
            plate.id = "plate";
            plate.outline_mm = {{-40, -20}, {40, -20}, {40, 20}, {-40, 20}};
            plate.thickness_mm = 2;
            plate.holes = {{{20, 10}, 3.2}};
            frame.plates = {plate};
            frame.standoffs = {{"post", StandoffRole::standoff, {20, 10, -20}, 20, 5, 2.5, "M3", "aluminium", {}}};
            frame.screws = missingScrews(frame);
            if (countersunk)
                for (auto &screw : frame.screws) screw.head = HeadStyle::countersunk;
        });
        QCOMPARE(build.frame->screws.size(), std::size_t(1));
        test::addBox(build, "board", {10, 10, 5}, {x, 10, 2 + 2.5 + lift_mm}, 5).fastening = {
            FasteningMethod::tape, {"plate"}, false, {}};
        Analyser analyser;
        const auto findings = analyser.update(build).findings;
        const auto at =
            std::find_if(findings.begin(), findings.end(), [](const Finding &f) { return f.rule == RuleId::frmHeads; });
        QCOMPARE(at != findings.end(), depth_mm > 0);
        for (const auto &f : findings) QVERIFY(f.rule != RuleId::fitOverlap); // said once
        if (depth_mm <= 0) return;
        QVERIFY2(std::abs(*at->measured - depth_mm) < 1e-6, std::to_string(*at->measured).c_str());
        const auto mended = applyFix(build, at->fixes.at(0));
        QVERIFY(mended);
        for (const auto &f : analyser.update(*mended).findings) QVERIFY(f.rule != RuleId::frmHeads);
    }
    void aCleanPlateKeepsItsDistance() {
        // 8 mm bobbins under the clean plate; a post of the roof stands beside it.
        Build build = laidOut(LayoutKind::quadX, {{"cleanPlate", 1.0}});
        const auto sways = [&] {
            Analyser analyser;
            int count = 0;
            for (const auto &f : analyser.update(build).findings)
                count += f.rule == RuleId::fitGap && f.variant == "sway" && f.severity != Severity::pass &&
                         f.subjects[0].starts_with("plate-clean");
            return count;
        };
        const int before = sways();
        build.frame.edit([](Frame &frame) {
            for (auto &plate : frame.plates)
                if (plate.isolated)
                    for (auto &p : plate.outline_mm) p.y() *= 1.55; // out to the posts
        });
        QVERIFY(sways() > before);
    }
};

QTEST_APPLESS_MAIN(TestFrameScrews)
#include "test_frame_screws.moc"
