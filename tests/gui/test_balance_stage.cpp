// The Balance bench with mouse and keys: slide to balance and back, choose a case, lose grams, enter a weighing.
#include "app/stages/balance/balance_bench.h"
#include "app/stages/balance/target_view.h"
#include "core/balance/case_balance.h"
#include "core/balance/reconcile.h"
#include "core/edits/case_edits.h"
#include "core/edits/part_edits.h"
#include "window_fixture.h"

#include <QClipboard>
#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QStandardPaths>
#include <QTableWidget>
#include <QToolButton>

using namespace waxis;
using namespace waxis::test;

namespace {

balance::BalanceBench &bench(WindowFixture &f, balance::Page page = balance::Page::target) {
    f.window->setStage(Stage::balance);
    f.window->balanceBench().showPage(page);
    QTest::qWait(30);
    return f.window->balanceBench();
}

void settle(balance::BalanceBench &b) { QTRY_VERIFY_WITH_TIMEOUT(b.isSettled(), 45000); }

void press(WindowFixture &f, const char *name) {
    auto *button = f.window->findChild<QToolButton *>(name);
    QVERIFY2(button && button->isEnabled(), name);
    QTest::mouseClick(button, Qt::LeftButton);
}

void type(WindowFixture &f, const char *name, const QString &text) {
    auto *field = f.window->findChild<QLineEdit *>(name);
    QVERIFY2(field && field->isVisible(), name);
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, text);
    QTest::keyClick(field, Qt::Key_Return);
    QTest::qWait(10);
}

double offset(WindowFixture &f) { return f.document().balance()->offset_mm->head<2>().norm(); }

} // namespace

