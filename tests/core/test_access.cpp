// Reaching ports, folding arms, sliding packs, standing on the ground; and the property that moving a part clear of
// everything never makes a new overlap.
#include "core/access/service.h"
#include "core/analysis/analysis.h"
#include "core/build/folding.h"
#include "core/derived/all_up.h"
#include "core/edits/part_edits.h"
#include "core/practice/practice.h"
#include "core/scene/scene.h"
#include "core/stance/stance.h"
#include "core/studies/compare.h"
#include "core/survey/reach.h"
#include "core/survey/survey.h"
#include "core/survey/views.h"
#include "support/builds.h"

using namespace waxis;
using test::addBox;

namespace {

/// A base plate with a board that has a USB port to the left.
Build boardWithPort() {
    Build build;
    build.frame.edit([](Frame &frame) {
        frame.plates.push_back(
            {"base", "Base", {{-60, -60}, {60, -60}, {60, 60}, {-60, 60}}, {}, {}, -2, 2, "carbon", false, {}, {}});
    });
    Part &board = addBox(build, "fc", {36, 36, 6}, {0, 0, 8}, 8, PartKind::flightController);
    board.fastening.onto = {"base"};
    build.types.edit([](TypeTable &types) {
        types.at("fc-type").ports = {{"usb", PortKind::usb, {0, 18, 0}, {0, 1, 0}, {}, {}, true}};
    });
    return build;
}

AccessSurvey portOf(const Build &build) {
    Analyser analyser;
    const auto survey = analyseFully(analyser, build).derived.survey;
    for (const auto &access : survey->access)
        if (access.port == "usb") return access;
    return {};
}

std::set<std::string> named(const std::vector<std::string> &ids) { return {ids.begin(), ids.end()}; }

/// One arm that folds aft, with a motor on its end.
Build foldingQuad(std::optional<double> angle_deg = {}, bool down = false) {
    Build build = test::bareQuad();
    build.frame.edit([&](Frame &frame) {
        frame.motorMounts.resize(1);
        Arm arm;
        arm.id = "arm";
        arm.root_mm = {20, 20, 0};
        arm.tip_mm = {100, 100, 0};
        arm.width_mm = 12;
        arm.thickness_mm = 5;
        arm.foldJoint_mm = 10;
        arm.foldAngle_deg = angle_deg;
        arm.foldsDown = down;
        frame.arms.push_back(arm);
    });
    addBox(build, "motor", {20, 20, 20}, {0, 0, 10}, 30, PartKind::motor).placement.site = "m1";
    build.loadCases = {{"flown", "Flown", {}, "", false}, {"carried", "Carried", {}, "", true}};
    return build;
}

} // namespace

