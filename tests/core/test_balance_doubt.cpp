// How sure a balance is: chances in a ring, ellipses, draws.
#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/base/units.h"
#include "core/remedies/weigh_advice.h"
#include "core/studies/balance_study.h"
#include "support/balances.h"

#include <boost/math/distributions/non_central_chi_squared.hpp>

using namespace waxis;

class TestBalanceDoubt : public QObject {
    Q_OBJECT

private slots:
    void chancesInTheRingAreThoseOfRayleighAndRice() {
        // Round doubt about the middle: 1 - exp(-R^2 / 2 s^2) (Rayleigh). Off the middle: a non-central chi squared of
        // two degrees of freedom, from Boost.Math.
        for (double sigma : {0.4, 1.7, 6.0})
            for (double radius : {2.0, 5.0}) {
                const Mat2 round = sigma * sigma * Mat2::Identity();
                QVERIFY(std::abs(chanceInRing({0, 0}, round, radius) -
                                 (1 - std::exp(-radius * radius / (2 * sigma * sigma)))) < 1e-5);
                for (const Vec2 &mean : {Vec2(3, 1), Vec2(-6, 0), Vec2(0, 5)}) {
                    const boost::math::non_central_chi_squared rice(2, mean.squaredNorm() / (sigma * sigma));
                    const double wanted = boost::math::cdf(rice, radius * radius / (sigma * sigma));
                    QVERIFY2(std::abs(chanceInRing(mean, round, radius) - wanted) < 1e-4,
                             qPrintable(QString::number(sigma)));
                }
            }
        QCOMPARE(chanceInRing({3, 4}, Mat2::Zero(), 5), 1.0);
        QCOMPARE(chanceInRing({3, 4.1}, Mat2::Zero(), 5), 0.0);
        QCOMPARE(chanceInRing({0, 0}, Mat2::Identity(), 0), 0.0);
        QCOMPARE(chanceInRing({std::nan(""), 0}, Mat2::Identity(), 5), 0.0);
        Mat2 line = Mat2::Zero(); // doubt fore and aft only: a chord of the normal
        line(0, 0) = 4;
        QVERIFY(std::abs(chanceInRing({0, 3}, line, 5) - std::erf(4 / 2.0 / std::sqrt(2.0))) < 1e-9);
    }
    void ellipsesHold95Percent() {
        Mat2 covariance;
        covariance << 4, 1.5, 1.5, 1;
        const DoubtEllipse e = ellipse95(covariance);
        std::mt19937 random(11);
        std::normal_distribution<double> normal;
        const Eigen::LLT<Mat2> root(covariance);
        int inside = 0;
        constexpr int kDraws = 200000;
        const double turn = radiansFromDegrees(e.turn_deg);
        for (int i = 0; i < kDraws; ++i) {
            const Vec2 p = root.matrixL() * Vec2(normal(random), normal(random));
            const double u = (std::cos(turn) * p.x() + std::sin(turn) * p.y()) / e.semiMajor_mm;
            const double v = (-std::sin(turn) * p.x() + std::cos(turn) * p.y()) / e.semiMinor_mm;
            inside += u * u + v * v <= 1;
        }
        // The share of 200,000 draws has a standard deviation of 0.05 %.
        QVERIFY(std::abs(inside / double(kDraws) - 0.95) < 0.002);
    }
    void likePartsAreWrongTogether() {
        // Two motors of 100 g, 2 g in doubt each, at x = 100 and -100, and 200 g surely in the middle: alone their
        // doubts make 2 * (100/400 * 2)^2 = 0.5 mm2; wrong together they cancel out.
        std::vector<UncertainMass> alone{{100, 2, {100, 0, 0}, 0}, {100, 2, {-100, 0, 0}, 0}, {200, 0, {0, 0, 0}, 0}};
        std::vector<UncertainMass> together = alone;
        together[0].group = together[1].group = 0;
        QVERIFY(std::abs(propagate(alone).covariance_mm2(0, 0) - 0.5) < 1e-12);
        QVERIFY(std::abs(propagate(together).covariance_mm2(0, 0)) < 1e-12);
        QVERIFY(std::abs(propagate(alone).sigmaMass_g - std::sqrt(8.0)) < 1e-12);
        QVERIFY(std::abs(propagate(together).sigmaMass_g - 4) < 1e-12);
        // On one side they add up: twice the shift, four times the variance of one, twice that of two alone.
        for (auto *list : {&alone, &together}) (*list)[1].centroid_mm.x() = 100;
        QVERIFY(std::abs(propagate(together).covariance_mm2(0, 0) / propagate(alone).covariance_mm2(0, 0) - 2) < 1e-12);
        // Drawn 100,000 times the same, sure to 0.9 %.
        const DrawnBalance drawn = drawBalance(together, {50, 0}, 5);
        QVERIFY(std::abs(drawn.sigmaMass_g / 4 - 1) < 0.009);
        QVERIFY(std::abs(std::sqrt(drawn.covariance_mm2(0, 0) / propagate(together).covariance_mm2(0, 0)) - 1) < 0.012);
    }
    void theFirstToWeighSpeaksForItsLike() {
        Build build = test::bareQuad();
        for (const auto &[id, x] : {std::pair{"one", 100.0}, {"two", 100.0}, {"other", -100.0}})
            test::addBox(build, id, {10, 10, 10}, {x, 0, 0}, 50);
        build.parts[1].type = build.parts[0].type;
        build.types.edit([](TypeTable &types) { test::typeIn(types, "other").mass_g = catalogueValue(50, 0.5); });
        Analyser analyser;
        const auto advice = [&] {
            const Derived &derived = analyser.update(build).derived;
            return weighAdvice(derived.massRows, derived.balance, 0);
        };
        QCOMPARE(advice().next.size(), std::size_t(2));
        QCOMPARE(advice().next[0].id, std::string("one"));
        QCOMPARE(advice().next[0].pieces, 2);
        double sum = 0;
        for (const auto &next : advice().next) sum += next.share;
        QVERIFY(std::abs(sum - 1) < 1e-9);
        // One of them on the scale is one of its own, the other keeps the catalogue's doubt.
        build.parts[0].mass_g = measuredValue(50, 0.1);
        QCOMPARE(advice().next.size(), std::size_t(2));
        for (const auto &next : advice().next) QCOMPARE(next.pieces, 1);
    }
    void drawsAgreeWithFirstOrder() {
        // 100,000 draws: a standard deviation is sure to 0.22 %, four of those are 0.9 %; second order adds under 1 %
        // at these doubts. The chance within the ring is sure to sqrt(p q / N) = 0.16 %.
        const Build build = test::stakewalker();
        Analyser analyser;
        const Derived &derived = analyser.update(build).derived;
        for (std::size_t c = 0; c < derived.balance.size(); ++c) {
            const CaseBalance &balance = derived.balance[c];
            const auto doubts = doubtsIn(build, derived, c);
            const double ring = balance.offset_mm->head<2>().norm(); // so that about half of them are inside
            const DrawnBalance drawn = drawBalance(doubts, derived.thrustCentre_mm.head<2>(), ring);
            QCOMPARE(drawn.draws, 100000);
            for (int axis = 0; axis < 3; ++axis)
                QVERIFY2(std::abs(std::sqrt(drawn.covariance_mm2(axis, axis) / balance.cgCovariance_mm2(axis, axis)) -
                                  1) < 0.02,
                         qPrintable(QString::number(drawn.covariance_mm2(axis, axis))));
            QVERIFY(std::abs(drawn.sigmaMass_g / (balance.tolerance_g / 2) - 1) < 0.02);
            QVERIFY((drawn.mean_mm - *balance.mass.cg_mm).norm() < 0.02);
            const double first =
                chanceInRing(balance.offset_mm->head<2>(), balance.cgCovariance_mm2.topLeftCorner<2, 2>(), ring);
            QVERIFY2(std::abs(drawn.inside - first) < 0.02,
                     qPrintable(QStringLiteral("%1 %2").arg(drawn.inside).arg(first)));
        }
    }
    void drawsRepeatThemselves() {
        const std::vector<UncertainMass> masses{
            {350, 8, {-10, 0, 50}, 1}, {134, 3, {80, 0, 60}, 0}, {600, 0, {0, 2, 5}, 0}};
        const DrawnBalance one = drawBalance(masses, {0, 0}, 5), two = drawBalance(masses, {0, 0}, 5);
        QCOMPARE(one.inside, two.inside);
        QVERIFY(one.mean_mm == two.mean_mm && one.covariance_mm2 == two.covariance_mm2 && one.cloud_mm == two.cloud_mm);
        DrawSettings other;
        other.seed = 5;
        QVERIFY(drawBalance(masses, {0, 0}, 5, other).mean_mm != one.mean_mm);
        other.draws = 12'345;
        QCOMPARE(drawBalance(masses, {0, 0}, 5, other).draws, 12345);
        QCOMPARE(drawBalance({}, {0, 0}, 5).draws, 0);
        const std::atomic<bool> stop = true;
        QCOMPARE(drawBalance(masses, {0, 0}, 5, {}, &stop).draws, 0);
        // Nothing in doubt: the same place every time.
        const std::vector<UncertainMass> sure{{350, 0, {-10, 0, 50}, 0}};
        const DrawnBalance certain = drawBalance(sure, {0, 0}, 11);
        QVERIFY(certain.covariance_mm2.norm() < 1e-12 && certain.inside == 1);
    }
};

QTEST_GUILESS_MAIN(TestBalanceDoubt)
#include "test_balance_doubt.moc"
