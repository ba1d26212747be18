// The Kit stage in the real window.
#include "app/stages/kit/kit_bench.h"
#include "gui/window_fixture.h"

#include <QClipboard>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableView>
#include <QTableWidget>

using namespace waxis;
using test::WindowFixture;

class TestKitStage : public QObject {
    Q_OBJECT

    static QModelIndex cell(kit::KitBench &bench, const char *item, int column) {
        return bench.model().index(bench.model().rowOf(item), column);
    }
    /// Types into a cell as a person does.
    static void type(kit::KitBench &bench, const QModelIndex &index, const QString &text) {
        bench.table().setCurrentIndex(index);
        bench.table().edit(index);
        QLineEdit *editor = nullptr; // one that was closed may still be there
        for (auto *candidate : bench.table().findChildren<QLineEdit *>())
            if (candidate->isVisible()) editor = candidate;
        QVERIFY(editor);
        editor->selectAll();
        QTest::keyClicks(editor, text);
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents(); // the table takes the text over when the key is done
    }

private slots:
    void partsAreCountedAndWeighedAndTheBalanceFollows() {
        WindowFixture f;
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        const QString before = f.axisText();
        type(bench, cell(bench, "acam-134", kit::weighed), "150,5");
        QVERIFY(findKitEntry(f.document().build(), "acam-134"));
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->mass_g.value, 150.5);
        QVERIFY(f.axisText() != before);
        type(bench, cell(bench, "acam-134", kit::inHand), "2");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->inHand, 2);
        QVERIFY(bench.model().data(cell(bench, "acam-134", kit::inHand)).toString().contains("1 spare"));
        type(bench, cell(bench, "acam-134", kit::Column::size), "36 x 62 x 44,5");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->size_mm, Vec3(36, 62, 44.5));
        // Nonsense is refused and said, and nothing is lost.
        type(bench, cell(bench, "acam-134", kit::weighed), "heavy");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->mass_g.value, 150.5);
        QVERIFY(f.window->notices().text().contains("heavy"));
        type(bench, cell(bench, "acam-134", kit::inHand), "1.5");
        QCOMPARE(*findKitEntry(f.document().build(), "acam-134")->inHand, 2);
        f.document().history().setIndex(0);
        QVERIFY(!findKitEntry(f.document().build(), "acam-134"));
        QCOMPARE(f.axisText(), before);
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
        bench.model().setShow(kit::Show::missing);
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
    void aKitListIsMappedLookedOverAndTaken() {
        WindowFixture f;
        QFile csv(f.folder.filePath("list.csv"));
        QVERIFY(csv.open(QIODevice::WriteOnly));
        csv.write("Thing;How many;g\r\nHeronby 2807 motor;4;47,7\r\nLost count;some;1\r\nOdd washer;12;0,3\r\n");
        csv.close();
        f.window->setStage(Stage::kit);
        auto &bench = f.window->kitBench();
        bench.readList(csv.fileName());
        QVERIFY(bench.isReadingList());
        auto &page = bench.listPage();
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
