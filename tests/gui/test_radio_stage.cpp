// The Radio bench with mouse and keys: read a cell, turn an antenna, change a channel, try a place for the compass.
#include "app/stages/place/place_view.h"
#include "app/stages/radio/radio_bench.h"
#include "core/radio/antennas.h"
#include "core/radio/radio_report.h"
#include "core/remedies/radio_help.h"
#include "core/survey/survey.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStandardPaths>
#include <QTableWidget>
#include <QToolButton>

using namespace waxis;
using namespace waxis::test;

namespace {

radio::RadioBench &bench(WindowFixture &f) {
    f.window->setStage(Stage::radio);
    QTest::qWait(30);
    return f.window->radioBench();
}

void settle(WindowFixture &f) { QTRY_VERIFY_WITH_TIMEOUT(f.document().isSurveyed(), 8000); }

int count(WindowFixture &f, RuleId rule) {
    int n = 0;
    for (const auto &finding : f.document().analysis().findings) n += finding.rule == rule;
    return n;
}

QString shownSum(WindowFixture &f) { return f.window->findChild<QLabel *>("pair-sum")->text(); }

} // namespace

class TestRadioStage : public QObject {
    Q_OBJECT

private slots:
    void aCellOpensItsWholeSum() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(!f.window->findChild<QWidget *>("pair-card")->isVisible());
        const QRectF cell = b.matrix().cellOf("vtx", "rx");
        QVERIFY(cell.isValid());
        QTest::mouseClick(&b.matrix(), Qt::LeftButton, {}, cell.center().toPoint());
        QVERIFY(f.window->findChild<QWidget *>("pair-card")->isVisible());
        QVERIFY(f.window->findChild<QLabel *>("pair-title")->text().contains("Video transmitter"));
        for (const char *line : {"free-space form", "shadow", "arrives", "noise floor", "floor rises by"})
            QVERIFY2(shownSum(f).contains(line), line);
        QCOMPARE(f.document().selection(), (QStringList{"vtx", "rx"}));
        // Its own link says so and opens nothing.
        QTest::mouseClick(&b.matrix(), Qt::LeftButton, {}, b.matrix().cellOf("rx", "rx").center().toPoint());
        QCOMPARE(f.document().radioPair().from, QString("vtx"));
        // Choosing anything else ends it.
        f.document().select("fc");
        QVERIFY(!f.window->findChild<QWidget *>("pair-card")->isVisible());
    }
    void theMatrixGoesByKeys() {
        WindowFixture f;
        auto &b = bench(f);
        b.matrix().setFocus();
        f.document().lookAtPair({"vtx", "rx"});
        QTest::keyClick(&b.matrix(), Qt::Key_Right);
        QCOMPARE(f.document().radioPair().to, QString("gps"));
        QTest::keyClick(&b.matrix(), Qt::Key_Down);
        QCOMPARE(f.document().radioPair().from, QString("rx"));
        QTest::keyClick(&b.matrix(), Qt::Key_Left); // its own link is passed over: nothing there
        QCOMPARE(f.document().radioPair().to, QString("gps"));
    }
    void turningAnAntennaChangesItsCell() {
        WindowFixture f;
        auto &b = bench(f);
        const QStringList before = b.matrix().textOf("rx", "gps");
        QCOMPARE(before.size(), 3);
        f.window->setStage(Stage::place);
        f.document().select("rxant-r");
        f.plan().setFocus();
        QTest::keyClick(&f.plan(), Qt::Key_E);
        QVERIFY(f.document().history().canUndo());
        b.showPage(radio::Page::matrix);
        f.window->setStage(Stage::radio);
        const QStringList after = b.matrix().textOf("rx", "gps");
        QVERIFY2(after != before, qPrintable(after.join(" ")));
        f.document().history().undo();
        QCOMPARE(b.matrix().textOf("rx", "gps"), before);
    }
    void anotherChannelEndsAMix() {
        WindowFixture f;
        auto &b = bench(f);
        const auto mixesOf = [&] {
            const RadioReport &report = *f.document().analysis().derived.radio;
            return std::count_if(report.mixes.begin(), report.mixes.end(), [&](const MixProduct &m) {
                return report.radios[std::size_t(m.first)].part == "acam" &&
                       report.radios[std::size_t(m.second)].part == "vtx";
            });
        };
        QCOMPARE(mixesOf(), 1); // 2 x 2437 - 5740 = -866
        f.document().select("vtx");
        auto *channel = f.window->findChild<QComboBox *>("radio-channel");
        QVERIFY(channel && channel->isVisible());
        QCOMPARE(channel->currentText(), QString("3: 5740 MHz"));
        channel->setFocus();
        QTest::keyClick(channel, Qt::Key_Down);
        QCOMPARE(*settingOf(f.document().build(), "vtx", 0).centre_MHz, 5780.0);
        QCOMPARE(mixesOf(), 0);
        f.document().history().undo();
        QCOMPARE(mixesOf(), 1);
        // The ring of a product opens the pair that it belongs to.
        for (std::size_t m = 0; m < f.document().analysis().derived.radio->mixes.size(); ++m) {
            const QPointF ring = b.ladder().ringOfMix(m);
            QVERIFY(!ring.isNull());
            QVERIFY(b.ladder().tipAt(ring).contains("MHz"));
        }
        QTest::mouseClick(&b.ladder(), Qt::LeftButton, {}, b.ladder().ringOfMix(0).toPoint());
        QVERIFY(!f.document().radioPair().from.isEmpty());
        QVERIFY(shownSum(f).contains("products"));
    }
    void powerIsTypedInMilliwatts() {
        WindowFixture f;
        bench(f);
        f.document().select("vtx");
        auto *power = f.window->findChild<QLineEdit *>("radio-power");
        QVERIFY(power->isVisible());
        power->setFocus();
        power->selectAll();
        QTest::keyClicks(power, "25");
        QTest::keyClick(power, Qt::Key_Return);
        QVERIFY(std::abs(*settingOf(f.document().build(), "vtx", 0).power_dBm - 13.979) < 0.001);
        power->selectAll();
        QTest::keyClicks(power, "much");
        QTest::keyClick(power, Qt::Key_Return);
        QVERIFY(std::abs(*settingOf(f.document().build(), "vtx", 0).power_dBm - 13.979) < 0.001);
        QVERIFY(f.window->notices().text().contains("much"));
    }
    void helpComesWhenTheSurveyIsIn() {
        WindowFixture f;
        bench(f);
        f.document().lookAtPair({"vtx", "gps"});
        auto *card = f.window->findChild<QWidget *>("pair-card");
        settle(f);
        QTRY_VERIFY(!card->findChildren<QPushButton *>().isEmpty());
    }
    void helpIsOfferedAndTaken() {
        WindowFixture f;
        bench(f);
        settle(f);
        const auto &survey = f.document().analysis().derived.survey;
        QVERIFY(survey && !survey->radioHelp.empty());
        const PairHelp *curable = nullptr;
        for (const auto &pair : survey->radioHelp)
            if (!pair.helps.empty()) curable = &pair;
        QVERIFY(curable);
        f.document().lookAtPair({QString::fromStdString(curable->sender), QString::fromStdString(curable->listener)});
        QTest::qWait(30); // laid out
        const auto buttons = f.window->findChild<QWidget *>("pair-card")->findChildren<QPushButton *>();
        QVERIFY(!buttons.isEmpty());
        const Build before = f.document().build();
        QVERIFY2(buttons.first()->isVisible() && buttons.first()->width() > 20, qPrintable(buttons.first()->text()));
        const QString words = buttons.first()->text(); // the button goes with the help that was taken
        QTest::mouseClick(buttons.first(), Qt::LeftButton);
        QVERIFY2(!(f.document().build() == before), qPrintable(words + f.window->notices().text()));
        f.document().history().undo();
        QVERIFY(f.document().build() == before);
    }
    void aGhostCompassTellsWhatItWouldFeel() {
        WindowFixture f;
        auto &b = bench(f);
        b.showPage(radio::Page::compass);
        auto &map = b.compass().map();
        QTRY_VERIFY_WITH_TIMEOUT(map.isSettled(), 8000);
        QVERIFY(b.compass().facts().contains("thought of"));
        const QPoint at = map.pixel(Vec3(0, 0, map.height_mm())).toPoint();
        QTest::mouseClick(map.viewport(), Qt::LeftButton, {}, at);
        QVERIFY(map.ghost().has_value());
        QVERIFY(map.ghost()->head<2>().norm() < 3);
        QVERIFY(b.compass().facts().contains("Here"));
        const double high = map.ghostReport()->full_deg;
        QVERIFY(high > 0);
        // Farther up it feels less.
        map.setHeight(map.height_mm() + 120);
        QVERIFY(map.ghostReport()->field.full_uT > 0);
        QVERIFY(map.ghostReport()->full_deg < std::max(high, 179.0));
        // An arrow key moves it by a millimetre.
        const double x = map.ghost()->x();
        QTest::keyClick(&map, Qt::Key_Right);
        QVERIFY(std::abs(map.ghost()->x() - x - 1) < 1e-9);
        const auto trials = f.document().build().trials.size();
        QTest::mouseClick(f.window->findChild<QToolButton *>("keep-place"), Qt::LeftButton);
        QCOMPARE(f.document().build().trials.size(), trials + 1);
        QVERIFY(!map.ghost());
        f.document().history().undo();
        QCOMPARE(f.document().build().trials.size(), trials);
    }
    void placesStandSideBySide() {
        WindowFixture f;
        auto &b = bench(f);
        b.showPage(radio::Page::places);
        QTRY_COMPARE_WITH_TIMEOUT(b.places().table().rowCount(), 3, 15000);
        QCOMPARE(b.places().table().item(0, 0)->text(), QString("where it is"));
        QVERIFY(b.places().table().item(1, 0)->text().startsWith("Tall mast"));
        for (int row = 0; row < 3; ++row) // names are whole
            QVERIFY(b.places().table().columnWidth(0) >
                    b.places().table().fontMetrics().horizontalAdvance(b.places().table().item(row, 0)->text()));
        for (int c = 1; c < b.places().table().columnCount(); ++c)
            QVERIFY(!b.places().table().item(1, c)->text().isEmpty());
        b.places().table().selectRow(1);
        const Vec3 there = f.document().build().trials[0].X_FramePart.position_mm;
        QTest::mouseClick(f.window->findChild<QToolButton *>("place-take"), Qt::LeftButton);
        QVERIFY((f.position("gps") - there).norm() < 1e-9);
        f.document().history().undo();
        QTest::mouseClick(f.window->findChild<QToolButton *>("place-add"), Qt::LeftButton);
        QCOMPARE(f.document().build().trials.size(), std::size_t(3));
        QTRY_COMPARE_WITH_TIMEOUT(b.places().table().rowCount(), 4, 15000);
    }
    void theGroundTakesTheSameHand() {
        WindowFixture f;
        auto &b = bench(f);
        QCOMPARE(count(f, RuleId::radHand), 1);
        b.showPage(radio::Page::ground);
        QVERIFY(b.ground().facts().contains("opposite hands"));
        QVERIFY(b.ground().facts().contains("Local law"));
        auto *hand = f.window->findChild<QComboBox *>("ground-polarisation");
        hand->setFocus();
        QTest::keyClick(hand, Qt::Key_Up);
        QCOMPARE(f.document().build().groundStations[0].polarisation, Polarisation::rightCircular);
        QCOMPARE(count(f, RuleId::radHand), 0);
        auto *distance = f.window->findChild<QLineEdit *>("ground-distance");
        distance->setFocus();
        distance->selectAll();
        QTest::keyClicks(distance, "300");
        QTest::keyClick(distance, Qt::Key_Return);
        QCOMPARE(f.document().build().groundStations[0].distance_m, 300.0);
        QVERIFY(b.ground().facts().contains("300 m"));
        auto *add = f.window->findChild<QComboBox *>("ground-add");
        add->setFocus();
        QTest::keyClick(add, Qt::Key_Down);
        QCOMPARE(f.document().build().groundStations.size(), std::size_t(3));
        QTest::mouseClick(f.window->findChild<QToolButton *>("ground-remove"), Qt::LeftButton);
        QCOMPARE(f.document().build().groundStations.size(), std::size_t(2));
    }
    void coverageNamesTheWeakestDirection() {
        WindowFixture f;
        auto &b = bench(f);
        settle(f);
        b.showPage(radio::Page::coverage);
        QTRY_VERIFY(b.coverage().facts().contains("Weakest"));
        auto *which = f.window->findChild<QComboBox *>("coverage-of");
        QVERIFY(which->count() >= 4); // two antennas and the better of them, and the transmitter's
        const QString first = b.coverage().facts();
        which->setFocus();
        QTest::keyClick(which, Qt::Key_Down);
        QVERIFY(b.coverage().facts() != first);
    }
    void theDrawingsAreLookedAtClosely() {
        WindowFixture f;
        settle(f);
        f.window->setStage(Stage::radio);
        auto &bench = f.window->radioBench();
        const auto wheel = [](QWidget &widget, const QPointF &at) {
            QWheelEvent event(at, widget.mapToGlobal(at.toPoint()), {}, QPoint(0, 480), Qt::NoButton, Qt::NoModifier,
                              Qt::NoScrollPhase, false);
            QApplication::sendEvent(&widget, &event);
        };
        // The ladder along its frequencies.
        auto &ladder = bench.ladder();
        ladder.setFocus();
        const double low = ladder.lowest_MHz(), high = ladder.highest_MHz(), x = ladder.xOf(2400);
        wheel(ladder, QPointF(x, 40));
        QVERIFY(ladder.lowest_MHz() > low && ladder.highest_MHz() < high);
        QVERIFY(std::abs(ladder.xOf(2400) - x) < 1e-6);
        QTest::keyClick(&ladder, Qt::Key_0);
        QVERIFY(std::abs(ladder.lowest_MHz() - low) < 1e-9 && std::abs(ladder.highest_MHz() - high) < 1e-9);
        QTest::keyClick(&ladder, Qt::Key_Tab); // the first product
        const auto pair = f.document().radioPair();
        QVERIFY(!pair.from.isEmpty());
        QTest::keyClick(&ladder, Qt::Key_Z);
        QVERIFY(ladder.highest_MHz() / ladder.lowest_MHz() < 1.2);
        f.window->actions().action("fit")->trigger();
        QVERIFY(std::abs(ladder.highest_MHz() - high) < 1e-9);
        for (int i = 0; i < 50 && ladder.hasFocus(); ++i) QTest::keyClick(&ladder, Qt::Key_Tab);
        QVERIFY(!ladder.hasFocus());
        // The globe.
        bench.showPage(radio::Page::coverage);
        auto &globe = bench.coverage().globe();
        globe.setFocus();
        wheel(globe, QPointF(100, 100));
        QVERIFY(globe.magnified() > 1.5);
        QTest::keyClick(&globe, Qt::Key_0);
        QCOMPARE(globe.magnified(), 1.0);
        f.window->actions().action("zoom")->trigger();
        QVERIFY(globe.magnified() > 1);
        auto *which = f.window->findChild<QComboBox *>("coverage-of");
        which->setCurrentIndex(0);
        QTest::keyClick(&globe, Qt::Key_Tab);
        QCOMPARE(which->currentIndex(), 1);
        // The map of the field: Tab thinks of a compass at each place that there is.
        bench.showPage(radio::Page::compass);
        auto &map = bench.compass().map();
        map.setFocus();
        QTest::keyClick(&map, Qt::Key_0);
        const double whole = map.pixelsPerMm();
        QTest::keyClick(&map, Qt::Key_Tab);
        const auto &compasses = f.document().analysis().derived.radio->compasses;
        QVERIFY(map.ghost() && (*map.ghost() - compasses.front().position_mm).norm() < 1e-9);
        QTest::keyClick(&map, Qt::Key_Z);
        QVERIFY(map.pixelsPerMm() > whole);
        QVERIFY(QLineF(map.pixel(*map.ghost()), QPointF(map.viewport()->rect().center())).length() < 3);
    }
    void findingsLeadToTheRightPage() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(b.reveal({"vtx", "gps"}, RuleId::radNoise));
        QCOMPARE(f.document().radioPair().from, QString("vtx"));
        QVERIFY(b.reveal({"buzzer", "gps"}, RuleId::radNoise));
        QVERIFY(b.compass().isVisible());
        QVERIFY(b.reveal({"vtx", "ground-video"}, RuleId::radNoise));
        QVERIFY(b.ground().isVisible());
        QVERIFY(!b.reveal({"fc"}, RuleId::radNoise));
    }
    void theFieldStudyRunsBesideTheWindow() {
        WindowFixture f;
        auto &b = bench(f);
        b.showPage(radio::Page::study);
        QVERIFY(b.study().facts().contains("segments"));
        auto *run = f.window->findChild<QToolButton *>("study-run");
        b.study().setProgram({});
        QVERIFY(!run->isEnabled());
        QVERIFY(f.window->findChild<QLabel *>("study-state")->text().contains("nec2c"));
        const QString solver = QStandardPaths::findExecutable("nec2c");
        if (solver.isEmpty()) QSKIP("nec2c is not installed");
        b.study().setProgram(solver);
        auto *most = f.window->findChild<QComboBox *>("study-most");
        QCOMPARE(most->currentData().toInt(), 800);
        QTest::mouseClick(run, Qt::LeftButton);
        QVERIFY(b.study().isRunning());
        f.document().select("fc"); // the window goes on
        QTRY_VERIFY_WITH_TIMEOUT(!b.study().isRunning(), 60000);
        QVERIFY(b.study().result().has_value());
        QVERIFY(b.study().result()->coupling_dB < 0);
        QVERIFY(b.study().facts().contains("quick model"));
        // And is stopped when it takes too long.
        QTest::mouseClick(run, Qt::LeftButton);
        b.study().cancel();
        QTRY_VERIFY_WITH_TIMEOUT(!b.study().isRunning(), 5000);
        QVERIFY(!b.study().result());
    }
    void anEmptyBuildSaysWhatToDo() {
        WindowFixture f;
        auto &b = bench(f);
        Build empty;
        empty.name = "Nothing";
        f.document().show({empty, {}, {}, {}}, {});
        for (const auto page : {radio::Page::matrix, radio::Page::coverage, radio::Page::compass, radio::Page::places,
                                radio::Page::ground, radio::Page::study}) {
            b.showPage(page);
            QTest::qWait(20);
        }
        QVERIFY(b.ground().facts().contains("Nobody listens"));
        QVERIFY(!b.matrix().cellOf("vtx", "rx").isValid());
    }
};

QTEST_MAIN(TestRadioStage)
#include "test_radio_stage.moc"
