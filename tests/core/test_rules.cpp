// What each rule finds, at which number it starts to find it, and what it says and offers.
#include "core/analysis/analysis.h"
#include "core/edits/part_edits.h"
#include "core/rules/rule.h"
#include "support/builds.h"

using namespace waxis;
using test::addBox;
using test::bareQuad;

namespace {

std::vector<Finding> of(RuleId rule, const Build &build,
                        const std::vector<Finding> Analysis::*list = &Analysis::findings) {
    Analyser analyser;
    std::vector<Finding> found;
    for (const auto &finding : analyser.update(build).*list)
        if (finding.rule == rule) found.push_back(finding);
    return found;
}

PartType &typeOfPart(TypeTable &table, const std::string &part) { return test::typeIn(table, part); }

void edit(Build &build, const std::string &part, const std::function<void(PartType &)> &change) {
    build.types.edit([&](TypeTable &table) { change(typeOfPart(table, part)); });
}

/// Two boxes of 20 x 10 x 10 mm side by side along y with a gap (or overlap, negative) between them.
Build twoBoxes(double gap_mm) {
    Build build = bareQuad();
    addBox(build, "a", {20, 10, 10}, {0, 5 + gap_mm / 2, 0}, 10);
    addBox(build, "b", {20, 10, 10}, {0, -5 - gap_mm / 2, 0}, 10);
    return build;
}

} // namespace

