// The incremental analysis always equals a fresh one; general properties of the whole.
#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/base/units.h"
#include "core/clearance/clearance_world.h"
#include "core/derived/all_up.h"
#include "core/edits/part_edits.h"
#include "core/survey/survey.h"
#include "io/report_json/analysis_json.h"
#include "support/any_edit.h"

#include <QDirIterator>
#include <QRegularExpression>

using namespace waxis;
using namespace waxis::test;

namespace {

std::string fresh(const Build &build, std::shared_ptr<const Survey> survey = {}) {
    Analyser analyser;
    if (survey) analyser.setSurvey(std::move(survey));
    return io::analysisText(build, analyser.update(build));
}

} // namespace

class TestAnalysis : public QObject {
    Q_OBJECT

private slots:
    void theListOfEditsIsWhole() {
        std::set<std::string> listed, declared;
        for (const auto &edit : everyEdit()) QVERIFY2(listed.insert(edit.name).second, edit.name);
        const QRegularExpression function("^(?:EditResult|Result<Build, EditError>) (\\w+)\\(",
                                          QRegularExpression::MultilineOption);
        QDirIterator headers(WEIGHTAXIS_TESTS "/../src/core", {"*.h"}, QDir::Files, QDirIterator::Subdirectories);
        while (headers.hasNext()) {
            QFile header(headers.next());
            QVERIFY(header.open(QFile::ReadOnly));
            for (auto at = function.globalMatch(header.readAll()); at.hasNext();)
                declared.insert(at.next().captured(1).toStdString());
        }
        QVERIFY(declared.size() > 100);
        for (const auto &name : declared) QVERIFY2(listed.contains(name), ("not in everyEdit(): " + name).c_str());
        for (const auto &name : listed) QVERIFY2(declared.contains(name), ("gone: " + name).c_str());
    }
    void incrementalEqualsFreshAfterEveryEdit_data() {
        QTest::addColumn<QString>("demo");
        QTest::addColumn<bool>("wired"); // leading wires takes most of the time: one demo has to do
        QTest::newRow("stakewalker") << "stakewalker" << true;
        for (const char *demo : {"kilnlamp", "owlbox-mini", "sedge-tri"}) QTest::newRow(demo) << demo << false;
    }
    void incrementalEqualsFreshAfterEveryEdit() {
        QFETCH(QString, demo);
        QFETCH(bool, wired);
        const auto loaded = loadBuild((WEIGHTAXIS_TEST_DATA "/demos/" + demo + ".waxis").toStdString());
        QVERIFY(bool(loaded));
        Build build = loaded->build;
        if (!wired) build.wires.clear();
        std::mt19937 random(808);
        std::vector<const AnyEdit *> order;
        for (const auto &edit : everyEdit()) order.push_back(&edit);
        std::shuffle(order.begin(), order.end(), random);
        Analyser analyser;
        const Analysis &first = analyser.update(build);
        // Judged by a survey as well: stale after the first edit, and good again when undo brings its build back.
        const auto survey = std::make_shared<const Survey>(surveyOf(build, first.practice, first.derived));
        analyser.setSurvey(survey);
        analyser.update(build);
        std::set<std::string> taken;
        for (const AnyEdit *edit : order) {
            test::Draw draw(build, random);
            const EditResult next = edit->run(build, draw);
            if (!next || *next == build) continue;
            taken.insert(edit->name);
            if (next->parts.size() * 2 < loaded->build.parts.size()) continue; // something has to be left
            build = *next;
            if (random() % 5 == 0) continue; // two edits at once, as undo may bring
            QVERIFY2(io::analysisText(build, analyser.update(build)) == fresh(build, survey),
                     qPrintable(QString("after %1, seed 808").arg(edit->name)));
        }
        QVERIFY2(taken.size() > 70, qPrintable(QString("only %1 of the edits did something").arg(taken.size())));
    }
    void incrementalEqualsFreshAfterDragsAndUndo_data() {
        QTest::addColumn<QString>("demo");
        for (const char *demo : {"stakewalker", "kilnlamp", "owlbox-mini", "sedge-tri"}) QTest::newRow(demo) << demo;
    }
    void incrementalEqualsFreshAfterDragsAndUndo() {
        QFETCH(QString, demo);
        const auto loaded = loadBuild((WEIGHTAXIS_TEST_DATA "/demos/" + demo + ".waxis").toStdString());
        QVERIFY(bool(loaded));
        std::mt19937 random(1812);
        std::uniform_real_distribution<double> by(-12, 12);
        Analyser analyser;
        const Analysis &first = analyser.update(loaded->build);
        const auto survey = std::make_shared<const Survey>(surveyOf(loaded->build, first.practice, first.derived));
        analyser.setSurvey(survey);
        Build build = loaded->build;
        for (int round = 0; round < 6; ++round) {
            const Part part = build.parts[random() % build.parts.size()];
            analyser.setHurry(true);
            for (int step = 0; step < 3; ++step) { // whatever the drag passes leaves nothing behind
                const auto next = shiftPart(build, part.id, Vec3(by(random), by(random), by(random)));
                if (next) analyser.update(build = *next);
            }
            analyser.setHurry(false);
            QVERIFY2(io::analysisText(build, analyser.update(build)) == fresh(build, survey),
                     qPrintable(QString("%1 dragged, round %2, seed 1812").arg(part.id.c_str()).arg(round)));
            if (round % 2) { // taken back: the survey holds again
                build = loaded->build;
                QVERIFY2(io::analysisText(build, analyser.update(build)) == fresh(build, survey),
                         qPrintable(QString("%1 put back, round %2").arg(part.id.c_str()).arg(round)));
                QVERIFY(!analyser.current().derived.surveyStale);
            }
        }
    }
    void analysisDoesNotDependOnWhatWasOpenBefore() {
        Analyser analyser;
        analyser.update(test::bareQuad());
        const Build build = test::stakewalker();
        QVERIFY(io::analysisText(build, analyser.update(build)) == fresh(build));
    }
    void aMirroredBuildBalancesMirrored() {
        std::mt19937 random(4);
        std::uniform_real_distribution<double> place(-90, 90), angle(-180, 180);
        Build build = test::bareQuad(), mirrored = test::bareQuad();
        for (int i = 0; i < 30; ++i) {
            const auto id = "p" + std::to_string(i);
            const Vec3 at(place(random), place(random), place(random)), size(10 + i, 5, 8);
            const RollPitchYaw turn{angle(random), angle(random) / 2.1, angle(random)};
            test::addBox(build, id, size, at, 3 + i).placement.pose.rotation = quaternionFrom(turn);
            // A mirror across the centre plane turns roll and yaw the other way.
            test::addBox(mirrored, id, size, {at.x(), -at.y(), at.z()}, 3 + i).placement.pose.rotation =
                quaternionFrom({-turn.roll_deg, turn.pitch_deg, -turn.yaw_deg});
        }
        Analyser a, b;
        const Analysis &one = a.update(build), &other = b.update(mirrored);
        const CompoundMass &m = allUp(one.derived), &n = allUp(other.derived);
        const Vec3 flip(1, -1, 1);
        QVERIFY((*m.cg_mm - n.cg_mm->cwiseProduct(flip)).norm() < 1e-9);
        const Mat3 reflected = flip.asDiagonal() * n.inertia_gmm2 * flip.asDiagonal();
        QVERIFY((m.inertia_gmm2 - reflected).norm() < 1e-9 * m.inertia_gmm2.norm());
        QCOMPARE(one.counts.stop, other.counts.stop);
        QCOMPARE(one.derived.scene.world->gaps().size(), other.derived.scene.world->gaps().size());
    }
    void movingAPartFarAwayAddsNoOverlap() {
        const Build build = test::stakewalker();
        Analyser analyser;
        auto overlaps = [](const Analysis &analysis) {
            return std::count_if(analysis.findings.begin(), analysis.findings.end(),
                                 [](const Finding &f) { return f.rule == RuleId::fitOverlap; });
        };
        const auto before = overlaps(analyser.update(build));
        for (const auto &part : build.parts)
            QVERIFY(overlaps(analyser.update(*movePart(build, part.id, {{0, 0, 5000}, Quat::Identity()}))) <= before);
    }
    void everyLoadCaseSumsItsOwnRows() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        QCOMPARE(allUpCount(derived), build.loadCases.size());
        for (std::size_t i = 0; i < allUpCount(derived); ++i) {
            double sum = 0;
            Vec3 moment = Vec3::Zero();
            for (const auto &row : derived.massRows) {
                const Part *part = findPart(build, row.id);
                if (part && !isAboard(*part, build.loadCases[i])) continue;
                if (row.kind == MassKind::wire && !(row.cases >> i & 1)) continue;
                sum += row.element.mass_g;
                moment += row.element.mass_g * row.element.centroid_mm;
            }
            QVERIFY(std::abs(allUp(derived, i).mass_g - sum) < 1e-9);
            QVERIFY((*allUp(derived, i).cg_mm - moment / sum).norm() < 1e-9);
        }
        QVERIFY(allUp(derived, 0).mass_g > allUp(derived, 1).mass_g + 100); // the camera is off
    }
    void anEmptyBuildIsAnalysedWithoutComplaint() {
        Analyser analyser;
        const Analysis &analysis = analyser.update(Build{});
        QCOMPARE(analysis.counts.stop, 0);
        QCOMPARE(analysis.derived.loadCases.size(), std::size_t(1));
        QVERIFY(!allUp(analysis.derived).cg_mm);
    }
    void theNearestThingsComeInOrderOncePerThing() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const auto fc = std::size_t(findPart(build, "fc") - build.parts.data());
        const auto near = nearestThings(derived.scene, int(fc), 0, 150, 5);
        QCOMPARE(near.size(), std::size_t(5));
        std::set<int> owners;
        for (std::size_t i = 0; i < near.size(); ++i) {
            if (i) QVERIFY(near[i].distance_mm >= near[i - 1].distance_mm);
            owners.insert(derived.scene.traits[near[i].b].owner);
        }
        QCOMPARE(owners.size(), near.size());
    }
};

QTEST_APPLESS_MAIN(TestAnalysis)
#include "test_analysis.moc"
