// Ranks, shifts and medians: published tables, worked examples, coverage by simulation.
#include "core/statistics/ranks.h"

#include <QTest>
#include <cmath>
#include <random>
#include <vector>

using namespace waxis;

namespace {

/// Largest U whose two-sided chance is at most 5 %, with `n` against `m` tries and no ties.
int criticalU(int n, int m) {
    // All of a below b gives U 0; each step up is one pair turned round.
    int critical = -1;
    for (int u = 0; u <= n * m / 2; ++u) {
        // A sample with that U: the pairs are turned round one by one, from the right.
        std::vector<double> a, b;
        int left = u;
        for (int j = 0; j < m; ++j) b.push_back(j + 1);
        for (int i = 0; i < n; ++i) {
            const int over = std::min(left, m);
            left -= over;
            a.push_back(over + 0.5 + 0.001 * i);
        }
        const RankTest test = rankTest(a, b);
        if (std::abs(test.u - u) > 1e-9) return -2;
        if (test.chance <= 0.05) critical = u;
    }
    return critical;
}

} // namespace

class TestStatistics : public QObject {
    Q_OBJECT

private slots:
    void criticalValuesAreThoseOfTheTables_data() {
        QTest::addColumn<int>("n");
        QTest::addColumn<int>("m");
        QTest::addColumn<int>("critical");
        // Two-sided 5 %, as printed in tables of the Mann-Whitney U (Siegel, Nonparametric Statistics 1956, table K;
        // from memory). -1: no U is rare enough.
        const int table[][3] = {{3, 3, -1}, {4, 4, 0},  {5, 5, 2},    {5, 4, 1}, {6, 6, 5},   {7, 7, 8},
                                {8, 8, 13}, {9, 9, 17}, {10, 10, 23}, {8, 5, 6}, {10, 7, 14}, {12, 12, 37}};
        for (const auto &row : table) QTest::addRow("%d against %d", row[0], row[1]) << row[0] << row[1] << row[2];
    }
    void criticalValuesAreThoseOfTheTables() {
        QFETCH(int, n);
        QFETCH(int, m);
        QFETCH(int, critical);
        QCOMPARE(criticalU(n, m), critical);
    }
    void soFewTriesCanTellNothing() {
        // Three against three, apart altogether: 2 of 20 arrangements.
        const std::vector<double> a{1, 2, 3}, b{4, 5, 6};
        const RankTest test = rankTest(a, b);
        QCOMPARE(test.u, 0.0);
        QVERIFY(std::abs(test.chance - 0.1) < 1e-12 && std::abs(test.smallest - 0.1) < 1e-12);
        QVERIFY(test.isExact);
        QCOMPARE(rankTest({}, b).chance, 1.0);
        // All the same: nothing is told.
        const std::vector<double> same{7, 7, 7, 7, 7};
        QCOMPARE(rankTest(same, same).chance, 1.0);
        QCOMPARE(rankTest(same, same).u, 12.5);
    }
    void manyTriesGoOverToTheNormalForm() {
        std::mt19937 random(7);
        std::normal_distribution<double> normal;
        std::vector<double> a, b;
        for (int i = 0; i < 20; ++i) {
            a.push_back(normal(random) + 0.4);
            b.push_back(normal(random));
        }
        const RankTest exact = rankTest(a, b);
        QVERIFY(exact.isExact);
        a.push_back(0.3);
        const RankTest form = rankTest(a, b);
        QVERIFY(!form.isExact);
        QVERIFY(std::abs(form.chance - exact.chance) < 0.05);
        std::vector<double> same(30, 1.0);
        QCOMPARE(rankTest(same, same).chance, 1.0); // no spread at all
    }
    /// What is claimed is kept: 2,000 pairs of samples from a spread with a long tail, shifted by 3.
    void intervalsCoverWhatTheyClaim_data() {
        QTest::addColumn<int>("tries");
        for (const int tries : {4, 6, 8}) QTest::addRow("%d", tries) << tries;
    }
    void intervalsCoverWhatTheyClaim() {
        QFETCH(int, tries);
        std::mt19937 random(20261130);
        std::lognormal_distribution<double> spread(3, 0.5);
        constexpr int kRounds = 2000;
        constexpr double kShift = 3, kConfidence = 0.9, kMedian = 20.085536923187668; // e^3
        int shifts = 0, medians = 0;
        double claimedShift = 0, claimedMedian = 0;
        for (int round = 0; round < kRounds; ++round) {
            std::vector<double> a, b;
            for (int i = 0; i < tries; ++i) {
                a.push_back(spread(random) + kShift);
                b.push_back(spread(random));
            }
            const ShiftEstimate shift = shiftEstimate(a, b, kConfidence);
            const MedianInterval median = medianInterval(b, kConfidence);
            shifts += shift.low <= kShift && kShift <= shift.high;
            medians += median.low <= kMedian && kMedian <= median.high;
            claimedShift = shift.coverage;
            claimedMedian = median.coverage;
        }
        const double three = 3 * std::sqrt(0.1 * 0.9 / kRounds);
        QVERIFY2(std::abs(shifts / double(kRounds) - claimedShift) < three, qPrintable(QString::number(shifts)));
        QVERIFY2(std::abs(medians / double(kRounds) - claimedMedian) < three, qPrintable(QString::number(medians)));
    }
    void oneTryIsItsOwnMedian() {
        const std::vector<double> one{4.5};
        const MedianInterval m = medianInterval(one, 0.95);
        QCOMPARE(m.median, 4.5);
        QCOMPARE(m.low, 4.5);
        QCOMPARE(m.high, 4.5);
        QCOMPARE(m.coverage, 0.0); // and that says nothing
        const ShiftEstimate s = shiftEstimate(one, one, 0.95);
        QCOMPARE(s.shift, 0.0);
        QVERIFY(s.coverage <= 0.0 + 1e-12);
    }
    /// Two strata of two against two: all 36 arrangements by hand-made enumeration.
    void chancesWithinStrataAreThoseOfAllArrangements() {
        const std::vector<Stratum> strata{{{5, 6}, {1, 2}}, {{30, 50}, {40, 20}}};
        int far = 0, all = 0;
        double observed = 0;
        const auto u = [](const std::vector<double> &a, const std::vector<double> &b) {
            double sum = 0;
            for (const double x : a)
                for (const double y : b) sum += x > y;
            return sum;
        };
        for (const auto &stratum : strata) observed += u(stratum.a, stratum.b);
        const std::vector<std::vector<double>> values{{5, 6, 1, 2}, {30, 50, 40, 20}};
        for (int i = 0; i < 16; ++i)
            for (int k = 0; k < 16; ++k) {
                if (__builtin_popcount(unsigned(i)) != 2 || __builtin_popcount(unsigned(k)) != 2) continue;
                double sum = 0;
                for (int s = 0; s < 2; ++s) {
                    std::vector<double> a, b;
                    for (int j = 0; j < 4; ++j)
                        ((s == 0 ? i : k) >> j & 1 ? a : b).push_back(values[std::size_t(s)][std::size_t(j)]);
                    sum += u(a, b);
                }
                ++all;
                far += std::abs(sum - 4) >= std::abs(observed - 4) - 1e-9;
            }
        const RankTest test = rankTestWithin(strata);
        QCOMPARE(all, 36);
        QCOMPARE(test.u, observed);
        QVERIFY(std::abs(test.chance - double(far) / all) < 1e-12);
        // One stratum is the plain test.
        const std::vector<double> a{214, 262, 301, 188, 355}, b{96, 118, 131, 88, 142};
        const RankTest plain = rankTest(a, b), one = rankTestWithin(std::vector<Stratum>{{a, b}, {{1}, {}}});
        QVERIFY(plain.u == one.u && std::abs(plain.chance - one.chance) < 1e-12 && plain.smallest == one.smallest);
        const ShiftEstimate shift = shiftEstimate(a, b, 0.95), within = shiftWithin(std::vector<Stratum>{{a, b}}, 0.95);
        QVERIFY(shift.shift == within.shift && shift.low == within.low &&
                std::abs(shift.coverage - within.coverage) < 1e-12);
    }
    void intervalsWithinStrataCoverWhatTheySay() {
        std::mt19937 random(5);
        std::normal_distribution<double> normal(0, 1);
        int covered = 0;
        double claimed = 0;
        constexpr int kTimes = 2000;
        for (int n = 0; n < kTimes; ++n) {
            std::vector<Stratum> strata(2);
            for (auto &stratum : strata) {
                const double day = 10 * normal(random);
                for (int i = 0; i < 4; ++i) {
                    stratum.a.push_back(day + 1.5 + normal(random));
                    stratum.b.push_back(day + normal(random));
                }
            }
            const ShiftEstimate shift = shiftWithin(strata, 0.95);
            covered += shift.low <= 1.5 && 1.5 <= shift.high;
            claimed += shift.coverage / kTimes;
        }
        QVERIFY2(double(covered) / kTimes > claimed - 0.015 && claimed >= 0.95,
                 QByteArray::number(double(covered) / kTimes));
    }
};

QTEST_APPLESS_MAIN(TestStatistics)
#include "test_statistics.moc"
