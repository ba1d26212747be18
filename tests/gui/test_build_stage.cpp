// The Build bench with mouse and keys: tick through, another order asked for and refused, checks, settings, service.
#include "app/shell/findings_panel.h"
#include "app/stages/build/build_bench.h"
#include "core/edits/assembly_edits.h"
#include "core/edits/part_edits.h"
#include "window_fixture.h"

#include <QClipboard>
#include <QComboBox>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QStandardPaths>
#include <QToolButton>

using namespace waxis;
using namespace waxis::test;

namespace {

assembly::BuildBench &bench(WindowFixture &f, assembly::Page page = assembly::Page::steps) {
    f.window->setStage(Stage::build);
    f.window->buildBench().showPage(page);
    QTest::qWait(30);
    return f.window->buildBench();
}

bool settle(assembly::BuildBench &b) {
    return QTest::qWaitFor([&] { return b.isSettled() && !b.source().plan().steps.empty(); }, 20000);
}

void press(WindowFixture &f, const char *name) {
    auto *button = f.window->findChild<QToolButton *>(name);
    QVERIFY2(button && button->isVisible() && button->isEnabled(), name);
    QTest::mouseClick(button, Qt::LeftButton);
}

QString text(WindowFixture &f, const char *name) {
    auto *label = f.window->findChild<QLabel *>(name);
    return label ? label->text() : QString();
}

int stepOf(assembly::BuildBench &b, const std::string &id) { return b.source().stepOf(id); }

/// Lets the chosen step go over the upper half of another one.
void dropBefore(assembly::StepList &list, int step) {
    const QRect box = list.visualItemRect(list.item(list.rowOf(step)));
    QMimeData nothing;
    QDropEvent event(QPointF(box.center().x(), box.top() + 2), Qt::MoveAction, &nothing, Qt::LeftButton, {});
    // As the drag manager would; no window of another program can be asked for a drag here.
    struct Open : assembly::StepList {
        using StepList::dropEvent;
    };
    (list.*(&Open::dropEvent))(&event);
}

/// Types into the found cell of a check, as a hand does.
void enter(assembly::ChecksPage &page, const std::string &check, const QString &found) {
    int row = -1;
    for (std::size_t i = 0; i < page.checks().size(); ++i)
        if (page.checks()[i].id == check) row = int(i);
    QVERIFY2(row >= 0, check.c_str());
    auto &table = page.table();
    table.setCurrentCell(row, 2);
    table.editItem(table.item(row, 2));
    auto *field = table.viewport()->findChild<QLineEdit *>();
    QVERIFY(field);
    field->selectAll();
    if (found.isEmpty()) QTest::keyClick(field, Qt::Key_Delete);
    QTest::keyClicks(field, found);
    QTest::keyClick(field, Qt::Key_Return);
    QTest::qWait(20);
}

QString cell(assembly::ChecksPage &page, const std::string &check, int column) {
    for (std::size_t i = 0; i < page.checks().size(); ++i)
        if (page.checks()[i].id == check) return page.table().item(int(i), column)->text();
    return {};
}

} // namespace