class TestBalanceStage : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void headingsOfTheCasesAreWhole() {
        WindowFixture f;
        bench(f);
        auto *table = f.window->findChild<QTableWidget *>("case-table");
        QVERIFY(table && table->isVisible());
        const QHeaderView *head = table->horizontalHeader();
        constexpr int kRoom_px = 4; // on either side, as the style draws them
        for (int c = 1; c < table->columnCount(); ++c) {
            const QString words = table->horizontalHeaderItem(c)->text();
            QVERIFY2(head->sectionSize(c) >= head->fontMetrics().horizontalAdvance(words) + 2 * kRoom_px,
                     qPrintable(words));
        }
    }
    void aCaseThatGoesWhileItsRowHasTheKeyboardBreaksNothing() {
        WindowFixture f;
        bench(f);
        auto *table = f.window->findChild<QTableWidget *>("case-table");
        QVERIFY(table && table->isVisible());
        const auto fewer = [&] { return f.document().build().loadCases.size(); };
        QVERIFY(fewer() >= 2);
        table->setFocus();
        QVERIFY(table->hasFocus());
        table->setCurrentCell(table->rowCount() - 1, 0);
        QCOMPARE(f.document().loadCase(), table->rowCount() - 1);
        // Where rows went the table chose another case at once, which filled the table again while it lost its rows.
        while (fewer() > 2) { // two are left: with one the table would choose what is chosen already
            const Build build = f.document().build();
            QVERIFY(f.document().edit("fewer", removeLoadCase(build, build.loadCases.back().id)));
            QCOMPARE(table->rowCount(), int(f.document().analysis().derived.balance.size()));
            QVERIFY(f.document().loadCase() < table->rowCount());
        }
        const QString few = f.folder.filePath("few.waxis");
        QVERIFY(bool(saveBuild(few.toStdString(), f.document().build())));
        while (f.document().history().canUndo()) f.document().history().undo();
        table->setFocus();
        table->setCurrentCell(table->rowCount() - 1, 0);
        QVERIFY(f.document().loadCase() > 1);
        QVERIFY(f.window->openFile(few));
        QCOMPARE(f.document().loadCase(), 0);
        QCOMPARE(table->rowCount(), int(f.document().analysis().derived.balance.size()));
    }
    void slidesToTheSolvedPlaceAndBack() {
        WindowFixture f;
        auto &b = bench(f);
        const double before = offset(f), x = f.position("pack").x();
        const auto solution = b.target().slide().solution();
        QVERIFY(solution && solution->part == "pack");
        press(f, "slide-solve");
        QVERIFY(std::abs(f.position("pack").x() - x - solution->travel_mm) < 1e-9);
        QVERIFY(std::abs(offset(f) - solution->after_mm.norm()) < 0.1);
        QVERIFY(offset(f) < before - 3);
        QVERIFY2(f.axisText().contains("1.6 mm fore"), qPrintable(f.axisText()));
        QVERIFY(!f.window->findChild<QToolButton *>("slide-solve")->isEnabled()); // it is there
        f.document().history().undo();
        QCOMPARE(f.position("pack").x(), x);
        QVERIFY(std::abs(offset(f) - before) < 1e-9);
        QCOMPARE(findPart(f.document().build(), "pack")->slide->min_mm, -15.0);
    }
    void theLineIsDraggedAndNudged() {
        WindowFixture f;
        auto &b = bench(f);
        auto &line = b.target().slide().line();
        const double x = f.position("pack").x();
        const QPoint from(int(line.xOf(0)), 30), to(int(line.xOf(-8)), 30);
        QTest::mousePress(&line, Qt::LeftButton, {}, from);
        const auto move = [&](const QPoint &at) {
            QMouseEvent event(QEvent::MouseMove, at, line.mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                              Qt::ControlModifier);
            QApplication::sendEvent(&line, &event);
        };
        move((from + to) / 2);
        move(to);
        QVERIFY(f.document().isPreviewing());
        QVERIFY(std::abs(f.position("pack").x() - x + 8) < 0.6);
        QTest::mouseRelease(&line, Qt::LeftButton, {}, to);
        QVERIFY(!f.document().isPreviewing());
        const double there = f.position("pack").x();
        QVERIFY(std::abs(there - x + 8) < 0.6);
        QCOMPARE(f.document().history().undoText(), QString("Slide Survey pack"));
        line.setFocus();
        QTest::keyClick(&line, Qt::Key_Left);
        QVERIFY(std::abs(f.position("pack").x() - there + 1) < 1e-9);
        QTest::keyClick(&line, Qt::Key_Right, Qt::ShiftModifier);
        QVERIFY(std::abs(f.position("pack").x() - there + 0.9) < 1e-9);
        for (int i = 0; i < 5; ++i)
            QTest::keyClick(&line, Qt::Key_Left, Qt::ControlModifier); // to the end and not over it
        QVERIFY(std::abs(f.position("pack").x() - x + 15) < 1e-9);
        // Held and let go by Esc: nothing happened.
        const int steps = f.document().history().count();
        QTest::mousePress(&line, Qt::LeftButton, {}, QPoint(int(line.xOf(0)), 30));
        move(QPoint(int(line.xOf(6)), 30));
        QTest::keyClick(&line, Qt::Key_Escape);
        QVERIFY(!f.document().isPreviewing());
        QVERIFY(std::abs(f.position("pack").x() - x + 15) < 1e-9);
        QCOMPARE(f.document().history().count(), steps);
    }
    void oneplaceForAllCases() {
        WindowFixture f;
        bench(f);
        press(f, "slide-compromise");
        const auto &cases = f.document().analysis().derived.balance;
        QVERIFY(std::abs(cases[0].offset_mm->head<2>().norm() - cases[1].offset_mm->head<2>().norm()) < 0.2);
    }
    void aRowChoosesTheCase() {
        WindowFixture f;
        auto &b = bench(f);
        auto &table = b.target().cases();
        QCOMPARE(table.rowCount(), 3);
        QTest::mouseClick(table.viewport(), Qt::LeftButton, {}, table.visualItemRect(table.item(1, 2)).center());
        QCOMPARE(f.document().loadCase(), 1);
        QCOMPARE(f.window->findChild<QComboBox *>("load-case")->currentIndex(), 1);
        QVERIFY(f.axisText().startsWith("950"));
        table.setFocus();
        QTest::keyClick(&table, Qt::Key_Down);
        QCOMPARE(f.document().loadCase(), 2);
        QCOMPARE(b.target().slide().part(), std::string("pack-small")); // the one that flies then
        QTest::keyClick(&table, Qt::Key_C, Qt::ControlModifier);
        QVERIFY(QGuiApplication::clipboard()->text().contains("\"Survey, camera aboard\",1085"));
        // A point of the target does the same.
        const auto &first = f.document().analysis().derived.balance[0];
        QTest::mouseClick(&b.target().target(), Qt::LeftButton, {},
                          b.target().target().toPixels(first.offset_mm->head<2>()).toPoint());
        QCOMPARE(f.document().loadCase(), 0);
    }
    void otherWaysAreOfferedAndDone() {
        WindowFixture f;
        auto &b = bench(f);
        settle(b);
        auto *look = f.window->findChild<theme::ChoiceRow *>("or-0");
        QVERIFY(look && look->isVisible());
        QTest::mouseClick(look, Qt::LeftButton);
        QVERIFY(b.target().slide().part() != "pack");
        theme::ChoiceRow *ballast = nullptr;
        for (int i = 0; i < 4 && !ballast; ++i)
            if (auto *row = f.window->findChild<theme::ChoiceRow *>(QStringLiteral("or-%1").arg(i));
                row->isVisible() && row->look().text.contains("ballast"))
                ballast = row;
        QVERIFY(ballast);
        QTest::mouseClick(ballast, Qt::LeftButton);
        QVERIFY(offset(f) <= 5.01);
        QCOMPARE(f.document().build().allowances.back().name, std::string("Ballast"));
        f.document().history().undo();
        QVERIFY(offset(f) > 6);
    }
    void thrustIsEntered() {
        WindowFixture f;
        auto &b = bench(f);
        QCOMPARE(b.target().thrusts().bars().size(), std::size_t(4));
        type(f, "motor-thrust", "1100");
        QVERIFY(std::abs(*f.document().balance()->thrustToWeight - 4400 / f.document().balance()->mass.mass_g) < 1e-9);
        type(f, "motor-thrust", "plenty");
        QVERIFY(f.window->notices().text().contains("no thrust"));
        QVERIFY(std::abs(*f.document().balance()->thrustToWeight - 4400 / f.document().balance()->mass.mass_g) < 1e-9);
    }
    void aPartIsToldHowFarItMaySlide() {
        WindowFixture f;
        bench(f);
        f.document().select("gps");
        auto *axis = f.window->findChild<QComboBox *>("slide-axis");
        QVERIFY(axis->isVisible());
        axis->setCurrentIndex(1);
        emit axis->activated(1);
        QVERIFY(findPart(f.document().build(), "gps")->slide);
        type(f, "slide-range", "-20 to 3");
        QCOMPARE(findPart(f.document().build(), "gps")->slide->min_mm, -20.0);
        QCOMPARE(findPart(f.document().build(), "gps")->slide->max_mm, 3.0);
        type(f, "slide-range", "far");
        QVERIFY(f.window->notices().text().contains("no range"));
        QCOMPARE(findPart(f.document().build(), "gps")->slide->min_mm, -20.0);
        QCOMPARE(f.window->balanceBench().target().slide().part(), std::string("gps"));
        f.window->setStage(Stage::place);
        QVERIFY(!axis->isVisible());
    }
    void gramsAreListedLimitedAndLost() {
        WindowFixture f;
        auto &b = bench(f, balance::Page::grams);
        settle(b);
        QCOMPARE(b.grams().table().rowCount(), 20);
        QCOMPARE(b.grams().table().item(0, 0)->text(), QString("Survey pack"));
        QVERIFY(b.grams().asCsv().startsWith("id,name,group,grams"));
        type(f, "limit-name", "Crew");
        type(f, "limit-grams", "1000");
        QCOMPARE(f.document().build().weightLimits.size(), std::size_t(1));
        QCOMPARE(f.document().build().weightLimits[0].name, std::string("Crew"));
        QVERIFY(f.document().build().weightLimits[0].most_g == 1000);
        settle(b);
        auto &savings = b.grams().savings();
        const double before = f.document().balance()->mass.mass_g;
        int row = -1;
        for (int r = 0; r < savings.rowCount(); ++r)
            if (savings.item(r, 0)->text().contains("M3 x 22")) row = r;
        QVERIFY(row >= 0);
        QTest::mouseClick(savings.viewport(), Qt::LeftButton, {},
                          savings.visualItemRect(savings.item(row, 0)).center());
        press(f, "saving-apply");
        QVERIFY(std::abs(before - f.document().balance()->mass.mass_g - 2.6) < 0.1);
        QTest::mouseClick(f.window->findChild<QTableWidget *>("weight-limits")->viewport(), Qt::LeftButton, {},
                          {20, 10});
        press(f, "limit-remove");
        QVERIFY(f.document().build().weightLimits.empty());
    }
    void aPackIsFitted() {
        WindowFixture f;
        auto &b = bench(f, balance::Page::packs);
        QTRY_VERIFY_WITH_TIMEOUT(b.packs().table().rowCount() > 3, 15000);
        auto &table = b.packs().table();
        int row = -1;
        for (int r = 0; r < table.rowCount(); ++r)
            if (table.item(r, 0)->text().contains("6S 1300")) row = r;
        QVERIFY(row >= 0);
        QTest::mouseClick(table.viewport(), Qt::LeftButton, {}, table.visualItemRect(table.item(row, 0)).center());
        const double all = table.item(row, 3)->text().toDouble();
        press(f, "pack-fit");
        QCOMPARE(std::round(f.document().balance()->mass.mass_g), all);
        QCOMPARE(findPart(f.document().build(), "pack")->type, std::string("pack-6s1300"));
        f.document().history().undo();
        QCOMPARE(findPart(f.document().build(), "pack")->type, std::string("pack-6s2200"));
    }
    void propellersAreFittedOnAllMotors() {
        WindowFixture f;
        auto &b = bench(f, balance::Page::propellers);
        QTRY_VERIFY_WITH_TIMEOUT(b.propellers().table().rowCount() > 3, 30000);
        auto &table = b.propellers().table();
        int row = -1, fitted = -1;
        for (int r = 0; r < table.rowCount(); ++r) {
            if (table.item(r, 0)->text().contains("Tern 6 inch two-blade")) row = r;
            if (table.item(r, 0)->text().startsWith(QStringLiteral("•"))) fitted = r;
        }
        QVERIFY(row >= 0 && fitted >= 0);
        QVERIFY(table.item(row, 2)->text().toDouble() != table.item(fitted, 2)->text().toDouble());
        QTest::mouseClick(table.viewport(), Qt::LeftButton, {}, table.visualItemRect(table.item(row, 0)).center());
        const double all = table.item(row, 5)->text().toDouble();
        press(f, "propeller-fit");
        QCOMPARE(std::round(f.document().balance()->mass.mass_g), all);
        int there = 0;
        for (const auto &part : f.document().build().parts) there += part.type == "prop-6";
        QCOMPARE(there, int(f.document().build().frame->motorMounts.size()));
        for (const auto &mount : f.document().build().frame->motorMounts) QCOMPARE(mount.propDiameter_mm, 152.4);
        f.document().history().undo();
        for (const auto &part : f.document().build().parts) QVERIFY(part.type != "prop-6");
    }
    void doubtIsDrawnAndSaid() {
        WindowFixture f;
        auto &b = bench(f, balance::Page::doubt);
        settle(b);
        QVERIFY(b.doubt().facts().contains("100000 draws"));
        QVERIFY(f.window->findChild<QTableWidget *>("weigh-next")->rowCount() > 5);
    }
    void whatTheScaleSaysIsReconciled() {
        WindowFixture f;
        auto &b = bench(f, balance::Page::weighings);
        // The demo was weighed and balanced: the action camera is heavier than its catalogue says.
        QVERIFY(b.weighings().verdict().contains("Suspicious"));
        QVERIFY(b.weighings().verdict().contains("Action camera"));
        Build right = f.document().build();
        const auto weighed = weighPart(right, "acam", measuredValue(158, 0.5));
        f.document().edit("Weigh", weighed);
        QVERIFY(b.weighings().verdict().contains("agrees"));
        f.document().history().undo();
        // A new weighing on one scale, typed in.
        press(f, "add-total");
        QCOMPARE(f.document().build().weighings.size(), std::size_t(3));
        type(f, "weighing-total", "1500 ± 2");
        QVERIFY(*f.document().build().weighings.back().total_g.value == 1500);
        QVERIFY(*f.document().build().weighings.back().total_g.tolerance == 2);
        type(f, "weighing-total", "heavy");
        QVERIFY(f.window->notices().text().contains("no weight"));
        press(f, "weighing-remove");
        QCOMPARE(f.document().build().weighings.size(), std::size_t(2));
    }
    void threeScalesGiveTheCentreOfGravity() {
        WindowFixture f;
        auto &b = bench(f, balance::Page::weighings);
        press(f, "add-scales");
        // Reference values E.scale3: scales at (60, 60), (60, -60), (-80, 0) read 310, 295, 402 g: x 4.1112, y 0.8937
        // mm.
        auto &numbers = b.weighings().numbers();
        QCOMPARE(numbers.rowCount(), 3);
        const double values[3][3] = {{60, 60, 310}, {60, -60, 295}, {-80, 0, 402}};
        for (int r = 0; r < 3; ++r)
            for (int c = 0; c < 3; ++c) {
                numbers.item(r, c)->setText(QString::number(values[r][c]));
                QTest::qWait(5);
            }
        const auto &report = f.document().analysis().derived.reconciled->weighings.back();
        QVERIFY(report.measured_mm);
        QVERIFY(std::abs(report.measured_mm->x() - 4.1112) < 1e-4 && std::abs(report.measured_mm->y() - 0.8937) < 1e-4);
        QVERIFY(f.window->findChild<QLabel *>("weighing-result")->text().contains("4.1 mm fore"));
        numbers.item(0, 2)->setText("lots");
        QTest::qWait(10);
        QVERIFY(f.window->notices().text().contains("no number"));
        QCOMPARE(numbers.item(0, 2)->text(), QString("310"));
        press(f, "add-lines");
        QCOMPARE(numbers.rowCount(), 2);
        numbers.item(0, 0)->setText("6.5");
        QTest::qWait(10);
        QVERIFY(std::abs(f.document().analysis().derived.reconciled->weighings.back().measured_mm->x() - 6.5) < 1e-9);
    }
    void namesInTheTargetNeverStandOnEachOther_data() {
        QTest::addColumn<QString>("demo");
        QTest::addColumn<QSize>("size");
        QTest::newRow("small") << "stakewalker" << QSize(1100, 700);
        QTest::newRow("usual") << "stakewalker" << QSize(1280, 800);
        QTest::newRow("six names, small") << "kilnlamp" << QSize(1100, 700);
        QTest::newRow("six names, usual") << "kilnlamp" << QSize(1280, 800);
    }
    void namesInTheTargetNeverStandOnEachOther() {
        QFETCH(QString, demo);
        QFETCH(QSize, size);
        WindowFixture f;
        f.document().history().setClean();
        QVERIFY(f.window->openFile(WEIGHTAXIS_TEST_DATA "/demos/" + demo + ".waxis"));
        f.window->setStage(Stage::balance);
        f.window->resize(size);
        settle(f.window->balanceBench());
        QTest::qWait(60);
        auto *target = f.window->findChild<balance::TargetView *>();
        (void)target->grab();
        const auto &boxes = target->labelBoxes();
        QVERIFY(boxes.size() >= 3); // three load cases and the slide
        for (std::size_t i = 0; i < boxes.size(); ++i) {
            QVERIFY2(QRectF(target->rect()).contains(boxes[i]), qPrintable(QString("%1 %2 %3 %4")
                                                                               .arg(boxes[i].x())
                                                                               .arg(boxes[i].y())
                                                                               .arg(boxes[i].width())
                                                                               .arg(target->width())));
            for (std::size_t k = i + 1; k < boxes.size(); ++k) QVERIFY(!boxes[i].intersects(boxes[k]));
        }
    }
    void theTargetIsLookedAtCloselyAndTabGoesFromCaseToCase() {
        WindowFixture f;
        f.window->setStage(Stage::balance);
        auto &target = f.window->balanceBench().target().target();
        target.setFocus();
        const auto scale = [&] { return target.toPixels({1, 0}).x() - target.toPixels({0, 0}).x(); };
        const double whole = scale();
        const Vec2 here = f.document().balance()->offset_mm->head<2>();
        const QPointF at = target.toPixels(here);
        QWheelEvent wheel(at, target.mapToGlobal(at.toPoint()), {}, QPoint(0, 480), Qt::NoButton, Qt::NoModifier,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(&target, &wheel);
        QVERIFY(scale() > 1.5 * whole);
        QVERIFY(QLineF(target.toPixels(here), at).length() < 1e-6); // what lies under the pointer stays there
        const QPoint free(30, 60);
        QTest::mousePress(&target, Qt::LeftButton, {}, free);
        QMouseEvent move(QEvent::MouseMove, free + QPoint(25, 10), target.mapToGlobal(free), Qt::NoButton,
                         Qt::LeftButton, {});
        QApplication::sendEvent(&target, &move);
        QTest::mouseRelease(&target, Qt::LeftButton, {}, free + QPoint(25, 10));
        QVERIFY(QLineF(target.toPixels(here), at + QPointF(25, 10)).length() < 1e-6);
        QTest::keyClick(&target, Qt::Key_0);
        QVERIFY(std::abs(scale() - whole) < 1e-9);
        f.window->actions().action("zoom")->trigger();
        QVERIFY(scale() > whole);
        QVERIFY(QLineF(target.toPixels(here), QPointF((target.width() - 118) / 2.0, target.height() / 2.0)).length() <
                2);
        f.window->actions().action("fit")->trigger();
        QVERIFY(std::abs(scale() - whole) < 1e-9);
        f.document().setLoadCase(0);
        QTest::keyClick(&target, Qt::Key_Tab);
        QCOMPARE(f.document().loadCase(), 1);
        QTest::keyClick(&target, Qt::Key_Backtab);
        QCOMPARE(f.document().loadCase(), 0);
        QTest::keyClick(&target, Qt::Key_Backtab); // before the first: out of the drawing
        QVERIFY(!target.hasFocus());
    }
    void findingsLeadHere() {
        WindowFixture f;
        auto &b = bench(f, balance::Page::grams);
        b.reveal({}, RuleId::balMeasured);
        QVERIFY(b.weighings().isVisible());
        b.reveal({"balanced"}, RuleId::balMeasured);
        QCOMPARE(f.window->findChild<QLineEdit *>("weighing-name")->text(), QString("Balanced: Survey, camera aboard"));
        b.reveal({}, RuleId::balOffset);
        QVERIFY(b.target().isVisible());
        f.window->setStage(Stage::place);
        QTest::mouseClick(&f.window->axisBar(), Qt::LeftButton);
        QVERIFY(b.isVisible());
    }
    void anEmptyBuildSaysWhatToDo() {
        WindowFixture f;
        LoadedBuild empty;
        empty.build.name = "New";
        f.document().show(std::move(empty), {});
        for (auto page : {balance::Page::target, balance::Page::grams, balance::Page::packs, balance::Page::propellers,
                          balance::Page::doubt, balance::Page::weighings}) {
            auto &b = bench(f, page);
            settle(b);
            QVERIFY(!f.window->grab().isNull());
        }
        QVERIFY(!f.window->balanceBench().target().slide().solution());
    }
};

QTEST_MAIN(TestBalanceStage)
#include "test_balance_stage.moc"