class TestAccess : public QObject {
    Q_OBJECT

private slots:
    void aFreePortNeedsNothingTakenOff() {
        const AccessSurvey access = portOf(boardWithPort());
        QVERIFY(access.hand && access.blockers.empty());
        QVERIFY(access.takeOff && access.takeOff->empty());
    }
    void whatStandsBeforeThePortIsNamedAndLiftedOff() {
        Build build = boardWithPort();
        addBox(build, "rx", {10, 10, 10}, {0, 30, 8}, 3).fastening.onto = {"base"};
        const AccessSurvey access = portOf(build);
        QCOMPARE(named(access.blockers), std::set<std::string>{"rx"});
        QVERIFY(access.takeOff);
        QCOMPARE(*access.takeOff, std::vector<std::string>{"rx"});
    }
    void whatLiesOverTheBlockerComesOffFirst() {
        Build build = boardWithPort();
        addBox(build, "rx", {10, 10, 10}, {0, 30, 8}, 3).fastening.onto = {"base"};
        // Walls on both sides and a lid on it; the board is behind, an arm ahead: only upwards, and only without the
        // lid.
        for (const auto &[id, at] : {std::pair("w1", Vec3(-8, 30, 8)), std::pair("w2", Vec3(8, 30, 8))})
            addBox(build, id, {4, 24, 16}, at, 2).fastening.onto = {"base"};
        build.frame.edit([](Frame &frame) {
            Arm arm;
            arm.id = "arm";
            arm.root_mm = {-30, 52, 16};
            arm.tip_mm = {30, 52, 16};
            arm.width_mm = 4;
            arm.thickness_mm = 16;
            frame.arms.push_back(arm);
        });
        addBox(build, "lid", {30, 20, 2}, {0, 30, 18}, 2).fastening.onto = {"base"};
        const AccessSurvey access = portOf(build);
        QCOMPARE(named(access.blockers), std::set<std::string>{"rx"});
        QVERIFY(access.takeOff);
        QCOMPARE(*access.takeOff, (std::vector<std::string>{"lid", "rx"}));
    }
    void whatStandsBeforeThePortAnywayHoldsNothingBack() {
        Build build = boardWithPort();
        addBox(build, "rx", {10, 10, 10}, {0, 26, 8}, 3).fastening.onto = {"base"};
        addBox(build, "bar", {70, 4, 10}, {0, 36, 8}, 3).fastening.onto = {"base"};
        for (const auto &[id, at] : {std::pair("w1", Vec3(-8, 26, 8)), std::pair("w2", Vec3(8, 26, 8))})
            addBox(build, id, {4, 14, 16}, at, 2).fastening.onto = {"base"};
        addBox(build, "lid", {30, 14, 2}, {0, 26, 18}, 2).fastening.onto = {"base"};
        const AccessSurvey access = portOf(build);
        QVERIFY(named(access.blockers).contains("bar"));
        QVERIFY(access.takeOff);
        QCOMPARE(*access.takeOff, (std::vector<std::string>{"bar", "rx"})); // the lid may stay
    }
    void whatCannotComeOffIsSaid() {
        Build build = boardWithPort();
        build.frame.edit([](Frame &frame) { // an arm right before the port: arms stay
            Arm arm;
            arm.id = "arm";
            arm.root_mm = {0, 24, 12};
            arm.tip_mm = {0, 60, 12};
            arm.width_mm = 12;
            arm.thickness_mm = 8;
            frame.arms.push_back(arm);
        });
        const AccessSurvey access = portOf(build);
        QCOMPARE(named(access.blockers), std::set<std::string>{"arm"});
        QVERIFY(!access.takeOff);
    }
    void aPortThatNobodyHasToReachIsNotAskedFor() {
        Build build = boardWithPort();
        build.types.edit([](TypeTable &types) {
            types.at("fc-type").ports[0].mustStayReachable = false;
            types.at("fc-type").ports[0].kind = PortKind::lamp; // keys, cards and USB are always asked for
        });
        QVERIFY(portOf(build).part.empty());
    }

