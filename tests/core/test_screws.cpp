// Screws: stock lengths, through and blind, mass. Worked values of the same calculations are in tests/reference.
#include "core/fasteners/screw.h"
#include "core/sums/sum.h"

#include <QtTest>
#include <random>

using namespace waxis;

class TestScrews : public QObject {
    Q_OBJECT

private slots:
    void stockIsTheNextLengthUp() {
        QCOMPARE(*stockLength_mm(8), 8.0);
        QCOMPARE(*stockLength_mm(8.01), 10.0);
        QCOMPARE(*stockLength_mm(0.1 + 0.2 + 7.7), 8.0); // sums of tenths are not whole in binary
        QVERIFY(!stockLength_mm(50.1));
    }
    void motorScrewsThroughAFiveMillimetreArm() {
        // Common practice, no source: M3 through 5 mm of arm into a motor with 3.5 mm of thread to its windings. 6 mm
        // holds by one millimetre only, 8 mm is right, 10 mm reaches the windings.
        const double arm = 5, usable = 3.5, least = 2.5 / 3;
        const BlindScrew screw = blindScrew(arm, 3, least, usable);
        QVERIFY(std::abs(screw.least_mm - 7.5) < 1e-9 && std::abs(screw.most_mm - 8.5) < 1e-9);
        QCOMPARE(*screw.length_mm, 8.0);
        QVERIFY(!blindScrew(arm, 3, least, 2.0).length_mm); // nothing fits: it must not be forced
    }
    void aLongerScrewNeverFitsWhereTheChosenOneIsTheShortest() {
        std::mt19937 random(4);
        std::uniform_real_distribution<double> grip(0, 30), depth(0.5, 12);
        for (int i = 0; i < 2000; ++i) {
            const BlindScrew screw = blindScrew(grip(random), 3, 1.0, depth(random));
            for (const double length : kStockLengths_mm) {
                const bool fits = length >= screw.least_mm && length <= screw.most_mm;
                if (!screw.length_mm) QVERIFY(!fits);
                if (fits) QVERIFY(*screw.length_mm <= length);
            }
        }
    }
    void throughScrewsStandOutByAPitchAtLeast() {
        std::mt19937 random(5);
        std::uniform_real_distribution<double> grip(0.5, 35);
        for (int i = 0; i < 500; ++i) {
            const ThroughScrew screw = throughScrew(grip(random), 0.5, 2.4, 0.5);
            QVERIFY(screw.length_mm && *screw.protrusion_mm >= 0.5 - 1e-9);
        }
        QVERIFY(!throughScrew(60, 0, 2.4, 0.5).length_mm);
    }
    void theThreadsAreaLiesBetweenCoreAndOuterDiameter() {
        for (const auto &thread : threadSizes()) {
            const double d = thread.nominal_mm, area = meanThreadArea_mm2(d, thread.pitch_mm);
            QVERIFY(area > stressArea_mm2(thread) && area < std::acos(-1.0) / 4 * d * d);
        }
        // M3: 2.1 % above the area at the pitch diameter, d - 0.6495 P (ISO 724).
        const double pitch = 3 - 0.6495 * 0.5;
        QVERIFY(std::abs(meanThreadArea_mm2(3, 0.5) / (std::acos(-1.0) / 4 * pitch * pitch) - 1.021) < 0.001);
    }
    void badInputsOfTheSumsAreNamed() {
        const Sum *mass = findSum("screw-mass");
        QVERIFY(mass);
        const auto unknown = calculate(*mass, {{"size", SumValue("M7")}, {"length_mm", SumValue(8.0)}});
        QVERIFY(!unknown);
        QCOMPARE(unknown.error().input, std::string("size"));
        const auto hollow = calculate(
            *mass, {{"size", SumValue("M3")}, {"length_mm", SumValue(0.0)}, {"socket_depth_mm", SumValue(90.0)}});
        QVERIFY(!hollow);
        const auto negative = calculate(
            *findSum("screw-through"),
            {{"grip_mm", SumValue(SumList{SumValue(-1.0)})}, {"nut_mm", SumValue(2.4)}, {"pitch_mm", SumValue(0.5)}});
        QVERIFY(!negative);
        QCOMPARE(negative.error().input, std::string("grip_mm"));
    }
};

QTEST_APPLESS_MAIN(TestScrews)
#include "test_screws.moc"
