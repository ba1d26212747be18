// What is said of several things alike is said once: who speaks, who stays apart, and that nothing of it is lost.
#include "core/analysis/analysis.h"
#include "core/edits/wire_edits.h"
#include "core/rules/gather.h"
#include "core/rules/name_list.h"
#include "core/rules/wording.h"
#include "support/builds.h"

#include <functional>

using namespace waxis;

namespace {

Finding said(std::vector<std::string> subjects, double measured, double limit = 30,
             Severity severity = Severity::watch) {
    Finding f;
    f.rule = RuleId::wirGauge;
    f.severity = severity;
    f.subjects = std::move(subjects);
    f.measured = measured;
    f.limit = limit;
    f.margin = limit - measured;
    return f;
}

using Names = std::vector<std::string>;

} // namespace

class TestGather : public QObject {
    Q_OBJECT

private slots:
    void theWorstSpeaksAndTheOthersStandBehindIt() {
        std::vector<Finding> list{said({"before"}, 99), said({"a"}, 31.0), said({"b"}, 31.4), said({"c"}, 31.2)};
        gatherAlike(list, 1, 0.5);
        QCOMPARE(list.size(), std::size_t(2)); // what stood before is not touched
        QCOMPARE(list[1].subjects, (Names{"b", "c", "a"}));
        QCOMPARE(*list[1].measured, 31.4);
    }
    void whatDiffersStaysApart() {
        const auto apart = [](const std::function<void(Finding &)> &change) {
            std::vector<Finding> list{said({"a"}, 31), said({"b"}, 31)};
            change(list[1]);
            gatherAlike(list, 0, 0.5);
            return list.size() == 2;
        };
        QVERIFY(!apart([](Finding &) {}));
        QVERIFY(!apart([](Finding &f) { f.measured = 31.5; })); // just within
        QVERIFY(apart([](Finding &f) { f.measured = 31.6; }));
        QVERIFY(apart([](Finding &f) { f.severity = Severity::stop; }));
        QVERIFY(apart([](Finding &f) { f.limit = 29; }));
        QVERIFY(apart([](Finding &f) { f.variant = "burst"; }));
        QVERIFY(apart([](Finding &f) { f.loadCase = "ferry"; }));
        QVERIFY(apart([](Finding &f) { f.severity = Severity::pass; }));
        QVERIFY(apart([](Finding &f) { f.measured.reset(); }));
    }
    void wiresPastTwoDiscsStayApart() {
        // As on a craft that is the same left and right: the distances agree, the discs are two.
        std::vector<Finding> list{said({"w1", "m1"}, 9), said({"w2", "m2"}, 9), said({"w3", "m1"}, 9)};
        auto own = list;
        gatherAlike(list, 0, 1, Share::second);
        QCOMPARE(list.size(), std::size_t(2));
        QCOMPARE(list[0].subjects, (Names{"w1", "m1", "w3"}));
        gatherAlike(own, 0, 1);
        QCOMPARE(own.size(), std::size_t(1));
    }
    void packsThatTakeTurnsAreNamedTogether() {
        // One hot board beside two packs of one size; another board as near to one of them stays by itself.
        std::vector<Finding> list{said({"vtx", "pack"}, 0.4), said({"esc", "pack"}, 0.4), said({"vtx", "long"}, 0.4)};
        gatherAlike(list, 0, 0.1, Share::first);
        QCOMPARE(list.size(), std::size_t(2));
        QCOMPARE(list[0].subjects, (Names{"vtx", "pack", "long"}));
        QCOMPARE(list[1].subjects, (Names{"esc", "pack"}));
    }
    void aFourInOneIsNamedOnceAndItsMotorsEach() {
        std::vector<Finding> list{said({"esc", "m1"}, 31), said({"esc", "m2"}, 31), said({"esc", "m3"}, 31)};
        gatherAlike(list, 0, 0.5);
        QCOMPARE(list[0].subjects, (Names{"esc", "m1", "m2", "m3"}));
        std::vector<Finding> single{said({"e1", "m1"}, 31), said({"e2", "m2"}, 31)};
        gatherAlike(single, 0, 0.5);
        QCOMPARE(single[0].subjects, (Names{"e1", "m1", "e2"}));
    }
    void theDemosSayOnceWhatIsOneThing_data() {
        QTest::addColumn<QString>("demo");
        QTest::addColumn<int>("rule");
        QTest::addColumn<QString>("headline");
        const auto row = [](const char *demo, RuleId rule, const char *headline) {
            QTest::newRow(ruleName(rule).data()) << demo << int(rule) << headline;
        };
        row("owlbox-mini", RuleId::radConnector, "antenna do not go onto digital video unit");
        row("owlbox-mini", RuleId::fitGap, "unit, pack and long pack: 0.4 mm");
        row("sedge-tri", RuleId::lnkCross, "joins TX with TX and RX with RX");
        row("sedge-tri", RuleId::pwrRail, "carries 80 %");
        row("kilnlamp", RuleId::fitMating, "have no room for their plugs");
    }
    void theDemosSayOnceWhatIsOneThing() {
        QFETCH(QString, demo);
        QFETCH(int, rule);
        QFETCH(QString, headline);
        const auto loaded = loadBuild((WEIGHTAXIS_TEST_DATA "/demos/" + demo + ".waxis").toStdString());
        QVERIFY(bool(loaded));
        Analyser analyser;
        QStringList said;
        for (const auto &f : analyseFully(analyser, loaded->build).findings)
            if (int(f.rule) == rule && f.severity != Severity::pass)
                said << QString::fromStdString(wordFinding(loaded->build, f).headline.text());
        QCOMPARE(said.filter(headline).size(), 1);
    }
    void controllersSayForWhomTheyAreTooSmall() {
        // The demo's four-in-one, for less current than its motors take: one sentence with all four motors.
        Build build = test::stakewalker();
        build.types.edit([](TypeTable &types) { types.at("esc4-305").electrical->continuous_A = 20; });
        Analyser analyser;
        std::vector<Finding> found;
        for (const auto &f : analyser.update(build).findings)
            if (f.rule == RuleId::pwrPack && f.variant == "esc") found.push_back(f);
        QCOMPARE(found.size(), std::size_t(1));
        QCOMPARE(found[0].subjects.size(), std::size_t(5));
        const FindingText text = wordFinding(build, found[0]);
        const std::string all = text.headline.text() + " " + text.detail.text();
        for (const char *motor : {"motor-1", "motor-2", "motor-3", "motor-4"})
            QVERIFY2(all.find(nameWithin(build, motor)) != std::string::npos, all.c_str());
        QCOMPARE(all.find("our-in-one ESC"), all.rfind("our-in-one ESC")); // once
    }
    void curesAreDoneForAll() {
        const auto thicker = [](const char *wire) {
            WireChange change;
            change.wire = wire;
            change.gauge_AWG = 18;
            return Fix(std::string(), change);
        };
        std::vector<Finding> list{said({"a"}, 31), said({"b"}, 31), said({"c"}, 31)};
        for (auto &f : list) f.fixes = {thicker(f.subjects[0].c_str())};
        gatherAlike(list, 0, 0.5);
        QCOMPARE(list[0].fixes.size(), std::size_t(1));
        QCOMPARE(list[0].fixes[0].then.size(), std::size_t(2));
        QCOMPARE(list[0].fixes[0].then[1].as<WireChange>()->wire, std::string("c"));
        QCOMPARE(wordFix(Build{}, list[0].fixes[0]).text(), std::string("Use AWG 18 for the 3 wires"));
        // Where one has another number of cures, the worst keeps its own.
        std::vector<Finding> unlike{said({"a"}, 31), said({"b"}, 31)};
        unlike[0].fixes = {thicker("a")};
        gatherAlike(unlike, 0, 0.5);
        QVERIFY(unlike[0].fixes.size() == 1 && unlike[0].fixes[0].then.empty());
    }
    void ofTheSameSubjectsTheGravestStays() {
        std::vector<Finding> list{said({"before"}, 1),
                                  said({"tx", "rx"}, 31),
                                  said({"tx", "gps"}, 40),
                                  said({"tx", "rx"}, 33),
                                  said({"tx", "rx"}, 20, 30, Severity::pass),
                                  said({"tx", "gps"}, 31, 30, Severity::stop)};
        keepGravest(list, 1);
        QCOMPARE(list.size(), std::size_t(3));
        QCOMPARE(*list[1].measured, 33.0);
        QCOMPARE(list[2].severity, Severity::stop);
        std::vector<Finding> none;
        keepGravest(none, 0);
        QVERIFY(none.empty());
    }
    void namesAreListed_data() {
        QTest::addColumn<QStringList>("words");
        QTest::addColumn<QString>("text");
        QTest::newRow("none") << QStringList{} << "";
        QTest::newRow("one") << QStringList{"a"} << "a";
        QTest::newRow("two") << QStringList{"a", "b"} << "a and b";
        QTest::newRow("as many as are shown") << QStringList{"a", "b", "c", "d"} << "a, b, c and d";
        QTest::newRow("one more") << QStringList{"a", "b", "c", "d", "e"} << "a, b, c, d and 1 more";
    }
    void namesAreListed() {
        QFETCH(QStringList, words);
        QFETCH(QString, text);
        Names list;
        for (const auto &word : words) list.push_back(word.toStdString());
        QCOMPARE(QString::fromStdString(listWords(list)), text);
    }
};

QTEST_APPLESS_MAIN(TestGather)
#include "test_gather.moc"