    void armsFoldAboutTheirJoint() {
        const Build build = foldingQuad(-90.0);
        const auto arms = foldingArms(build);
        QCOMPARE(arms.size(), std::size_t(1));
        QCOMPARE(named(arms[0].parts), std::set<std::string>{"motor"});
        const Vec3 tip(100, 100, 0), joint = arms[0].joint_mm;
        const Vec3 folded = foldMotion(arms[0], 1) * tip;
        QVERIFY(std::abs((folded - joint).norm() - (tip - joint).norm()) < 1e-9); // it turns, it does not stretch
        QVERIFY(std::abs((folded - joint).head<2>().dot((tip - joint).head<2>())) < 1e-6); // by a right angle
        QVERIFY((foldMotion(arms[0], 0) * tip - tip).norm() < 1e-12);
        const Build half = foldedBuild(build, 0.5);
        QVERIFY((framePose(half, half.parts[0]).position_mm - foldMotion(arms[0], 0.5) * Vec3(100, 100, 10)).norm() <
                1e-9);
        QVERIFY(foldedBuild(build, 0) == build);
    }
    void armsThatFoldDownGoBelow() {
        const Build build = foldingQuad({}, true);
        const auto arms = foldingArms(build);
        QVERIFY((foldMotion(arms[0], 1) * Vec3(100, 100, 0)).z() < -80);
    }
    void theMassFollowsTheFoldedArms() {
        const Build build = foldingQuad(-90.0);
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        QVERIFY(std::abs(allUp(derived, 0).mass_g - allUp(derived, 1).mass_g) < 1e-9);
        // The same by analysing the build with its arms folded in fact.
        Analyser again;
        const CompoundMass &folded = allUp(again.update(foldedBuild(build, 1)).derived, 1);
        QVERIFY((*allUp(derived, 1).cg_mm - *folded.cg_mm).norm() < 1e-6);
        QVERIFY((*allUp(derived, 1).cg_mm - *allUp(derived, 0).cg_mm).norm() > 5);
    }
    void whatIsInTheWayOfAFoldingArmIsFound() {
        Build build = foldingQuad(-90.0);
        QVERIFY(foldContacts(build, practiceOf({})).empty());
        const auto arms = foldingArms(build);
        const Vec3 there = foldMotion(arms[0], 0.5) * Vec3(80, 80, -2.5);
        addBox(build, "post", {6, 6, 20}, there, 3);
        const auto contacts = foldContacts(build, practiceOf({}));
        QCOMPARE(contacts.size(), std::size_t(1));
        QCOMPARE(contacts[0].b, std::string("post"));
        QVERIFY(contacts[0].fraction > 0.3 && contacts[0].fraction < 0.7);
        QVERIFY(!contacts[0].folded); // it has passed by then
        Analyser analyser;
        const Analysis &analysis = analyseFully(analyser, build);
        QVERIFY(std::any_of(analysis.findings.begin(), analysis.findings.end(), [](const Finding &f) {
            return f.rule == RuleId::fitFolding && f.severity == Severity::stop;
        }));
    }

    void aSlidingPackStopsAtWhatItMeets() {
        Build build;
        Part &pack = addBox(build, "pack", {40, 20, 20}, {0, 0, 0}, 100, PartKind::battery);
        pack.slide = SlideRange{Vec3::UnitX(), -30, 30};
        addBox(build, "post", {4, 20, 20}, {37, 0, 0}, 5); // faces 15 mm apart
        Analyser analyser;
        const SlideSurvey slide = analyseFully(analyser, build).derived.survey->slides.at(0);
        QCOMPARE(slide.free_min_mm, -30.0);
        QVERIFY(slide.free_max_mm >= 14 && slide.free_max_mm < 15.001);
        QCOMPARE(slide.stopFore, std::string("post"));
        QVERIFY(slide.stopAft.empty());
    }
    void theCraftStandsOnItsLowestFeet() {
        Build build;
        build.frame.edit([](Frame &frame) {
            for (double x : {-40.0, 40.0})
                for (double y : {-30.0, 30.0})
                    frame.standoffs.push_back({"foot" + std::to_string(frame.standoffs.size()),
                                               StandoffRole::foot,
                                               {x, y, -25},
                                               20,
                                               5,
                                               3,
                                               "M3",
                                               "nylon",
                                               {}});
            frame.standoffs.push_back({"short", StandoffRole::foot, {0, 0, -20}, 15, 5, 3, "M3", "nylon", {}});
        });
        const Stance stance = stanceOf(build);
        QCOMPARE(stance.z_mm, -25.0);
        QCOMPARE(stance.feet.size(), std::size_t(4));
        QCOMPARE(stance.hull().size(), std::size_t(4));
        // Over the middle, 30 mm inside the nearer edge and 30 mm up: 45 degrees; beyond the feet it falls.
        QVERIFY(std::abs(tipOver(stance, {0, 0, 5})->angle_deg - 45) < 1e-9);
        QVERIFY(tipOver(stance, {0, 40, 5})->angle_deg < 0);
        QVERIFY(!tipOver(Stance{}, {0, 0, 5}));
    }

