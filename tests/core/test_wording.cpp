// What the program says: whole sentences, with the number, the limit and the cure.
#include "core/analysis/analysis.h"
#include "core/rules/rule.h"
#include "core/sums/sum.h"
#include "support/builds.h"

using namespace waxis;
using test::addBox;
using test::bareQuad;

namespace {

/// Headline and detail of the first finding of a rule, as one text.
QString said(RuleId rule, const Build &build) {
    Analyser analyser;
    for (const auto &finding : analyser.update(build).findings) {
        if (finding.rule != rule) continue;
        const FindingText text = wordFinding(build, finding);
        return QString::fromStdString(text.headline.text() + " | " + text.detail.text());
    }
    return {};
}

void edit(Build &build, const std::string &part, const std::function<void(PartType &)> &change) {
    build.types.edit([&](TypeTable &table) { change(test::typeIn(table, part)); });
}

Build pair(double gap_mm) {
    Build build = bareQuad();
    addBox(build, "left", {20, 10, 10}, {0, 5 + gap_mm / 2, 0}, 10).name = "Camera";
    addBox(build, "right", {20, 10, 10}, {0, -5 - gap_mm / 2, 0}, 10).name = "Receiver";
    return build;
}

} // namespace

class TestWording : public QObject {
    Q_OBJECT

private slots:
    void overlaps() {
        QCOMPARE(said(RuleId::fitOverlap, pair(-1.5)),
                 QString("Camera and Receiver overlap by 1.5 mm | Moving Camera 1.5 mm left frees it."));
        Build pinned = pair(-1.5);
        pinned.parts[0].pinned = pinned.parts[1].pinned = true;
        QCOMPARE(
            said(RuleId::fitOverlap, pinned),
            QString(
                "Camera and Receiver overlap by 1.5 mm | Both are pinned or belong to the frame; move one of them."));
    }
    void gaps() {
        Build hot = pair(4);
        edit(hot, "left", [](PartType &type) { type.hot = true; });
        edit(hot, "right", [](PartType &type) { type.kind = PartKind::battery; });
        QCOMPARE(
            said(RuleId::fitGap, hot),
            QString(
                "Camera and receiver: 4.0 mm between heat and what it harms | 5.0 mm wanted; move them apart or put an "
                "insulating layer between."));
        Build bare = pair(1);
        edit(bare, "left", [](PartType &type) { type.solids[0].bare = true; });
        edit(bare, "right", [](PartType &type) { type.solids[0].material = "carbon"; });
        QCOMPARE(said(RuleId::fitGap, bare),
                 QString("Bare contacts: Camera is 1.0 mm from receiver | One of them conducts; 2.0 mm "
                         "of air wanted, or an insulator."));
        bare = pair(0);
        edit(bare, "left", [](PartType &type) { type.solids[0].bare = true; });
        edit(bare, "right", [](PartType &type) { type.solids[0].material = "carbon"; });
        QCOMPARE(said(RuleId::fitGap, bare),
                 QString("Bare contacts: Camera touches receiver | One of them conducts: short circuit. "
                         "Raise it by 2.0 mm or insulate it."));
    }
    void propellersComeWithTheirCaution() {
        Build build = bareQuad();
        addBox(build, "mast", {2, 2, 2}, {150, 100, 20}, 1).name = "Mast";
        const QString text = said(RuleId::fitPropZone, build);
        QVERIFY2(text.startsWith("Mast is 9.0 mm inside the front left propeller disc | "), qPrintable(text));
        QVERIFY(text.contains("Propellers off on the bench"));
        QCOMPARE(said(RuleId::fitTipGap, bareQuad(100, 196)),
                 QString("Front left propeller disc and front right propeller disc: 4.0 mm between tips | 5.0 mm "
                         "wanted: longer arms "
                         "or smaller propellers."));
    }
    void balance() {
        Build build = bareQuad();
        addBox(build, "pack", {80, 35, 35}, {8, 0, 30}, 300, PartKind::battery).slide =
            SlideRange{Vec3::UnitX(), -40, 40};
        addBox(build, "rest", {60, 60, 10}, {8, 0, 0}, 300);
        build.parts[0].name = "Pack";
        QCOMPARE(said(RuleId::balOffset, build), QString("Centre of gravity is 8.0 mm too far forward | As drawn: 5.0 "
                                                         "mm allowed; Pack 16.0 mm aft leaves 0.0 mm."));
        build.parts[0].slide.reset();
        QCOMPARE(said(RuleId::balOffset, build),
                 QString("Centre of gravity is 8.0 mm too far forward | As drawn: 5.0 mm allowed."));
    }
    void masses() {
        Build build = bareQuad();
        addBox(build, "mast", {10, 10, 10}, {0, 0, 0}, 0).name = "GPS mast";
        edit(build, "mast", [](PartType &type) { type.mass_g = {}; });
        QCOMPARE(said(RuleId::kitMassUnknown, build),
                 QString("GPS mast has no weight yet | It is missing from all-up weight and "
                         "balance: weigh it and enter the grams."));
    }
    void shiftsAreSaidTheWayTheCraftFaces() {
        QCOMPARE(shiftInWords({1.2, 0, 0}), std::string("1.2 mm forward"));
        QCOMPARE(shiftInWords({-1.25, 3, -0.3}), std::string("1.3 mm aft, 3.0 mm left, 0.3 mm down"));
        QCOMPARE(shiftInWords({0, -0.04, 0.01}), std::string("a hair"));
    }
    void numbersHaveNoMinusNought() {
        QCOMPARE(oneDecimal(-0.04), std::string("0.0"));
        QCOMPARE(oneDecimal(-0.06), std::string("-0.1"));
        QCOMPARE(oneDecimal(12.349), std::string("12.3"));
    }
    void patternsKeepSlotsThatNobodyFills() {
        QCOMPARE(fillPattern("{0} and {1}, {0} again, {7}", {"a", "b"}), std::string("a and b, a again, {7}"));
        QCOMPARE(fillPattern("{", {"a"}), std::string("{"));
        QCOMPARE(fillPattern("{x}", {"a"}), std::string("{x}"));
        QCOMPARE(fillPattern("{0}", {"{1}"}), std::string("{1}")); // arguments are not patterns
    }
    void thingsAreCalledByWhereTheyAre() {
        Build build = bareQuad();
        build.frame.edit([](Frame &frame) {
            frame.arms.push_back(
                {"arm-1", {0, 0, 0}, {90, -90, 0}, 12, 5, ArmSection::bar, 0, "carbon", {}, {}, false, {}, {}});
            frame.plates.push_back(
                {"top", "Top plate", {{0, 0}, {1, 0}, {1, 1}}, {}, {}, 0, 2, "carbon", false, {}, {}});
        });
        QCOMPARE(displayName(build, "arm-1"), std::string("Front right arm"));
        QCOMPARE(displayName(build, "top"), std::string("Top plate"));
        QCOMPARE(displayName(build, "m1"), std::string("Front left propeller disc"));
        QCOMPARE(displayName(build, "nobody"), std::string("nobody"));
    }
    void keysOfFindingsDoNotDependOnNumbers() {
        auto keyAt = [](double gap) {
            Analyser analyser;
            return analyser.update(pair(gap)).findings.at(0).key();
        };
        QCOMPARE(keyAt(-1.5), keyAt(-0.3));
        QCOMPARE(keyAt(-1.5), std::string("FIT-1:left:right"));
    }
};

QTEST_APPLESS_MAIN(TestWording)
#include "test_wording.moc"