class TestRules : public QObject {
    Q_OBJECT

private slots:
    void overlapTellsDepthAndAMoveThatFreesIt() {
        const Build build = twoBoxes(-1.5);
        const auto found = of(RuleId::fitOverlap, build);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::stop);
        QVERIFY(std::abs(*found[0].measured - 1.5) < 1e-9);
        QCOMPARE(found[0].fixes.size(), std::size_t(2)); // either of the two may go
        for (const auto &fix : found[0].fixes) {
            const auto freed = applyFix(build, fix);
            QVERIFY(bool(freed));
            QVERIFY(of(RuleId::fitOverlap, *freed).empty());
        }
        QVERIFY(of(RuleId::fitOverlap, twoBoxes(0)).empty()); // touching is no overlap
    }
    void pinnedPartsAreNotOfferedToMove() {
        Build build = twoBoxes(-1.5);
        build.parts[0].pinned = true;
        const auto found = of(RuleId::fitOverlap, build);
        QCOMPARE(found[0].fixes.size(), std::size_t(1));
        QCOMPARE(found[0].fixes[0].part, std::string("b"));
    }
    void whatIsFastenedThroughOrSoftOrNeverAboardTogetherMayMeet() {
        Build build = twoBoxes(-1.5);
        Build screwed = build;
        edit(screwed, "a", [](PartType &type) { type.kind = PartKind::fastener; });
        QCOMPARE(of(RuleId::fitOverlap, screwed).size(), std::size_t(1)); // a stray screw still collides
        screwed.parts[0].fastening.onto = {"b"};
        QVERIFY(of(RuleId::fitOverlap, screwed).empty());

        Build padded = build;
        edit(padded, "a", [](PartType &type) { type.solids[0].role = SolidRole::soft; });
        QVERIFY(of(RuleId::fitOverlap, padded).empty());

        Build either = build;
        either.parts[0].optional = either.parts[1].optional = true;
        either.loadCases = {{"one", "One", {"a"}, "", false}, {"two", "Two", {"b"}, "", false}};
        QVERIFY(of(RuleId::fitOverlap, either).empty());
        either.loadCases.push_back({"both", "Both", {"a", "b"}, "", false});
        QCOMPARE(of(RuleId::fitOverlap, either).size(), std::size_t(1));
    }
    void softMountedPartsNeedRoomToSway_data() {
        QTest::addColumn<double>("gap");
        QTest::addColumn<int>("findings");
        QTest::newRow("2.9 mm") << 2.9 << 1;
        QTest::newRow("3.1 mm") << 3.1 << 0;
    }
    void softMountedPartsNeedRoomToSway() {
        QFETCH(double, gap);
        Build build = twoBoxes(gap);
        build.frame.edit([](Frame &frame) {
            Site site;
            site.id = "bobbins";
            site.isolated = true;
            frame.sites.push_back(site);
        });
        build.parts[0].placement.site = "bobbins";
        QTEST(int(of(RuleId::fitGap, build).size()), "findings");
        build.parts[1].placement.site = "bobbins"; // both sway together
        QVERIFY(of(RuleId::fitGap, build).empty());
    }
    void hotBodiesKeepAwayFromBatteryAndPrint() {
        Build build = twoBoxes(4);
        edit(build, "a", [](PartType &type) { type.hot = true; });
        QVERIFY(of(RuleId::fitGap, build).empty()); // nothing that heat harms
        Build battery = build;
        edit(battery, "b", [](PartType &type) { type.kind = PartKind::battery; });
        QCOMPARE(of(RuleId::fitGap, battery).size(), std::size_t(1));
        QCOMPARE(of(RuleId::fitGap, battery)[0].variant, std::string("heat"));
        QVERIFY(std::abs(of(RuleId::fitGap, battery)[0].margin + 1) < 1e-9);
        Build printed = build;
        edit(printed, "b", [](PartType &type) { type.solids[0].material = "petg"; });
        QCOMPARE(of(RuleId::fitGap, printed).size(), std::size_t(1));
    }
    void bareContactsStopWhenTheyTouchCarbon() {
        auto bareAt = [](double gap, bool insulated) {
            Build build = twoBoxes(gap);
            edit(build, "a", [](PartType &type) { type.solids[0].bare = true; });
            edit(build, "b", [](PartType &type) { type.solids[0].material = "carbon"; });
            build.parts[0].fastening = {FasteningMethod::tape, {"b"}, insulated, {}};
            return of(RuleId::fitGap, build);
        };
        QVERIFY(bareAt(2.1, false).empty());
        QCOMPARE(bareAt(1.0, false)[0].severity, Severity::watch);
        QCOMPARE(bareAt(0.0, false)[0].severity, Severity::stop);
        QVERIFY(bareAt(0.0, true).empty()); // a declared insulator
    }
    void propellerZoneIsRadiusTimesFlex_data() {
        // Propeller of 127 mm at (100, 100), middle 20 mm up; zone 12 mm above and 8 mm below; rigid 5 mm, flexible 10
        // mm.
        QTest::addColumn<double>("fromAxis");
        QTest::addColumn<double>("height");
        QTest::addColumn<bool>("flexible");
        QTest::addColumn<int>("severity");
        const int stop = int(Severity::stop), watch = int(Severity::watch), none = -1;
        QTest::newRow("in the disc") << 60.0 << 20.0 << false << stop;
        QTest::newRow("4 mm beside") << 63.5 + 1 + 4 << 20.0 << false << watch;
        QTest::newRow("6 mm beside") << 63.5 + 1 + 6 << 20.0 << false << none;
        QTest::newRow("6 mm beside, whip") << 63.5 + 1 + 6 << 20.0 << true << watch;
        QTest::newRow("11 mm beside, whip") << 63.5 + 1 + 11 << 20.0 << true << none;
        QTest::newRow("4 mm above") << 40.0 << 20.0 + 12 + 1 + 4 << false << watch;
        QTest::newRow("6 mm above") << 40.0 << 20.0 + 12 + 1 + 6 << false << none;
        QTest::newRow("4 mm below") << 40.0 << 20.0 - 8 - 1 - 4 << false << watch;
    }
    void propellerZoneIsRadiusTimesFlex() {
        QFETCH(double, fromAxis);
        QFETCH(double, height);
        QFETCH(bool, flexible);
        QFETCH(int, severity);
        Build build = bareQuad();
        addBox(build, "thing", {2, 2, 2}, {100 + fromAxis, 100, height}, 1);
        edit(build, "thing", [&](PartType &type) { type.flexible = flexible; });
        const auto found = of(RuleId::fitPropZone, build);
        QCOMPARE(found.empty() ? -1 : int(found[0].severity), severity);
        if (found.empty()) return;
        QCOMPARE(found[0].subjects, (std::vector<std::string>{"thing", "m1"}));
        if (severity != int(Severity::stop)) return;
        const auto freed = applyFix(build, found[0].fixes.at(0));
        QVERIFY(bool(freed));
        QVERIFY(of(RuleId::fitPropZone, *freed).empty()); // the move brings it out of the zone and its margin
    }
    void whatStandsAlikeBesideTwoDiscsIsSaidOnce() {
        Build build = bareQuad();
        const double beside = 100 + 63.5 + 1 + 4; // 4 mm where 5 are wanted
        addBox(build, "left", {2, 2, 2}, {beside, 100, 20}, 1);
        addBox(build, "right", {2, 2, 2}, {beside, -100, 20}, 1);
        auto found = of(RuleId::fitPropZone, build);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].severity, Severity::watch);
        QCOMPARE(found[0].subjects.size(), std::size_t(3));
        QVERIFY(wordFinding(build, found[0]).detail.text().find("So near one as well") != std::string::npos);
        build.parts[1].placement.pose.position_mm.x() -= 1; // now they are two
        found = of(RuleId::fitPropZone, build);
        QCOMPARE(found.size(), std::size_t(2));
        for (auto &part : build.parts) part.placement.pose.position_mm.x() -= 10;
        found = of(RuleId::fitPropZone, build); // struck: each has a cure of its own
        QCOMPARE(found.size(), std::size_t(2));
        QCOMPARE(found[0].severity, Severity::stop);
    }
    void motorAndPropellerBelongToTheirOwnDisc() {
        Build build = bareQuad();
        addBox(build, "motor", {20, 20, 20}, {0, 0, 10}, 30, PartKind::motor).placement.site = "m1";
        QVERIFY(of(RuleId::fitPropZone, build).empty());
        // A guard that is screwed onto the mount is struck like anything else.
        addBox(build, "guard", {2, 2, 2}, {40, 0, 20}, 3).placement.site = "m1";
        const auto found = of(RuleId::fitPropZone, build);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].subjects.front(), std::string("guard"));
        QCOMPARE(found[0].severity, Severity::stop);
    }
    void tipGapCountsInPlanButForCoaxialPairs() {
        // Motors 200 mm apart: 196 mm propellers leave 4 mm of the 5 mm wanted, 194 mm ones 6 mm.
        QCOMPARE(of(RuleId::fitTipGap, bareQuad(100, 196)).size(), std::size_t(4));
        QCOMPARE(of(RuleId::fitTipGap, bareQuad(100, 196))[0].severity, Severity::watch);
        QCOMPARE(of(RuleId::fitTipGap, bareQuad(100, 201))[0].severity, Severity::stop);
        QVERIFY(of(RuleId::fitTipGap, bareQuad(100, 194)).empty());
        Build coaxial = bareQuad(100, 127);
        coaxial.frame.edit([](Frame &frame) {
            MotorMount lower = frame.motorMounts[0];
            lower.id = "m1-low";
            lower.propPlane_mm = -20;
            frame.motorMounts.push_back(lower);
        });
        QVERIFY(of(RuleId::fitTipGap, coaxial).empty());
        coaxial.frame.edit([](Frame &frame) { frame.motorMounts.back().propPlane_mm = 10; });
        QCOMPARE(of(RuleId::fitTipGap, coaxial)[0].severity, Severity::stop); // only 10 mm apart in height
    }
    void balanceOffersTheSlideThatCentresIt() {
        Build build = bareQuad();
        addBox(build, "pack", {80, 35, 35}, {8, 0, 30}, 300, PartKind::battery).slide =
            SlideRange{Vec3::UnitX(), -40, 40};
        addBox(build, "rest", {60, 60, 10}, {8, 0, 0}, 300);
        auto found = of(RuleId::balOffset, build);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].variant, std::string("fore-aft"));
        QVERIFY(std::abs(*found[0].measured - 8) < 1e-9);
        QCOMPARE(found[0].fixes.at(0).part, std::string("pack"));
        QVERIFY(std::abs(found[0].fixes[0].shift_mm().x() + 16) < 1e-9); // 8 mm x 600 g / 300 g
        const auto slid = applyFix(build, found[0].fixes[0]);
        QVERIFY(of(RuleId::balOffset, *slid).empty());
        build.parts[0].slide->min_mm = -5; // the strap ends here
        found = of(RuleId::balOffset, build);
        QVERIFY(std::abs(*found[0].fixes.at(0).leaves_mm - 5.5) < 1e-9);
    }
    void tighterProfilesFindMore() {
        Build build = bareQuad();
        addBox(build, "a", {20, 20, 20}, {3, 0, 0}, 100);
        QVERIFY(of(RuleId::balOffset, build).empty());
        build.practice.profile = "sprint";
        QCOMPARE(of(RuleId::balOffset, build).size(), std::size_t(1));
        build.practice.limits["cg-offset"] = 3.5;
        QVERIFY(of(RuleId::balOffset, build).empty());
    }
    void whatCannotBeJudgedIsUnknownAndNeverPassed() {
        Build build = bareQuad();
        addBox(build, "a", {10, 10, 10}, {0, 0, 0}, 0);
        edit(build, "a", [](PartType &type) { type.mass_g = {}; });
        QCOMPARE(of(RuleId::kitMassUnknown, build)[0].severity, Severity::unknown);
        QCOMPARE(of(RuleId::balOffset, build)[0].severity, Severity::unknown);
        build.frame = Frame{};
        build.parts[0].mass_g = measuredValue(5);
        QCOMPARE(of(RuleId::balOffset, build)[0].variant, std::string("no-motors"));
        QVERIFY(of(RuleId::balOffset, build, &Analysis::passes).empty());
    }
    void passesReportTheirMarginSoThatCloseCallsCanBeListed() {
        Build build = bareQuad();
        addBox(build, "thing", {2, 2, 2}, {100 + 63.5 + 1 + 7, 100, 20}, 1);
        addBox(build, "counter", {2, 2, 2}, {-171.5, -100, 20}, 1);
        const auto passes = of(RuleId::fitPropZone, build, &Analysis::passes);
        QCOMPARE(passes.size(), std::size_t(2));
        QVERIFY(std::abs(passes[0].margin - 2) < 1e-6);
        Analyser analyser;
        QVERIFY(std::abs(analyser.update(build).closestCall()->margin - 2) < 1e-6);
    }
    void theClosestCallIsAGapAndNoLever() {
        // The GPS has 66 mm more of a lever than the practice notes: a worse margin than any gap of the demo.
        Analyser analyser;
        const Analysis &analysis = analyser.update(test::stakewalker());
        const auto worst = std::find_if(analysis.findings.begin(), analysis.findings.end(),
                                        [](const Finding &f) { return f.rule == RuleId::balLever; });
        QVERIFY(worst != analysis.findings.end() && worst->unit == "mm");
        QVERIFY(worst->margin < analysis.closestCall()->margin);
        QCOMPARE(analysis.closestCall()->rule, RuleId::fitPropZone);
    }
    void acceptedFindingsAreCountedApartAndKeepTheirReason() {
        const Build build = twoBoxes(-1);
        const auto found = of(RuleId::fitOverlap, build);
        const auto accepted = acceptFinding(build, found[0].key(), "the foam gives way");
        QVERIFY(bool(accepted));
        Analyser analyser;
        const Analysis &analysis = analyser.update(*accepted);
        QCOMPARE(analysis.counts.stop, 0);
        QCOMPARE(analysis.counts.accepted, 1);
        QCOMPARE(analysis.findings.back().acceptedReason, std::string("the foam gives way"));
        QVERIFY(!analysis.closestCall() || analysis.closestCall()->rule != RuleId::fitOverlap);
    }
    void theBookIsCompleteAndSaysWhyAndWhence() {
        QVERIFY(ruleName(RuleId(ruleBook().size())).empty()); // no name without a rule
        for (std::size_t i = 0; i < ruleBook().size(); ++i) {
            const Rule &rule = ruleOf(RuleId(i));
            QCOMPARE(std::size_t(rule.id), i);
            QVERIFY(!ruleName(rule.id).empty() && !rule.title.empty() && !rule.why.empty() && !rule.source.empty());
        }
        for (std::size_t i = 0; i < kLimitCount; ++i) QCOMPARE(std::size_t(limitTable()[i].limit), i);
    }
    void theDemoShowsItsFaultsInWords() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        std::set<std::string> rules;
        for (const auto &finding : analysis.findings) {
            const FindingText text = wordFinding(build, finding);
            for (const auto &sentence : {text.headline.text(), text.detail.text()}) {
                QVERIFY(!sentence.empty());
                QVERIFY2(sentence.find('{') == std::string::npos, sentence.c_str());
            }
            rules.emplace(ruleName(finding.rule));
        }
        QCOMPARE(rules,
                 (std::set<std::string>{"BAL-1",  "BAL-6",  "BAL-8", "FIT-1",  "FIT-10", "FIT-11", "FIT-3", "FIT-7",
                                        "FIT-9",  "KIT-1",  "KIT-2", "LOG-3",  "NAV-2",  "NAV-3",  "NAV-4", "NAV-5",
                                        "PWR-1",  "PWR-6",  "PWR-9", "RAD-10", "RAD-15", "RAD-17", "RAD-2", "RAD-4",
                                        "RAD-6",  "RAD-7",  "SEQ-3", "STK-2",  "STK-3",  "STK-6",  "STK-8", "WIR-1",
                                        "WIR-10", "WIR-15", "WIR-2", "WIR-7",  "WIR-9"}));
        // What passes says what was looked at and what is left, not the fault that it has not.
        QVERIFY(analysis.passes.size() > 100);
        for (const auto &pass : analysis.passes) {
            const FindingText text = wordFinding(build, pass);
            const std::string title(ruleOf(pass.rule).title);
            QVERIFY2(text.headline.text().starts_with(title + ":"), text.headline.text().c_str());
            QVERIFY2(!pass.measured || text.detail.text().find("found") != std::string::npos,
                     text.detail.text().c_str());
        }
        QCOMPARE(analysis.counts.stop, 11);
        QCOMPARE(analysis.counts.watch, 18);
        QCOMPARE(analysis.counts.note, 6);
        QCOMPARE(analysis.counts.unknown, 1);
        QCOMPARE(analysis.counts.accepted, 7);
    }
};

QTEST_APPLESS_MAIN(TestRules)
#include "test_rules.moc"
