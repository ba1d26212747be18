// What was measured of the whole craft against the sum of its parts.
#include "core/analysis/analysis.h"
#include "core/balance/mass_rows.h"
#include "core/balance/reconcile.h"
#include "core/balance/statics.h"
#include "core/derived/all_up.h"
#include "core/edits/balance_edits.h"
#include "support/balances.h"
#include "support/weighings.h"

using namespace waxis;
using test::balancedQuad;
using test::find;

class TestWeighings : public QObject {
    Q_OBJECT

private slots:
    void linesCrossAtTheCentreOfGravity() {
        const auto cg = cgFromLines({{8, 40}, 90}, {{-30, -2}, 0});
        QVERIFY(cg && (*cg - Vec2(8, -2)).norm() < 1e-12);
        const auto slanted = cgFromLines({{5 + 10, 3 + 10}, 45}, {{5 - 7, 3 + 7}, 135});
        QVERIFY(slanted && (*slanted - Vec2(5, 3)).norm() < 1e-12);
        QVERIFY(!cgFromLines({{0, 0}, 90}, {{1, 0}, 90.5}));
        QVERIFY(!cgFromLines({{0, 0}, 0}, {{1, 0}, 180}));
    }
    void agreeingWeighingsAreQuiet() {
        Build build = balancedQuad();
        Analyser analyser;
        const double mass_g = allUp(analyser.update(build).derived).mass_g;
        build.weighings = {test::weighed("w", "Scale", "with", WeighingMethod::total, measuredValue(mass_g + 1, 0.5),
                                         {}, {}, 1, {}, 1)};
        const ReconcileReport &report = *analyser.update(build).derived.reconciled;
        QCOMPARE(report.conditions, 1);
        QVERIFY(!report.contradicts() && report.suspects.empty());
        double moved = 0; // the gram is shared by how doubtful each entry is
        for (const auto &m : report.masses) moved += m.likely_g - m.entered_g;
        QVERIFY(moved > 0.9 && moved <= 1.0001);
        for (const auto &m : report.masses) QVERIFY(m.likelySigma_g <= m.sigma_g + 1e-12);
        QCOMPARE(find(analyser.current(), RuleId::balMeasured)->severity, Severity::pass);
    }
    void aWrongEntryIsFoundByItsLever() {
        // The camera is entered with 40 g and weighs 65: weighed and balanced as it really is.
        const Build truth = balancedQuad(65);
        Build build = balancedQuad(40);
        Analyser analyser;
        const CompoundMass real = allUp(analyser.update(truth).derived);
        build.weighings = {test::weighed("w", "Scale", "with", WeighingMethod::total, measuredValue(real.mass_g, 0.5),
                                         {}, {}, 1, {}, 1),
                           test::weighed("b", "Rod", "with", WeighingMethod::lines, {}, {}, {}, 1,
                                         {{real.cg_mm->head<2>(), 90}, {real.cg_mm->head<2>(), 0}}, 0.5)};
        const ReconcileReport report = analyser.update(build).derived.reconciled;
        QCOMPARE(report.conditions, 3);
        QVERIFY(report.contradicts() && report.decided);
        QCOMPARE(report.suspects.front().id, std::string("camera"));
        QVERIFY(std::abs(report.suspects.front().wouldBe_g - 65) < 1);
        QVERIFY((*report.weighings[1].measured_mm - real.cg_mm->head<2>()).norm() < 1e-9);
        const Finding *finding = find(analyser.current(), RuleId::balMeasured);
        QVERIFY(finding && finding->severity == Severity::watch && finding->variant == "suspect");
        QCOMPARE(finding->subjects.front(), std::string("camera"));
        // The same truth through three scales.
        build.weighings = {test::weighed("s", "Scales", "with", WeighingMethod::scales, {},
                                         {{80, 80}, {80, -80}, {-90, 0}}, {}, 0.5, {}, 0.5)};
        Eigen::Matrix3d a;
        a << 1, 1, 1, 80, 80, -90, 80, -80, 0;
        const Eigen::Vector3d f = a.colPivHouseholderQr().solve(
            Eigen::Vector3d(real.mass_g, real.mass_g * real.cg_mm->x(), real.mass_g * real.cg_mm->y()));
        build.weighings[0].readings_g = {f[0], f[1], f[2]};
        const ReconcileReport scales = analyser.update(build).derived.reconciled;
        QVERIFY((*scales.weighings[0].measured_mm - real.cg_mm->head<2>()).norm() < 1e-9);
        QVERIFY(scales.contradicts());
        QCOMPARE(scales.suspects.front().id, std::string("camera"));
    }
    void theBestFitIsTheLeastSquares() {
        // Against the normal equations, written down independently: minimise d^T P^-1 d + (z - H(m + d))^T R^-1 (...).
        Build build = balancedQuad();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        const double total = allUp(derived).mass_g + 4;
        build.weighings = {
            test::weighed("w", "Scale", "with", WeighingMethod::total, measuredValue(total, 2.0), {}, {}, 1, {}, 1),
            test::weighed("b", "Rod", "with", WeighingMethod::lines, {}, {}, {}, 1, {{{4, 0}, 90}}, 2)};
        const auto rows = derived.massRows;
        const Eigen::Index n = Eigen::Index(rows.size());
        Eigen::MatrixXd h = Eigen::MatrixXd::Zero(2, n);
        Eigen::VectorXd m(n), p(n);
        for (Eigen::Index i = 0; i < n; ++i) {
            const MassRow &row = rows[std::size_t(i)];
            m(i) = row.element.mass_g;
            p(i) = std::pow(row.tolerance_g / 2, 2);
            h(0, i) = 1;
            h(1, i) = row.element.centroid_mm.x() - 4;
        }
        const double predicted = m.sum();
        const Eigen::Vector2d r(total - predicted, -h.row(1).dot(m)), variance(1.0, std::pow(predicted * 1.0, 2));
        Eigen::MatrixXd normal = h.transpose() * variance.cwiseInverse().asDiagonal() * h;
        normal.diagonal() += p.cwiseInverse();
        const Eigen::VectorXd d = normal.ldlt().solve(h.transpose() * variance.cwiseInverse().asDiagonal() * r);
        const ReconcileReport report = analyser.update(build).derived.reconciled;
        for (const auto &mass : report.masses)
            for (Eigen::Index i = 0; i < n; ++i)
                if (rows[std::size_t(i)].id == mass.id)
                    QVERIFY2(std::abs(mass.likely_g - m(i) - d(i)) < 1e-6, mass.id.c_str());
        QVERIFY(report.masses.size() > 3);
    }
    void anUnknownWeightIsSolvedFor() {
        Build build = balancedQuad();
        build.types.edit([](TypeTable &types) { test::typeIn(types, "camera").mass_g = {}; });
        Analyser analyser;
        const double rest = allUp(analyser.update(build).derived).mass_g;
        build.weighings = {test::weighed("w", "Scale", "with", WeighingMethod::total, measuredValue(rest + 42, 0.5), {},
                                         {}, 1, {}, 1)};
        const ReconcileReport report = analyser.update(build).derived.reconciled;
        QCOMPARE(report.masses.front().id, std::string("camera"));
        QVERIFY(!report.masses.front().known && std::abs(report.masses.front().likely_g - 42) < 8);
        QVERIFY(!report.contradicts());
    }
    void unusableWeighingsSayWhy() {
        Build build = balancedQuad();
        build.weighings = {test::weighed("w", "Scale", "with", WeighingMethod::total, {}, {}, {}, 1, {}, 1),
                           test::weighed("s", "Scales", "with", WeighingMethod::scales, {}, {{0, 0}, {1, 0}, {2, 0}},
                                         {100, 100, 100}, 1, {}, 1),
                           test::weighed("b", "Rod", "with", WeighingMethod::lines, {}, {}, {}, 1, {}, 1)};
        Analyser analyser;
        const Analysis &analysis = analyser.update(build);
        QCOMPARE(analysis.derived.reconciled->conditions, 0);
        for (const auto &w : analysis.derived.reconciled->weighings) QVERIFY(!w.problem.empty());
        int unusable = 0;
        for (const auto &f : analysis.findings)
            unusable += f.rule == RuleId::balMeasured && f.severity == Severity::unknown;
        QCOMPARE(unusable, 3);
    }
    void weighingsAreEdited() {
        const Build build = balancedQuad();
        const auto added = addWeighing(build, WeighingMethod::scales, "without");
        QVERIFY(added && added->weighings.size() == 1 && added->weighings[0].readings_g.size() == 3);
        Weighing changed = added->weighings[0];
        changed.readings_g = {100, 110, 120};
        QVERIFY(bool(editWeighing(*added, changed)));
        changed.readings_g[1] = -1;
        QVERIFY(!editWeighing(*added, changed));
        changed.readings_g.pop_back();
        QVERIFY(!editWeighing(*added, changed));
        QVERIFY(!addWeighing(build, WeighingMethod::total, "nowhere") && !removeWeighing(build, "w"));
        QVERIFY(removeWeighing(*added, added->weighings[0].id)->weighings.empty());
        QVERIFY(!addWeightLimit(build, "x", 0) && !editWeightLimit(build, {"x", "x", 5, {}}) &&
                !removeWeightLimit(build, "x"));
        QVERIFY(!leaveOut(build, "without", "camera") &&
                leaveOut(build, "with", "camera")->loadCases[0].aboard.empty());
        QVERIFY(!addBallast(build, Vec3::Zero(), 0));
        QCOMPARE(addBallast(build, Vec3(1, 2, 3), 12)->allowances.front().mass_g.value.value(), 12.0);
    }
};

QTEST_GUILESS_MAIN(TestWeighings)
#include "test_weighings.moc"