class TestBuildStage : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void stepsAreTickedAndGoOn() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        QCOMPARE(list.step(), 0);
        QVERIFY(text(f, "step-title").startsWith("1. Cut, strip and tin"));
        QVERIFY(text(f, "build-progress").startsWith("0 of "));
        list.setFocus();
        QTest::keyClick(&list, Qt::Key_Space);
        QCOMPARE(list.step(), 1);
        QCOMPARE(f.document().build().stepsDone.size(), std::size_t(1));
        QVERIFY(!f.document().build().stepsDone[0].at.empty());
        QVERIFY(settle(b));
        QVERIFY(text(f, "build-progress").startsWith("1 of "));
        press(f, "step-tick"); // the second one
        QVERIFY(settle(b));
        QVERIFY(text(f, "build-progress").startsWith("2 of "));
        // Through to the end, by keys alone.
        const int steps = int(b.source().plan().steps.size());
        for (int i = 2; i < steps; ++i) {
            list.choose(i);
            QTest::keyClick(&list, Qt::Key_Space);
        }
        QVERIFY(settle(b));
        QVERIFY(text(f, "build-progress").startsWith(QString("%1 of %1").arg(steps)));
        // Taken back, and by undo.
        list.choose(0);
        press(f, "step-tick");
        QVERIFY(settle(b));
        const auto progress = [&] { return text(f, "build-progress").section(' ', 0, 2); };
        const auto all = [&] { return int(b.source().plan().steps.size()); };
        QCOMPARE(progress(), QString("%1 of %2").arg(all() - 1).arg(all()));
        f.document().history().undo();
        QVERIFY(settle(b));
        QCOMPARE(progress(), QString("%1 of %1").arg(all()));
    }
    void aTickedStepThatChangedIsLookedAtAgain() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        list.choose(stepOf(b, "cap"));
        QTest::keyClick(&list, Qt::Key_Space);
        QVERIFY(settle(b));
        const Step done = b.source().plan().steps[std::size_t(stepOf(b, "cap"))];
        QCOMPARE(stateOf(f.document().build(), done), StepState::done);
        Build other = f.document().build();
        QVERIFY(f.document().edit("another", changeType(other, "cap", "buzzer-12")));
        QVERIFY(settle(b));
        QCOMPARE(stateOf(f.document().build(), b.source().plan().steps[std::size_t(stepOf(b, "cap"))]),
                 StepState::again);
    }
    void anOrderThatNothingSpeaksAgainstIsTaken() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        const int motors = stepOf(b, "motor-1"), capacitor = stepOf(b, "cap");
        QVERIFY(motors >= 0 && capacitor >= 0 && motors != capacitor);
        const int late = std::max(motors, capacitor), early = std::min(motors, capacitor);
        const std::string lateId = b.source().plan().steps[std::size_t(late)].id,
                          earlyId = b.source().plan().steps[std::size_t(early)].id;
        list.choose(late);
        dropBefore(list, early);
        QVERIFY(!f.document().build().ownOrder.empty());
        QVERIFY(settle(b));
        QVERIFY(stepOf(b, lateId) < stepOf(b, earlyId));
        press(f, "plan-order");
        QVERIFY(f.document().build().ownOrder.empty());
    }
    void anOrderAgainstAReasonIsRefusedAndSaysWhy() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        const int esc = stepOf(b, "esc"), top = stepOf(b, "plate-top");
        QVERIFY(esc >= 0 && top > esc);
        list.choose(top);
        dropBefore(list, esc);
        QVERIFY(f.document().build().ownOrder.empty());
        QVERIFY(f.window->findChild<QWidget *>("order-refused")->isVisible());
        QVERIFY2(text(f, "order-reason").startsWith("It stays where it is: "), qPrintable(text(f, "order-reason")));
        press(f, "order-anyway"); // not without a word
        QVERIFY(f.document().build().ownOrder.empty());
        press(f, "order-leave");
        QVERIFY(!f.window->findChild<QWidget *>("order-refused")->isVisible());
        // With one it stands in the file.
        list.choose(top);
        dropBefore(list, esc);
        QTest::keyClicks(f.window->findChild<QLineEdit *>("order-note"), "the plate comes in two halves");
        press(f, "order-anyway");
        QVERIFY(!f.document().build().ownOrder.empty());
        QCOMPARE(f.document().build().ownOrder[0].note, std::string("the plate comes in two halves"));
    }
    void stepsOfOnesOwn() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        list.choose(3);
        const std::string after = b.source().plan().steps[3].id;
        auto *field = f.window->findChild<QLineEdit *>("own-step");
        field->setFocus();
        QTest::keyClicks(field, "Let the glue set");
        QTest::keyClick(field, Qt::Key_Return);
        QCOMPARE(f.document().build().ownSteps.size(), std::size_t(1));
        QVERIFY(settle(b));
        QCOMPARE(stepOf(b, "own"), stepOf(b, after) + 1);
        list.choose(stepOf(b, "own"));
        QVERIFY(text(f, "step-title").endsWith("Let the glue set"));
        // What it says is changed where it stands.
        auto *words = f.window->findChild<QLineEdit *>("own-step-text");
        QVERIFY(words->isVisible());
        words->setFocus();
        words->selectAll();
        QTest::keyClicks(words, "Let it set for a day");
        QTest::keyClick(words, Qt::Key_Return);
        QCOMPARE(f.document().build().ownSteps[0].text, std::string("Let it set for a day"));
        QVERIFY(settle(b));
        QVERIFY(text(f, "step-title").endsWith("Let it set for a day"));
        list.choose(0);
        QVERIFY(!words->isVisible());
        list.choose(stepOf(b, "own"));
        press(f, "own-step-remove");
        QVERIFY(f.document().build().ownSteps.empty());
    }
    void aClickOnAHeadLeavesTheChosenStep() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        list.choose(2);
        QTest::mouseClick(list.viewport(), Qt::LeftButton, {},
                          list.visualItemRect(list.item(0)).center()); // "in the hand"
        QCOMPARE(list.step(), 2);
    }
    void ticksAreTakenBackAllAtOnce() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto *again = f.window->findChild<QToolButton *>("untick-all");
        QVERIFY(!again->isVisible());
        auto &list = b.steps().steps();
        for (int i = 0; i < 3; ++i) {
            list.choose(i);
            QTest::keyClick(&list, Qt::Key_Space);
        }
        QVERIFY(settle(b));
        QVERIFY(again->isVisible());
        press(f, "untick-all");
        QVERIFY(f.document().build().stepsDone.empty());
        QVERIFY(settle(b));
        QVERIFY(text(f, "build-progress").startsWith("0 of ") && !again->isVisible());
        f.document().history().undo();
        QVERIFY(!f.document().build().stepsDone.empty());
    }
    void whatWasBuiltOtherwiseIsTakenDownFirst() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        list.choose(stepOf(b, "cap"));
        QTest::keyClick(&list, Qt::Key_Space);
        QVERIFY(settle(b));
        // The tick is of another capacitor.
        std::vector<StepTick> other = f.document().build().stepsDone;
        for (auto &tick : other) tick.contents = "0." + tick.contents;
        QVERIFY(f.document().edit("Other", tickSteps(f.document().build(), other)));
        QVERIFY(settle(b));
        list.choose(0);
        QVERIFY2(text(f, "step-title").contains("Take down first: capacitor"), qPrintable(text(f, "step-title")));
        QVERIFY(text(f, "step-caution").contains("Wick"));
        QTest::keyClick(&list, Qt::Key_Space);
        QVERIFY(settle(b));
        QVERIFY(b.source().plan().steps[0].kind != OperationKind::takeDown);
        QCOMPARE(stateOf(f.document().build(), b.source().plan().steps[std::size_t(stepOf(b, "cap"))]),
                 StepState::open);
    }
    void aStepIsSeenInThreeDimensions() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        list.choose(stepOf(b, "esc"));
        press(f, "step-solid-switch");
        QVERIFY(b.steps().inSpace().isVisible() && !b.steps().drawing().isVisible());
        drawing::SolidView *view = b.steps().inSpace().view();
        if (!view) QSKIP("no OpenGL here");
        QVERIFY(view->looks().fresh.contains("esc") && !view->looks().hidden.contains("plate-mid"));
        QVERIFY(view->looks().hidden.contains("fc"));
        QVERIFY(view->looks().way.has_value());
        // Nothing is dragged in it: the chosen part stays where it is.
        f.document().select("esc");
        const QPoint at =
            view->toPixels(framePose(f.document().build(), *findPart(f.document().build(), "esc")).position_mm)
                .toPoint();
        const auto before = f.document().build();
        QTest::mousePress(view, Qt::LeftButton, {}, at);
        QTest::mouseMove(view, at + QPoint(40, 10));
        QTest::mouseRelease(view, Qt::LeftButton, {}, at + QPoint(40, 10));
        QVERIFY(f.document().build() == before);
        list.choose(stepOf(b, "fc"));
        QVERIFY(view->looks().fresh.contains("fc"));
        press(f, "step-plan");
        QVERIFY(b.steps().drawing().isVisible());
    }
    void theDrawingShowsWhatIsThereAndWhatComes() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        auto &list = b.steps().steps();
        list.choose(stepOf(b, "esc"));
        const auto &drawn = b.steps().drawing().drawn();
        QVERIFY(drawn.hidden().contains("fc")); // comes later
        QVERIFY(!drawn.hidden().contains("esc") && !drawn.hidden().contains("plate-mid"));
        list.choose(int(b.source().plan().steps.size()) - 1);
        QVERIFY(!drawn.hidden().contains("fc"));
        press(f, "step-side");
        QCOMPARE(b.steps().drawing().view(), drawing::View::side);
        press(f, "step-plan");
        QCOMPARE(b.steps().drawing().view(), drawing::View::plan);
    }
    void checksAreJudgedByWhatIsExpected() {
        WindowFixture f;
        auto &b = bench(f);
        QVERIFY(settle(b));
        b.steps().steps().choose(stepOf(b, "check:train"));
        press(f, "step-checks");
        auto &page = b.checks();
        QVERIFY(page.isVisible());
        QVERIFY(page.checks().size() > 12);
        QVERIFY(text(f, "check-caution").contains("Propellers off"));
        enter(page, "short", "y");
        QCOMPARE(cell(page, "short", 2), QString("yes"));
        QCOMPARE(cell(page, "short", 3), QString("as expected"));
        std::string rail;
        for (const auto &check : page.checks())
            if (check.kind == CheckKind::regulator && rail.empty()) rail = check.id;
        enter(page, rail, "3.1");
        QCOMPARE(cell(page, rail, 3), QString("not as expected"));
        QVERIFY(text(f, "checks-summary").contains("1 not"));
        enter(page, rail, "five");
        QCOMPARE(cell(page, rail, 3), QString("no number"));
        enter(page, rail, "");
        QCOMPARE(cell(page, rail, 3), QString());
        QCOMPARE(f.document().build().checkResults.size(), std::size_t(1));
        f.document().history().undo();
        QCOMPARE(cell(page, rail, 2), QString("five"));
    }
    void checksLeadToWhatHelpsWithThem() {
        WindowFixture f;
        auto &b = bench(f, assembly::Page::checks);
        auto &page = b.checks();
        const auto choose = [&](CheckKind kind) {
            for (int row = 0; row < int(page.checks().size()); ++row)
                if (page.checks()[std::size_t(row)].kind == kind) return page.table().setCurrentCell(row, 2);
        };
        auto *look = f.window->findChild<QToolButton *>("check-look");
        choose(CheckKind::carbon);
        QVERIFY(!look->isVisible());
        choose(CheckKind::settings);
        press(f, "check-look");
        QVERIFY(b.settings().isVisible());
        b.showPage(assembly::Page::checks);
        choose(CheckKind::weight);
        press(f, "check-look");
        QCOMPARE(f.window->stage(), Stage::balance);
        f.window->setStage(Stage::build);
        choose(CheckKind::polarity);
        QCOMPARE(look->text(), QString("Pins…"));
        press(f, "check-look");
        QCOMPARE(f.window->stage(), Stage::wire);
        QVERIFY(findWire(f.document().build(), f.document().selected().toStdString()));
    }
    void settingsStandInOneList() {
        WindowFixture f;
        auto &b = bench(f, assembly::Page::settings);
        QVERIFY(b.settings().table().rowCount() > 10);
        press(f, "settings-copy");
        const QString csv = QGuiApplication::clipboard()->text();
        QVERIFY(csv.contains("Motors") && csv.contains("local law decides"));
    }
    void serviceSaysWhatComesOff() {
        WindowFixture f;
        auto &b = bench(f, assembly::Page::service);
        f.document().select("fc");
        QVERIFY(settle(b));
        auto &table = b.service().table();
        QTRY_VERIFY(table.rowCount() > 1);
        QVERIFY(table.item(table.rowCount() - 1, 0)->text().contains("Flight controller"));
        auto *parts = f.window->findChild<QComboBox *>("service-part");
        parts->setCurrentIndex(parts->findData("gps"));
        QTRY_VERIFY(b.isSettled() && table.item(table.rowCount() - 1, 0)->text().contains("GPS"));
        QCOMPARE(f.document().selected(), QString("gps"));
    }
    void anEmptyMatHasNothingToBuild() {
        WindowFixture f;
        Build empty;
        empty.name = "Empty";
        f.document().show({empty, {}, {}, {}}, {});
        auto &b = bench(f);
        QTRY_VERIFY_WITH_TIMEOUT(b.isSettled(), 10000);
        QVERIFY(b.source().plan().steps.empty());
        QVERIFY(text(f, "build-progress").contains("Nothing"));
        b.showPage(assembly::Page::checks);
        b.showPage(assembly::Page::settings);
        b.showPage(assembly::Page::service);
    }
};

QTEST_MAIN(TestBuildStage)
#include "test_build_stage.moc"
