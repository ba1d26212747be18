// The practice sheet in the real window: limits with notes, schools, own profiles in files, comparison.
#include "app/shell/practice_sheet.h"

#include "core/edits/part_edits.h"
#include "core/rules/wording.h"
#include "core/studies/compare.h"
#include "gui/window_fixture.h"

#include <QComboBox>
#include <QLabel>
#include <QTableWidget>

using namespace waxis;
using test::WindowFixture;

namespace {

/// How many findings of a rule are open.
int open(WindowFixture &f, RuleId rule) {
    const auto &all = f.document().analysis().findings;
    return int(
        std::count_if(all.begin(), all.end(), [&](const Finding &x) { return x.rule == rule && !x.accepted(); }));
}

} // namespace

class TestPracticeSheet : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void thePracticeSheetChangesLimitsWithANote() {
        WindowFixture f;
        f.window->showPracticeSheet();
        QTest::qWait(20);
        auto *limits = f.child<QTableWidget>("limits");
        QCOMPARE(limits->rowCount(), int(kLimitCount));
        const int row = int(Limit::cgOffset);
        limits->item(row, 1)->setText("2,5");
        QCOMPARE(f.document().build().practice.limits.at("cg-offset"), 2.5);
        QCOMPARE(f.document().analysis().practice[Limit::cgOffset], 2.5);
        limits->item(row, 6)->setText("a nervous craft");
        QCOMPARE(f.document().build().practice.notes.at("cg-offset"), std::string("a nervous craft"));
        QVERIFY(limits->item(row, 0)->font().bold() || limits->item(row, 0)->font().weight() > QFont::Normal);
        limits->item(row, 1)->setText("much");
        QVERIFY(f.window->notices().text().contains("much"));
        QCOMPARE(limits->item(row, 1)->text(), QString("2.5")); // nothing lost
        limits->item(row, 1)->setText("-3");
        QCOMPARE(f.document().build().practice.limits.at("cg-offset"), 2.5);
        limits->item(row, 1)->setText("");
        QVERIFY(f.document().build().practice.limits.empty());
        QVERIFY(limits->item(row, 4)->text().contains("BAL-1")); // who reads it
    }
    void schoolsBringTheirReasonAndTheirLimit() {
        WindowFixture f;
        f.window->showPracticeSheet();
        auto *balance = f.child<QComboBox>("school-balance");
        const int tight = balance->findData("tight");
        balance->setCurrentIndex(tight);
        emit balance->activated(tight);
        QCOMPARE(f.document().build().practice.schools.at("balance"), std::string("tight"));
        QCOMPARE(f.document().analysis().practice[Limit::cgOffset], 2.0);
        // With the compass out of use only "up" counts for the GPS.
        f.document().select("gps");
        QVERIFY(f.child<QLabel>("angles-to-enter")->text().contains("90.0"));
        auto *compass = f.child<QComboBox>("school-compass");
        const int unused = compass->findData("unused");
        compass->setCurrentIndex(unused);
        emit compass->activated(unused);
        QVERIFY(f.child<QLabel>("angles-to-enter")->text().contains("not used"));
        QCOMPARE(open(f, RuleId::navAngles), 0);
    }
    void ownProfilesGoToAFileAndComeBack() {
        WindowFixture f;
        const QString path = f.folder.filePath("mine.wpractice");
        f.document().edit("limit", setLimit(f.document().build(), "tip-gap", 7.5, "wobbly"));
        f.document().edit("school", setSchool(f.document().build(), "battery", "below"));
        const PracticeSettings mine = f.document().build().practice;
        QVERIFY(f.window->practiceSheet().saveProfile(path));
        f.document().history().undo();
        f.document().history().undo();
        QVERIFY(!(f.document().build().practice == mine));
        QVERIFY(f.window->practiceSheet().readProfile(path));
        QVERIFY(f.document().build().practice == mine);
        QFile broken(path);
        QVERIFY(broken.open(QIODevice::WriteOnly));
        broken.write("{\"format\": \"weightaxis-practice\", \"version\": 1, \"name\": \"x\", \"profile\": \"none\"}");
        broken.close();
        QVERIFY(!f.window->practiceSheet().readProfile(path));
        QVERIFY(f.document().build().practice == mine);
        QVERIFY(f.window->notices().text().contains("mine.wpractice"));
        QVERIFY(!f.window->practiceSheet().saveProfile(f.folder.filePath("no/such/folder/x.wpractice")));
    }
    void twoPracticesAreComparedOnTheBuild() {
        WindowFixture f;
        f.window->showPracticeSheet();
        f.child<QComboBox>("compare-first")->setCurrentIndex(f.child<QComboBox>("compare-first")->findData("range"));
        f.child<QComboBox>("compare-second")->setCurrentIndex(f.child<QComboBox>("compare-second")->findData("lift"));
        f.window->practiceSheet().compare();
        QVERIFY(QTest::qWaitFor([&] { return !f.window->practiceSheet().isComparing(); }, 10000));
        QTest::qWait(20);
        const auto expected =
            comparePractices(f.document().build(), practiceOfProfile("range"), practiceOfProfile("lift"));
        const QString text = f.child<QLabel>("comparison")->text();
        QVERIFY(!expected.comes.empty());
        for (const auto &finding : expected.comes)
            QVERIFY(text.contains(
                QString::fromStdString(wordFinding(f.document().build(), finding).headline.text()).toHtmlEscaped()));
        f.window->setStage(Stage::place);
        QVERIFY(f.window->placeBench().isVisible());
    }
};

QTEST_MAIN(TestPracticeSheet)
#include "test_practice_sheet.moc"
