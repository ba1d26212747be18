// The build as a whole: its name and notes, load cases, optional parts; parts copied within and between builds.
#include "core/analysis/analysis.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/edits/case_edits.h"
#include "core/edits/clip.h"
#include "core/edits/group_edits.h"
#include "core/studies/cures.h"
#include "io/project/project_file.h"
#include "support/builds.h"

using namespace waxis;

class TestBuildEdits : public QObject {
    Q_OBJECT

private slots:
    void aBuildHasANameAndNotes() {
        const Build build = test::bareQuad();
        QCOMPARE(renameBuild(build, "Marsh runner")->name, std::string("Marsh runner"));
        QVERIFY(!renameBuild(build, "  "));
        QVERIFY(!renameBuild(build, std::string(1001, 'x'))); // the file holds no longer ones
        QVERIFY(bool(renameBuild(build, std::string(1000, 'x'))));
        QCOMPARE(noteBuild(build, "for the spring count")->note, std::string("for the spring count"));
        QVERIFY(!noteBuild(build, std::string(10001, 'x')));
        Build boxed = build;
        test::addBox(boxed, "rx", {10, 10, 4}, {0, 0, 0}, 2);
        QCOMPARE(notePart(boxed, "rx", "spare")->parts[0].note, std::string("spare"));
        QVERIFY(!notePart(boxed, "nothing", "spare"));
    }
    void loadCasesAreMadeChangedAndRemoved() {
        Build build = test::bareQuad();
        test::addBox(build, "pack", {60, 30, 30}, {0, 0, 40}, 150, PartKind::battery);
        test::addBox(build, "cam", {20, 20, 20}, {40, 0, 20}, 60);
        QCOMPARE(effectiveLoadCases(build)[0].battery, std::string("pack")); // the one that is fitted flies
        std::string survey, bench;
        build = *addLoadCase(build, "Survey", &survey);
        build = *addLoadCase(build, "On the bench", &bench);
        QVERIFY(survey != bench);
        build = *setLoadCaseKind(build, bench, LoadCaseKind::bench);
        build = *setLoadCasePack(build, bench, "");
        QVERIFY(!setLoadCasePack(build, bench, "cam")); // no pack
        build = *renameLoadCase(build, survey, "Survey, camera aboard");
        QVERIFY(!renameLoadCase(build, survey, " "));
        build = *setAboard(build, "cam", bench, false);
        QVERIFY(findPart(build, "cam")->optional);
        QVERIFY(isAboard(*findPart(build, "cam"), build.loadCases[0]));
        QVERIFY(!isAboard(*findPart(build, "cam"), build.loadCases[1]));
        const auto again = parseBuild(writeBuild(build));
        QVERIFY(bool(again) && again->build == build);
        build.weightLimits = {{"limit", "250 g", 250, bench}};
        build = *removeLoadCase(build, bench);
        QVERIFY(build.weightLimits[0].loadCase.empty());
        QVERIFY(!removeLoadCase(build, bench));
        QVERIFY(!setLoadCaseFolded(build, bench, true));
    }
    void optionalMakesACaseWhereThereIsNone() {
        Build build = test::bareQuad();
        test::addBox(build, "cam", {20, 20, 20}, {40, 0, 20}, 60);
        build = *makeOptional(build, "cam", true);
        QCOMPARE(build.loadCases.size(), std::size_t(1));
        QVERIFY(isAboard(build.parts[0], build.loadCases[0])); // it does not vanish
        build = *makeOptional(build, "cam", false);
        QVERIFY(build.loadCases[0].aboard.empty() && !build.parts[0].optional);
        QVERIFY(!makeOptional(build, "nothing", true));
    }
    void onlyFlightsAreJudgedAsFlights() {
        Build build = test::bareQuad();
        test::addBox(build, "pack", {60, 30, 30}, {60, 0, 40}, 150, PartKind::battery); // far too far forward
        build = *addLoadCase(build, "There", nullptr);
        const auto offCentre = [](const Build &b) {
            Analyser analyser;
            const auto &all = analyser.update(b).findings;
            return std::any_of(all.begin(), all.end(), [](const Finding &f) { return f.rule == RuleId::balOffset; });
        };
        QVERIFY(offCentre(build));
        for (const auto kind : {LoadCaseKind::bench, LoadCaseKind::carried})
            QVERIFY(!offCentre(*setLoadCaseKind(build, build.loadCases[0].id, kind)));
    }
    void copiesBringFasteningsAndTheWiresBetweenThem() {
        const Build build = test::stakewalker();
        const auto clip = clipOf(build, {"gpsmast", "gps"});
        QVERIFY(bool(clip));
        std::vector<std::string> added;
        const auto pasted = pasteClip(build, *clip, {-20, 0, 0}, &added);
        QVERIFY(bool(pasted));
        QCOMPARE(added.size(), std::size_t(2));
        const Part &gps = *findPart(*pasted, added[1]);
        QCOMPARE(gps.fastening.onto, std::vector<std::string>{added[0]}); // onto the copy of its mast
        QVERIFY((framePose(*pasted, gps).position_mm - framePose(build, *findPart(build, "gps")).position_mm -
                 Vec3(-20, 0, 0))
                    .norm() < 1e-9);
        QVERIFY(!findPart(*pasted, added[0])->pinned);
        // A pair with the wires between them.
        const auto pair = clipOf(build, {"fc", "rx"});
        QVERIFY(pair && !pair->wires.empty());
        added.clear();
        const auto wired = pasteClip(build, *pair, {0, 0, 60}, &added);
        QCOMPARE(wired->wires.size(), build.wires.size() + pair->wires.size());
        QVERIFY(wired->wires.back().from.part == added[0] || wired->wires.back().from.part == added[1]);
        // The file takes all of it.
        const auto again = parseBuild(writeBuild(*wired));
        QVERIFY2(bool(again), again ? "" : again.error().text().c_str());
        QVERIFY(!clipOf(build, {}));
        QVERIFY(!clipOf(build, {"nothing"}));
        QVERIFY(!pasteClip(build, Build{}, {0, 0, 0}, nullptr));
    }
    void aClipGoesToAnotherBuildByWayOfTheFileFormat() {
        const Build build = test::stakewalker();
        const auto clip = clipOf(build, {"motor-1", "prop-1", "gps", "gpsmast"});
        const auto carried = parseBuild(writeBuild(*clip));
        QVERIFY2(bool(carried), carried ? "" : carried.error().text().c_str());
        Build other = test::bareQuad();
        std::vector<std::string> added;
        const auto pasted = pasteClip(other, carried->build, {0, 0, 0}, &added);
        QVERIFY(bool(pasted));
        QCOMPARE(pasted->parts.size(), std::size_t(4));
        QCOMPARE(findPart(*pasted, added[0])->placement.site, std::string("m1")); // a free mount of this frame
        QCOMPARE(findPart(*pasted, added[1])->placement.site, std::string("m1")); // motor and propeller together
        const auto whole = parseBuild(writeBuild(*pasted));
        QVERIFY2(bool(whole), whole ? "" : whole.error().text().c_str());
    }
    void aTypeOfTheSameIdWithOtherContentComesInUnderItsOwn() {
        Build one = test::bareQuad(), two = test::bareQuad();
        test::addBox(one, "rx", {10, 10, 4}, {0, 0, 0}, 2);
        test::addBox(two, "rx", {12, 10, 4}, {0, 0, 0}, 3);
        const auto pasted = pasteClip(two, *clipOf(one, {"rx"}), {0, 30, 0}, nullptr);
        QVERIFY(bool(pasted));
        QCOMPARE(pasted->types->size(), std::size_t(2));
        QVERIFY(pasted->parts[0].type != pasted->parts[1].type);
    }
    void upsideDownKeepsWhatStandsOnItsPlate() {
        Build build = test::bareQuad();
        PartType type;
        type.id = "pack-type";
        type.solids = {test::solidBox({60, 30, 30}, {0, 0, 15})}; // its origin lies at its foot
        build.types.edit([&](TypeTable &table) { table[type.id] = type; });
        Part part;
        part.id = "pack";
        part.type = type.id;
        part.placement.pose.position_mm = {0, 0, 34};
        build.parts.push_back(part);
        const auto turned = overturnPart(build, "pack");
        QVERIFY(bool(turned));
        QVERIFY(std::abs(partBounds(*turned, turned->parts[0]).min_mm.z() - 34) < 1e-9);
        QVERIFY((framePose(*turned, turned->parts[0]).rotation * Vec3::UnitZ()).z() < -0.999);
        QVERIFY(!overturnPart(build, "nothing"));
    }
    void noCureIsOfferedThatChangesNothingOrBringsAStop_data() {
        QTest::addColumn<QString>("demo");
        for (const char *demo : {"stakewalker", "owlbox-mini", "sedge-tri"}) QTest::newRow(demo) << demo;
    }
    void noCureIsOfferedThatChangesNothingOrBringsAStop() {
        QFETCH(QString, demo);
        auto loaded = loadBuild((WEIGHTAXIS_TEST_DATA "/demos/" + demo.toStdString() + ".waxis").c_str());
        const Build build = loaded->build;
        Analyser before;
        const auto findings = before.update(build).findings;
        const auto stopsOf = [](const std::vector<Finding> &all) {
            std::set<std::string> stops;
            for (const auto &f : all)
                if (f.severity == Severity::stop && !f.accepted()) stops.insert(f.trouble());
            return stops;
        };
        const auto stops = stopsOf(findings);
        CureTester tester(build);
        int offered = 0;
        for (const auto &finding : findings)
            for (const auto &cure : tester.curesOf(finding)) {
                ++offered;
                QVERIFY(!(cure.after == build));
                Analyser after;
                for (const auto &stop : stopsOf(after.update(cure.after).findings))
                    QVERIFY2(stops.contains(stop), (cure.words.text() + " brings " + stop).c_str());
            }
        QVERIFY(offered > 0);
    }
    void aStackThatDoesNotCloseOffersWhatWouldMakeIt() {
        const auto loaded = loadBuild(WEIGHTAXIS_TEST_DATA "/demos/owlbox-mini.waxis");
        Analyser analyser;
        CureTester tester(loaded->build);
        bool any = false;
        for (const auto &finding : analyser.update(loaded->build).findings)
            if (finding.rule == RuleId::stkHeight)
                for (const auto &cure : tester.curesOf(finding)) any |= cure.mends >= 3;
        QVERIFY(any);
    }
};

QTEST_APPLESS_MAIN(TestBuildEdits)
#include "test_build_edits.moc"
