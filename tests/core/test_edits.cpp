#include "core/base/units.h"
#include "core/edits/part_edits.h"
#include "support/builds.h"

using namespace waxis;
using test::addBox;
using test::bareQuad;

namespace {

Build sample() {
    Build build = bareQuad();
    build.frame.edit([](Frame &frame) {
        Site site;
        site.id = "deck";
        site.X_FrameSite = {{10, 20, 30}, quaternionFrom({0, 0, 90})};
        frame.sites.push_back(site);
    });
    addBox(build, "a", {10, 20, 30}, {1, 2, 3}, 10);
    addBox(build, "b", {10, 20, 30}, {50, 2, 3}, 20);
    build.parts[1].fastening = {FasteningMethod::screws, {"a"}, false, {}};
    build.parts[0].optional = true;
    build.loadCases = {{"full", "Full", {"a"}, "a", false}};
    return build;
}

bool samePlace(const Build &build, const std::string &part, const Pose &pose) {
    const Pose now = framePose(build, *findPart(build, part));
    return (now.position_mm - pose.position_mm).norm() < 1e-9 && now.rotation.angularDistance(pose.rotation) < 1e-7;
}

} // namespace

class TestEdits : public QObject {
    Q_OBJECT

private slots:
    void editsLeaveTheirInputAlone() {
        const Build build = sample(), copy = build;
        QVERIFY(!(*movePart(build, "a", {{9, 9, 9}, Quat::Identity()}) == build));
        QVERIFY(!(*weighPart(build, "a", measuredValue(12)) == build));
        QVERIFY(!(*removePart(build, "b") == build));
        QCOMPARE(build == copy, true);
    }
    void whatIsNotThereIsAnError() {
        const Build build = sample();
        QVERIFY(!movePart(build, "ghost", {}));
        QVERIFY(!seatPart(build, "a", "nowhere", {}));
        QVERIFY(!changeType(build, "a", "no-type"));
        QVERIFY(!removePart(build, "ghost"));
        QVERIFY(!withdrawAcceptance(build, "FIT-1:a:b"));
        QVERIFY(!chooseProfile(build, "imaginary"));
        QVERIFY(movePart(build, "ghost", {}).error().message.find("ghost") != std::string::npos);
    }
    void nonsenseIsRefused() {
        const Build build = sample();
        const double nan = std::numeric_limits<double>::quiet_NaN();
        QVERIFY(!movePart(build, "a", {{nan, 0, 0}, Quat::Identity()}));
        QVERIFY(!shiftPart(build, "a", {0, std::numeric_limits<double>::infinity(), 0}));
        QVERIFY(!weighPart(build, "a", measuredValue(-1)));
        QVERIFY(!weighPart(build, "a", measuredValue(nan)));
        QVERIFY(!renamePart(build, "a", ""));
        QVERIFY(!acceptFinding(build, "FIT-1:a:b", "  \n"));
    }
    void seatedPartsMoveWithTheirSiteAndStayOnItWhenShifted() {
        const auto seated = seatPart(sample(), "a", "deck", {{5, 0, 0}, Quat::Identity()});
        QVERIFY(bool(seated));
        QVERIFY(samePlace(*seated, "a", {{10, 25, 30}, quaternionFrom({0, 0, 90})}));
        const auto shifted = shiftPart(*seated, "a", {1, 1, 1});
        QCOMPARE(shifted->parts[0].placement.site, std::string("deck"));
        QVERIFY(samePlace(*shifted, "a", {{11, 26, 31}, quaternionFrom({0, 0, 90})}));
        const auto loose = shiftPart(*seated, "a", {1, 1, 1}, false);
        QVERIFY(loose->parts[0].placement.site.empty());
        QVERIFY(samePlace(*loose, "a", {{11, 26, 31}, quaternionFrom({0, 0, 90})}));
    }
    void fourQuarterTurnsComeRound() {
        Build build = *seatPart(sample(), "a", "deck", {{5, 0, 0}, quaternionFrom({10, 20, 30})});
        const Pose start = framePose(build, build.parts[0]);
        for (int i = 0; i < 4; ++i) build = *turnPart(build, "a", Vec3::UnitZ(), 90);
        QVERIFY(samePlace(build, "a", start));
        QVERIFY(!samePlace(*turnPart(build, "a", Vec3::UnitX(), 180), "a", start));
    }
    void removingAPartLeavesNoLooseEnds() {
        const auto build = removePart(sample(), "a");
        QVERIFY(!findPart(*build, "a"));
        QVERIFY(build->parts[0].fastening.onto.empty());
        QVERIFY(build->loadCases[0].aboard.empty());
        QVERIFY(build->loadCases[0].battery.empty());
        QVERIFY(bool(parseBuild(writeBuild(*build)))); // still a file that opens
    }
    void addedPartsBringTheirTypeAndGetAFreshId() {
        const Build build = sample();
        PartType type = build.types->at("a-type");
        type.id = "new-type";
        const auto once = addPart(build, type, "a", {{7, 7, 7}, Quat::Identity()});
        QVERIFY(once->types->contains("new-type"));
        QCOMPARE(once->parts.back().id, std::string("a-2"));
        const auto twice = addPart(*once, type, "a", {});
        QCOMPARE(twice->parts.back().id, std::string("a-3"));
        type.name = "another of that id";
        QVERIFY(!addPart(*twice, type, "a", {}));
    }
    void anotherModelForgetsTheOldOnesWeighing() {
        Build build = *weighPart(sample(), "a", measuredValue(12));
        build = *changeType(build, "a", "b-type");
        QVERIFY(!build.parts[0].mass_g.known());
    }
    void acceptingTwiceKeepsTheNewerReason() {
        Build build = *acceptFinding(sample(), "FIT-1:a:b", "first");
        build = *acceptFinding(build, "FIT-1:a:b", "second");
        QCOMPARE(build.acceptances.size(), std::size_t(1));
        QCOMPARE(build.acceptances[0].reason, std::string("second"));
        QVERIFY(withdrawAcceptance(build, "FIT-1:a:b")->acceptances.empty());
    }
    void copiesShareWhatNobodyChanged() {
        const Build build = sample();
        const Build moved = *movePart(build, "a", {});
        QVERIFY(moved.frame.sharesWith(build.frame));
        QVERIFY(moved.types.sharesWith(build.types));
        Build other = build;
        other.frame.edit([](Frame &frame) { frame.name = "other"; });
        QVERIFY(build.frame->name != "other");
    }
};

QTEST_APPLESS_MAIN(TestEdits)
#include "core/findings/finding.h"
#include "test_edits.moc"