    void thingsAreMeasuredByTheirNearestBodies() {
        Build build;
        addBox(build, "a", {10, 10, 10}, {0, 0, 0}, 1);
        addBox(build, "b", {10, 10, 10}, {40, 0, 0}, 1);
        build.types.edit([](TypeTable &types) { // a second body that reaches nearer
            test::typeIn(types, "b").solids.push_back(test::solidBox({10, 4, 4}, {-10, 0, 0}));
        });
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        QVERIFY(std::abs(gapBetween(derived.scene, "a", "b")->distance_mm - 20) < 1e-9);
        QVERIFY(std::abs(gapBetween(derived.scene, "b", "a")->distance_mm - 20) < 1e-9);
        QVERIFY(!gapBetween(derived.scene, "a", "nobody"));
    }

    void theSurveyAgesWithTheBuild() {
        const Build build = test::stakewalker();
        Analyser analyser;
        QVERIFY(!analyseFully(analyser, build).derived.surveyStale);
        const auto fresh = analyser.current().findings.size();
        const Build moved = *shiftPart(build, "gps", {1, 0, 0});
        QVERIFY(analyser.update(moved).derived.surveyStale);
        QVERIFY(!analyser.update(build).derived.surveyStale); // and back
        QCOMPARE(analyser.current().findings.size(), fresh);
        // Weighing changes nothing that is seen.
        QVERIFY(!analyser.update(*weighPart(build, "gps", measuredValue(11, 0.1))).derived.surveyStale);
    }
    void aStoppedSurveyComesBackAtOnce() {
        const Build build = test::stakewalker();
        Analyser analyser;
        std::atomic<bool> stop{true};
        const Survey survey = surveyOf(build, practiceOf(build.practice), analyser.update(build).derived, &stop);
        QVERIFY(survey.cameras.empty() && survey.access.empty());
    }
    void comparingAPracticeWithItselfChangesNothing() {
        const Build build = test::stakewalker();
        const Practice range = practiceOfProfile("range"), sprint = practiceOfProfile("sprint");
        const auto same = comparePractices(build, range, range);
        QVERIFY(same.comes.empty() && same.goes.empty() && same.changes.empty());
        const auto there = comparePractices(build, range, sprint), back = comparePractices(build, sprint, range);
        QVERIFY(!there.comes.empty() || !there.goes.empty() || !there.changes.empty());
        QCOMPARE(there.comes.size(), back.goes.size());
        QCOMPARE(there.goes.size(), back.comes.size());
        QCOMPARE(there.changes.size(), back.changes.size());
    }

    void movingAPartAwayFromAllOthersNeverAddsAnOverlap() {
        // On all demos: each loose part, taken 2 m away in a random direction, leaves no overlap that was not there.
        std::mt19937 random(11);
        std::normal_distribution<double> any;
        for (const char *demo : {"stakewalker", "owlbox-mini", "sedge-tri", "kilnlamp"}) {
            const auto loaded = loadBuild(std::string(WEIGHTAXIS_TEST_DATA "/demos/") + demo + ".waxis");
            QVERIFY(bool(loaded));
            const Build &build = loaded->build;
            auto overlaps = [](const Analysis &analysis) {
                std::set<std::string> keys;
                for (const auto &f : analysis.findings)
                    if (f.rule == RuleId::fitOverlap) keys.insert(f.key());
                return keys;
            };
            Analyser analyser;
            const auto before = overlaps(analyser.update(build));
            for (const auto &part : build.parts) {
                Vec3 d(any(random), any(random), any(random));
                d *= 2000 / d.norm();
                const auto after = overlaps(analyser.update(*shiftPart(build, part.id, d)));
                for (const auto &key : after) QVERIFY2(before.contains(key), key.c_str());
                for (const auto &key : after) // and none that it was part of is left
                    QVERIFY2((key + ":").find(":" + part.id + ":") == std::string::npos, key.c_str());
            }
        }
    }
};

QTEST_APPLESS_MAIN(TestAccess)
#include "test_access.moc"
