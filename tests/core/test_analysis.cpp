// The incremental analysis always equals a fresh one; general properties of the whole.
#include "core/analysis/analysis.h"
#include "core/base/units.h"
#include "io/report_json/analysis_json.h"
#include "support/builds.h"

using namespace waxis;

namespace {

std::string fresh(const Build &build) {
    Analyser analyser;
    return io::analysisText(build, analyser.update(build));
}

/// One random edit of the kinds that people make.
Build randomEdit(const Build &build, std::mt19937 &random) {
    auto number = [&](double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); };
    const auto &part = build.parts[random() % build.parts.size()];
    switch (random() % 8) {
    case 0: return *shiftPart(build, part.id, {number(-20, 20), number(-20, 20), number(-20, 20)});
    case 1: return *turnPart(build, part.id, Vec3(number(-1, 1), number(-1, 1), 1), number(-180, 180));
    case 2: return *weighPart(build, part.id, random() % 2 ? measuredValue(number(0, 100), number(0, 3)) : Measured{});
    case 3: return *movePart(build, part.id, {{number(-90, 90), number(-40, 40), number(0, 60)}, Quat::Identity()});
    case 4: return *pinPart(build, part.id, !part.pinned);
    case 5: return *chooseProfile(build, random() % 2 ? "sprint" : "range");
    case 6: {
        Analyser analyser;
        const auto &findings = analyser.update(build).findings;
        return findings.empty() ? build : *acceptFinding(build, findings[random() % findings.size()].key(), "so be it");
    }
    default: return random() % 6 ? build : *removePart(build, part.id);
    }
}

} // namespace

class TestAnalysis : public QObject {
    Q_OBJECT

private slots:
    void incrementalEqualsFreshAfterRandomEdits() {
        std::mt19937 random(808);
        Build build = test::stakewalker();
        Analyser analyser;
        analyser.update(build);
        for (int step = 0; step < 120; ++step) {
            build = randomEdit(build, random);
            if (random() % 5 == 0) build = randomEdit(build, random); // two edits at once, as undo may bring
            QVERIFY2(io::analysisText(build, analyser.update(build)) == fresh(build),
                     qPrintable(QString("step %1, seed 808").arg(step)));
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
        const CompoundMass &m = one.derived.balance[0].mass, &n = other.derived.balance[0].mass;
        const Vec3 flip(1, -1, 1);
        QVERIFY((*m.cg_mm - n.cg_mm->cwiseProduct(flip)).norm() < 1e-9);
        const Mat3 reflected = flip.asDiagonal() * n.inertia_gmm2 * flip.asDiagonal();
        QVERIFY((m.inertia_gmm2 - reflected).norm() < 1e-9 * m.inertia_gmm2.norm());
        QCOMPARE(one.counts.stop, other.counts.stop);
        QCOMPARE(one.derived.world->gaps().size(), other.derived.world->gaps().size());
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
        QCOMPARE(derived.balance.size(), build.loadCases.size());
        for (std::size_t i = 0; i < derived.balance.size(); ++i) {
            double sum = 0;
            Vec3 moment = Vec3::Zero();
            for (const auto &row : derived.massRows) {
                const Part *part = findPart(build, row.id);
                if (part && !isAboard(*part, build.loadCases[i])) continue;
                if (row.kind == MassKind::wire && !(row.cases >> i & 1)) continue;
                sum += row.element.mass_g;
                moment += row.element.mass_g * row.element.centroid_mm;
            }
            QVERIFY(std::abs(derived.balance[i].mass.mass_g - sum) < 1e-9);
            QVERIFY((*derived.balance[i].mass.cg_mm - moment / sum).norm() < 1e-9);
        }
        QVERIFY(derived.balance[0].mass.mass_g > derived.balance[1].mass.mass_g + 100); // the camera is off
    }
    void hoverThrustsCarryTheWeight() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const CaseBalance &balance = analyser.update(build).derived.balance[0];
        double sum = 0;
        for (double thrust : balance.hover.thrusts_N) sum += thrust;
        QVERIFY(std::abs(sum - newtonsFromGrams(balance.mass.mass_g)) < 1e-6);
        QVERIFY(balance.hover.thrusts_N.size() == 4);
    }
    void anEmptyBuildIsAnalysedWithoutComplaint() {
        Analyser analyser;
        const Analysis &analysis = analyser.update(Build{});
        QCOMPARE(analysis.counts.stop, 0);
        QCOMPARE(analysis.derived.loadCases.size(), std::size_t(1));
        QVERIFY(!analysis.derived.balance[0].mass.cg_mm);
    }
    void theNearestThingsComeInOrderOncePerThing() {
        const Build build = test::stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const auto fc = std::size_t(findPart(build, "fc") - build.parts.data());
        const auto near = nearestThings(derived, int(fc), 0, 150, 5);
        QCOMPARE(near.size(), std::size_t(5));
        std::set<int> owners;
        for (std::size_t i = 0; i < near.size(); ++i) {
            if (i) QVERIFY(near[i].distance_mm >= near[i - 1].distance_mm);
            owners.insert(derived.traits[near[i].b].owner);
        }
        QCOMPARE(owners.size(), near.size());
    }
};

QTEST_APPLESS_MAIN(TestAnalysis)
#include "test_analysis.moc"
