// The Kit stage in the real window.
#include "app/stages/kit/own_part_card.h"
#include "app/stages/kit/own_parts_dialog.h"
#include "core/analysis/analysis.h"
#include "core/catalog/connectors.h"
#include "core/kit/kit.h"
#include "core/radio/antennas.h"
#include "core/survey/survey.h"
#include "gui/kit_hands.h"
#include "io/project/project_file.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

using namespace waxis;
using test::cell;
using test::readList;
using test::type;
using test::WindowFixture;

class TestKitStage : public QObject {
    Q_OBJECT

private slots:
    void partsAreCountedAndWeighedAndTheBalanceFollows() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        const QString before = f.axisText();
        QVERIFY(!findKitEntry(f.document().build(), "acam-134")->mass_g.value); // counted, not weighed
        type(bench, cell(bench, "acam-134", kit::weighed), "150,5");
        QVERIFY(findKitEntry(f.document().build(), "acam-134"));
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->mass_g.value, 150.5);
        QVERIFY(f.axisText() != before);
        type(bench, cell(bench, "acam-134", kit::weighed), "151,2 +- 0,3 g");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->mass_g.value, 151.2);
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->mass_g.tolerance, 0.3);
        QCOMPARE(bench.model().data(cell(bench, "acam-134", kit::weighed), Qt::EditRole).toString(),
                 QString("151.2 ± 0.3"));
        type(bench, cell(bench, "acam-134", kit::weighed), "-3");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->mass_g.value, 151.2);
        type(bench, cell(bench, "acam-134", kit::inHand), "2");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->inHand, 2);
        QVERIFY(bench.model().data(cell(bench, "acam-134", kit::inHand)).toString().contains("1 spare"));
        type(bench, cell(bench, "acam-134", kit::Column::size), "36 x 62 x 44,5");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->size_mm, Vec3(36, 62, 44.5));
        // Nonsense is refused and said, and nothing is lost.
        type(bench, cell(bench, "acam-134", kit::weighed), "heavy");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->mass_g.value, 151.2);
        QVERIFY(f.window->notices().text().contains("heavy"));
        type(bench, cell(bench, "acam-134", kit::inHand), "1.5");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->inHand, 2);
        f.document().history().setIndex(0);
        QVERIFY(!findKitEntry(f.document().build(), "acam-134")->mass_g.value);
        // The change in flight time is that of the undoing.
        static const QRegularExpression change(", [+\u2212-][0-9]+ s");
        QCOMPARE(f.axisText().remove(change), before);
    }
    void aSurveyThatComesInLeavesTypingAlone() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        const auto index = cell(bench, "acam-134", kit::inHand);
        bench.table().setCurrentIndex(index);
        bench.table().edit(index);
        QLineEdit *editor = nullptr;
        for (auto *candidate : bench.table().findChildren<QLineEdit *>())
            if (candidate->isVisible()) editor = candidate;
        QVERIFY(editor);
        editor->selectAll();
        QTest::keyClicks(editor, "1");
        Analyser analyser;
        f.document().setSurvey(std::make_shared<const Survey>(surveyOf(
            f.document().build(), f.document().analysis().practice, analyser.update(f.document().build()).derived)));
        QApplication::processEvents();
        QTest::keyClicks(editor, "2");
        QCOMPARE(editor->text(), QString("12"));
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents();
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->inHand, 12);
    }
    void aCellThatIsBeingFilledInWhenTheWindowClosesDoesNoHarm() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.table().setCurrentIndex(cell(bench, "acam-134", kit::weighed));
        bench.table().edit(cell(bench, "acam-134", kit::weighed));
        for (auto *editor : bench.table().findChildren<QLineEdit *>())
            if (editor->isVisible()) QTest::keyClicks(editor, "140");
    }
    void ticksAndMarksAreSetByClicking() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        QTest::qWait(30);
        auto &bench = f.window->kitBench();
        auto &model = bench.model();
        const auto tick = cell(bench, "buzzer-12", kit::checked);
        QCOMPARE(model.data(tick, Qt::CheckStateRole).toInt(), int(Qt::Unchecked));
        bench.table().scrollTo(tick);
        const QRect box = bench.table().visualRect(tick);
        QTest::mouseClick(bench.table().viewport(), Qt::LeftButton, {}, QPoint(box.left() + 10, box.center().y()));
        QVERIFY(findKitEntry(f.document().build(), "buzzer-12")->checked);
        QVERIFY(model.setData(cell(bench, "gps-n10c", kit::pins), Qt::Checked, Qt::CheckStateRole));
        QVERIFY(findKitEntry(f.document().build(), "gps-n10c")->pinsConfirmed);
        QVERIFY(!model.data(cell(bench, "buzzer-12", kit::arrow), Qt::CheckStateRole).isValid()); // it has none
    }
    void theListIsFilteredAndCopied() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        const int all = bench.model().rowCount();
        auto *show = bench.findChild<QComboBox *>("kit-show");
        show->setCurrentIndex(show->findData(int(kit::Show::missing)));
        emit show->activated(show->currentIndex());
        QCOMPARE(bench.model().rowCount(), 1);
        QCOMPARE(bench.model().line(0).item, std::string("spacer-m2-5"));
        bench.model().setShow(kit::Show::all);
        auto *find = bench.findChild<QLineEdit *>("kit-find");
        QTest::keyClicks(find, "motor screws");
        QCOMPARE(bench.model().rowCount(), 1);
        find->clear();
        QCOMPARE(bench.model().rowCount(), all);
        const auto table = parseCsv(bench.model().asCsv().toStdString());
        QCOMPARE(int(table.rows.size()), all);
        QVERIFY(table.problems.empty());
        QVERIFY(bench.summary().contains("Weigh next"));
    }
    void choosingARowSelectsItsParts() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.table().setCurrentIndex(cell(bench, "gps-n10c", kit::name));
        QCOMPARE(f.document().selected(), QString("gps"));
    }
    void theListSaysWhichPartsItTakesForTheSame() {
        WindowFixture f;
        auto &page = readList(
            f, "name;count\nBlade CW+;2\nBlade CW-;2\nBlade CW+;1\n\xD0\x9C\xD0\xB0\xD1\x87\xD1\x82\xD0\xB0;1\n");
        const auto *preview = page.findChild<QTableWidget *>("list-preview");
        const auto becomes = [&](int row) { return preview->item(row, preview->columnCount() - 1)->text(); };
        QCOMPARE(preview->rowCount(), 5);
        QVERIFY(becomes(1).endsWith(", new") && becomes(2).endsWith(", new") && becomes(4).endsWith(", new"));
        QVERIFY2(becomes(1) != becomes(2) && becomes(4) != becomes(1) && becomes(4) != becomes(2),
                 qPrintable(becomes(1) + becomes(2) + becomes(4)));
        QCOMPARE(becomes(3), QString("counted with one above"));
    }
    void aKitListIsMappedLookedOverAndTaken() {
        WindowFixture f;
        auto &page =
            readList(f, "Thing;How many;g\r\nHeronby 2807 motor;4;47,7\r\nLost count;some;1\r\nOdd washer;12;0,3\r\n");
        auto &bench = f.window->kitBench();
        QVERIFY(bench.isReadingList());
        // "Thing" and "How many" mean nothing by themselves.
        QVERIFY(page.list().rows.empty());
        auto map = [&](const char *name, KitColumn column) {
            auto *box = page.findChild<QComboBox *>(name);
            box->setCurrentIndex(box->findData(int(column)));
            emit box->activated(box->currentIndex());
        };
        map("column-0", KitColumn::name);
        map("column-1", KitColumn::count);
        QCOMPARE(page.list().rows.size(), std::size_t(2));
        QVERIFY(page.findChild<QLabel *>("list-problems")->text().contains("line 3"));
        const auto *preview = page.findChild<QTableWidget *>("list-preview");
        QStringList becomes;
        for (int row = 1; row < preview->rowCount(); ++row)
            becomes << preview->item(row, preview->columnCount() - 1)->text();
        QCOMPARE(becomes, (QStringList{"motor-2807, in the build", "left out", "odd-washer, new"}));
        QCOMPARE(preview->horizontalHeader()->visualIndex(preview->columnCount() - 1), 0); // seen first
        page.findChild<QPushButton *>("take")->click();
        QVERIFY(!bench.isReadingList());
        QCOMPARE(*findKitEntry(f.document().build(), "motor-2807")->mass_g.value, 47.7);
        QCOMPARE(*findKitEntry(f.document().build(), "odd-washer")->inHand, 12);
        QVERIFY(bench.model().rowOf("odd-washer") >= 0);
        f.document().history().undo();
        QVERIFY(!f.document().build().types->contains("odd-washer"));
    }
};

QTEST_MAIN(TestKitStage)
#include "test_kit_stage.moc"
