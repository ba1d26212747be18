// The shell: findings and what can be done with them, files, recovery, palette, stages, themes.
#include "app/stages/place/place_view.h"
#include "gui/window_fixture.h"

#include "app/document/data_files.h"
#include "app/shell/command_palette.h"
#include "app/shell/stage_rail.h"
#include "app/shell/sum_sheet.h"
#include "app/widgets/file_dialogs.h"
#include "core/analysis/analysis.h"
#include "core/edits/part_edits.h"
#include "core/rules/rule.h"
#include "core/wiring/routing.h"

#include <QAccessible>
#include <QDir>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QProcess>
#include <QStandardPaths>
#include <QUndoView>

using namespace waxis;
using app::FindingAction;
using test::WindowFixture;

namespace {

/// Row of the first finding of a rule.
int rowOf(WindowFixture &f, RuleId rule) {
    for (int row = 0; row < f.findingRows(); ++row)
        if (f.window->findings().model().finding(row).rule == rule) return row;
    return -1;
}

/// Clicks the link of an action in the findings list, as a person does.
void click(WindowFixture &f, int row, FindingAction action) {
    if (action == FindingAction::fix) { // cures are tried first, the worst findings soonest
        const std::string key = f.window->findings().model().finding(row).key();
        QTRY_VERIFY_WITH_TIMEOUT(f.window->findings().model().cures(f.window->findings().model().rowOf(key)), 20000);
        row = f.window->findings().model().rowOf(key);
    }
    auto &list = f.window->findings().list();
    const auto index = f.window->findings().model().index(row);
    list.scrollTo(index);
    const QRect link = f.window->findings().delegate().linkRect(list.visualRect(index), index, action);
    QVERIFY2(!link.isEmpty(), "the action is offered");
    QTest::mouseClick(list.viewport(), Qt::LeftButton, {}, link.center());
}

void openPalette(WindowFixture &f, const QString &query) {
    QTest::keyClick(f.window.get(), Qt::Key_K, Qt::ControlModifier);
    auto *line = f.window->findChild<QLineEdit *>("palette-query");
    QTest::keyClicks(line, query);
    QTest::keyClick(line, Qt::Key_Return);
}

} // namespace

class TestWindow : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void aClickOnFixAppliesTheMoveAndUndoTakesItBack() {
        WindowFixture f;
        const int row = rowOf(f, RuleId::fitOverlap);
        QVERIFY(row >= 0);
        click(f, row, FindingAction::fix);
        QVERIFY(rowOf(f, RuleId::fitOverlap) < 0);
        QTest::keyClick(f.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(rowOf(f, RuleId::fitOverlap) >= 0);
    }
    void whyOpensTheCalculation() {
        WindowFixture f;
        const int row = rowOf(f, RuleId::balOffset);
        auto &list = f.window->findings().list();
        const auto index = f.window->findings().model().index(row);
        const int closed = list.visualRect(index).height();
        click(f, row, FindingAction::why);
        QVERIFY(!f.window->findings().model().openedKey().isEmpty());
        QTest::qWait(20);
        QVERIFY(list.visualRect(index).height() > closed + 40);
    }
    void showChoosesThePartAndHoveringLightsIt() {
        WindowFixture f;
        const int row = rowOf(f, RuleId::fitPropZone);
        const auto subject = f.window->findings().model().finding(row).subjects.front();
        const auto key = f.window->findings().model().finding(row).key();
        click(f, row, FindingAction::show);
        QCOMPARE(f.document().selected().toStdString(), subject);
        auto &list = f.window->findings().list();
        const auto place =
            list.visualRect(f.window->findings().model().index(f.window->findings().model().rowOf(key))).center();
        QTest::mouseMove(list.viewport(), place + QPoint(1, 1));
        QMouseEvent hover(QEvent::MouseMove, place, list.viewport()->mapToGlobal(place), Qt::NoButton, Qt::NoButton,
                          {});
        QApplication::sendEvent(list.viewport(), &hover);
        QVERIFY(f.document().highlighted().contains(QString::fromStdString(subject)));
    }
    void acceptingNeedsAReasonAndCanBeWithdrawn() {
        WindowFixture f;
        const int stops = f.document().analysis().counts.stop, accepted = f.document().analysis().counts.accepted;
        click(f, rowOf(f, RuleId::fitOverlap), FindingAction::accept);
        auto *reason = f.window->findChild<QLineEdit *>("reason");
        QVERIFY(reason->isVisible());
        QTest::keyClick(reason, Qt::Key_Return); // no reason given
        QCOMPARE(f.document().analysis().counts.stop, stops);
        QVERIFY(f.window->notices().text().contains("why", Qt::CaseInsensitive));
        QTest::keyClicks(reason, "the lens hood gives way");
        QTest::keyClick(reason, Qt::Key_Return);
        QCOMPARE(f.document().analysis().counts.stop, stops - 1);
        QCOMPARE(f.document().analysis().counts.accepted, accepted + 1);
        QCOMPARE(f.document().build().acceptances.back().reason, std::string("the lens hood gives way"));
        const int row = rowOf(f, RuleId::fitOverlap);
        click(f, row, FindingAction::withdraw);
        QCOMPARE(f.document().analysis().counts.stop, stops);
    }
    void findingsCanBeWorkedByKeyboard() {
        WindowFixture f;
        auto &list = f.window->findings().list();
        list.setFocus();
        list.setCurrentIndex(f.window->findings().model().index(rowOf(f, RuleId::fitOverlap)));
        QTest::keyClick(&list, Qt::Key_Return);
        QVERIFY(!f.window->findings().model().openedKey().isEmpty());
        QTest::keyClick(&list, Qt::Key_F);
        QTRY_VERIFY_WITH_TIMEOUT(rowOf(f, RuleId::fitOverlap) < 0, 20000); // once it was tried
    }
    void aCureThatIsStillBeingTriedIsAppliedOnlyToTheBuildItWasWantedFor() {
        WindowFixture f;
        auto &findings = f.window->findings();
        findings.act(rowOf(f, RuleId::fitOverlap), FindingAction::fix);
        QVERIFY(!findings.model().cures(rowOf(f, RuleId::fitOverlap))); // not known yet: the window does not wait
        QCOMPARE(findings.list().cursor().shape(), Qt::BusyCursor);
        QVERIFY(f.document().edit("n", shiftPart(f.document().build(), "gps", {1, 0, 0}))); // something else meanwhile
        QCOMPARE(findings.list().cursor().shape(), Qt::ArrowCursor);
        const Build build = f.document().build();
        QTRY_VERIFY_WITH_TIMEOUT(findings.model().cures(rowOf(f, RuleId::fitOverlap)), 20000);
        QTest::qWait(100);
        QVERIFY(f.document().build() == build);
    }
    void wiresThatTakeLongAreLedBehindTheEdit() {
        WindowFixture f;
        // A wall across the craft: wires to its tail have far to go round.
        const Build build = f.document().build();
        PartType block;
        block.id = block.name = "block";
        block.kind = PartKind::other;
        Solid solid;
        solid.shape = Box{{2, 300, 300}};
        block.solids.push_back(solid);
        Pose pose;
        pose.position_mm = {-30, 0, 10};
        QVERIFY(f.document().edit("block", addPart(build, block, "block", pose)));
        const auto &derived = f.document().analysis().derived;
        QVERIFY(derived.wiresPutOff > 0);
        const Build shown = f.document().build();
        QTRY_VERIFY_WITH_TIMEOUT(f.document().areWiresLed(), 60000);
        QVERIFY(f.document().build() == shown);
        Analyser fresh;
        const auto &routes = fresh.update(shown).derived.routes;
        for (std::size_t w = 0; w < routes.size(); ++w)
            QVERIFY2(derived.routes[w].points_mm == routes[w].points_mm, shown.wires[w].id.c_str());
    }
    void functionKeysSwitchStagesAndTheAxisBarOpensBalance() {
        WindowFixture f;
        QTest::keyClick(f.window.get(), Qt::Key_F5);
        QCOMPARE(f.window->stage(), Stage::wire);
        QTest::mouseClick(&f.window->axisBar(), Qt::LeftButton);
        QCOMPARE(f.window->stage(), Stage::balance);
        QTest::mouseClick(f.window->findChild<QAbstractButton *>("stage-place"), Qt::LeftButton);
        QCOMPARE(f.window->stage(), Stage::place);
    }
    void thePaletteGoesToPartsAndDoesThings() {
        WindowFixture f;
        openPalette(f, "gps with");
        QCOMPARE(f.document().selected(), QString("gps"));
        const auto parts = f.document().build().parts.size();
        openPalette(f, "add gps mast");
        QCOMPARE(f.document().build().parts.size(), parts + 1);
        QCOMPARE(f.document().selectedPart()->type, std::string("mast-gps-60"));
        openPalette(f, "light or dark");
        QCOMPARE(int(f.theme.mode()), int(theme::Mode::dark));
    }
    void aQuickSumAnswersAsOneTypes() {
        WindowFixture f;
        openPalette(f, "two supports");
        auto *sheet = f.window->findChild<app::SumSheet *>();
        QVERIFY(sheet);
        auto *result = sheet->findChild<QLabel *>("out-x_mm");
        QVERIFY(result->text().startsWith("104.4"));
        auto *span = sheet->findChild<QLineEdit *>("span_mm");
        span->selectAll();
        QTest::keyClicks(span, "100");
        QVERIFY(result->text().startsWith("52.22"));
        span->selectAll();
        QTest::keyClicks(span, "wide");
        QVERIFY(sheet->findChild<QLabel *>("sum-error")->text().contains("span_mm"));
    }
    void theHistoryCanBeWalkedByName() {
        WindowFixture f;
        f.document().select("gps");
        QTest::keyClick(&f.plan(), Qt::Key_Q);
        QTest::keyClick(&f.plan(), Qt::Key_Space);
        f.window->actions().action("history")->trigger();
        auto *view = f.window->findChild<QUndoView *>();
        QVERIFY(view && view->isVisible());
        QCOMPARE(view->model()->rowCount(), 3);
        QVERIFY(view->model()->index(1, 0).data().toString().contains("Turn GPS with compass left"));
        view->setCurrentIndex(view->model()->index(0, 0));
        QVERIFY(!f.document().isModified());
    }
    void overlaysSwitchWhatIsDrawn() {
        WindowFixture f;
        const auto items = f.plan().scene()->items().size();
        auto chip = [&](const char *text) {
            for (auto *button : f.window->placeBench().findChildren<QAbstractButton *>())
                if (button->text() == text) return button;
            return static_cast<QAbstractButton *>(nullptr);
        };
        QTest::mouseClick(chip("Discs"), Qt::LeftButton);
        QVERIFY(!f.window->placeBench().overlays().propellers);
        QCOMPARE(f.plan().scene()->items().size(), items - 4);
        const QImage without = f.plan().grab().toImage();
        QTest::mouseClick(chip("Grams"), Qt::LeftButton);
        QVERIFY(f.window->placeBench().overlays().grams);
        QVERIFY(f.plan().grab().toImage() != without);
    }
    void aPartIsRenamedInTheInspectorAndEverywhere() {
        WindowFixture f;
        f.document().select("tube-l");
        auto *name = f.window->findChild<QLineEdit *>("part-name");
        name->setFocus();
        name->selectAll();
        QTest::keyClicks(name, "Heather tube");
        QTest::keyClick(name, Qt::Key_Return);
        QCOMPARE(findPart(f.document().build(), "tube-l")->name, std::string("Heather tube"));
        const auto &model = f.window->findings().model();
        bool told = false;
        for (int row = 0; row < model.rowCount(); ++row)
            told |= model.index(row).data().toString().contains("Heather tube");
        QVERIFY(told);
        name->selectAll();
        QTest::keyClick(name, Qt::Key_Delete);
        QTest::keyClick(name, Qt::Key_Return); // no name at all is refused
        QCOMPARE(findPart(f.document().build(), "tube-l")->name, std::string("Heather tube"));
    }
    void findingsOfWhatIsChosenComeFirstAndTellTheirReasonWhenLookedAt() {
        WindowFixture f;
        auto &panel = f.window->findings();
        const auto subjectsOfFirst = [&] { return panel.model().finding(0).subjects; };
        for (const char *thing : {"gps", "w-pack-small", "plate-top"}) { // a part, a wire, a plate
            f.document().select(thing);
            const auto subjects = subjectsOfFirst();
            QVERIFY2(std::find(subjects.begin(), subjects.end(), thing) != subjects.end(), thing);
        }
        f.document().select({});
        // Compact until somebody looks: then all of the reason.
        const auto index = panel.model().index(1);
        const int before = panel.list().visualRect(index).height();
        const QRect row = panel.list().visualRect(index);
        QTest::mouseClick(panel.list().viewport(), Qt::LeftButton, {}, row.topLeft() + QPoint(60, 14));
        QTest::qWait(20);
        QVERIFY(panel.model().toldKey() == QString::fromStdString(panel.model().finding(1).key()));
        QVERIFY(panel.list().visualRect(panel.model().index(1)).height() > before);
        QTest::keyClick(&panel.list(), Qt::Key_Down); // the keyboard does the same
        QCOMPARE(panel.model().toldKey(), QString::fromStdString(panel.model().finding(2).key()));
    }
    void aNumberReadsAsOneOrMany() {
        WindowFixture f;
        f.document().selectAll({"gps", "buzzer"});
        f.window->actions().action("copy")->trigger();
        f.window->actions().action("paste")->trigger();
        QCOMPARE(f.document().history().undoText(), QString("Paste 2 parts"));
        f.document().selectAll({"buzzer"});
        f.window->actions().action("copy")->trigger();
        f.window->actions().action("paste")->trigger();
        QCOMPARE(f.document().history().undoText(), QString("Paste 1 part"));
    }
    void everyBenchHasAContextMenuWithTheMenusCommands_data() {
        QTest::addColumn<int>("stage");
        QTest::addColumn<QString>("thing");
        QTest::addColumn<QString>("has"); // one of its commands
        QTest::newRow("kit") << int(Stage::kit) << "gps"
                             << "Replace by another type…";
        QTest::newRow("wire, a wire chosen") << int(Stage::wire) << "w-gps"
                                             << "Remove\tDel";
        QTest::newRow("radio") << int(Stage::radio) << "rx"
                               << "Copy";
        QTest::newRow("balance, nothing chosen") << int(Stage::balance) << ""
                                                 << "Part library";
    }
    void everyBenchHasAContextMenuWithTheMenusCommands() {
        QFETCH(int, stage);
        QFETCH(QString, thing);
        QFETCH(QString, has);
        WindowFixture f;
        f.window->setStage(Stage(stage));
        f.document().select(thing);
        const QPoint at = f.window->rect().center() - QPoint(150, 0);
        const QStringList texts = waxis::test::readMenu([&] {
            QContextMenuEvent event(QContextMenuEvent::Keyboard, at, f.window->mapToGlobal(at));
            QApplication::sendEvent(f.window.get(), &event);
        });
        QVERIFY2(texts.contains(has), qPrintable(texts.join(", ")));
    }
    void aFindingHasAMenuWithItsCures() {
        WindowFixture f;
        auto &panel = f.window->findings();
        const int row = panel.model().rowOf("STK-3/short:stack-main");
        QVERIFY(row >= 0);
        QTRY_VERIFY_WITH_TIMEOUT(panel.model().cures(row), 20000);
        panel.list().scrollTo(panel.model().index(row));
        const QStringList texts = waxis::test::readMenu(
            [&] {
                emit panel.list().customContextMenuRequested(
                    panel.list().visualRect(panel.model().index(row)).center());
            },
            "Use M3");
        QVERIFY2(texts.contains("Show\tS"), qPrintable(texts.join(", ")));
        QVERIFY(panel.model().rowOf("STK-3/short:stack-main") < 0 ||
                panel.model().finding(panel.model().rowOf("STK-3/short:stack-main")).severity != Severity::stop);
    }
    void aPartKeepsANoteOfItsOwn() {
        WindowFixture f;
        f.document().select("tube-l");
        auto *note = f.window->findChild<QLineEdit *>("part-note");
        note->setFocus();
        QTest::keyClicks(note, "glued on 3 May");
        QTest::keyClick(note, Qt::Key_Return);
        QCOMPARE(findPart(f.document().build(), "tube-l")->note, std::string("glued on 3 May"));
        f.document().select("tube-r");
        QVERIFY(note->text().isEmpty());
        f.document().history().undo();
        QVERIFY(findPart(f.document().build(), "tube-l")->note.empty());
    }
    void recentFilesAreOfferedAndTheThemeIsRemembered() {
        WindowFixture f;
        QVERIFY(QSettings().value("recent").toStringList().contains(f.file()));
        QTest::keyClick(f.window.get(), Qt::Key_T, Qt::ControlModifier);
        QCOMPARE(QSettings().value("theme").toString(), QString("dark"));
        QCOMPARE(int(f.theme.mode()), int(theme::Mode::dark));
    }
    void tenGoesFromFindingToFinding() {
        WindowFixture f;
        QStringList seen;
        for (int i = 0; i < 3; ++i) {
            QTest::keyClick(f.window.get(), Qt::Key_F10);
            seen << QString::fromStdString(
                f.window->findings().model().finding(f.window->findings().list().currentIndex().row()).key());
        }
        const auto &worst = f.document().analysis().findings;
        for (int i = 0; i < 3; ++i) QCOMPARE(seen[i].toStdString(), worst[std::size_t(i)].key());
        QVERIFY(!f.document().selected().isEmpty());
    }
    void everythingThatTakesTheKeyboardHasAName() {
        WindowFixture f;
        f.document().select("gps");
        for (auto *widget : f.window->findChildren<QWidget *>()) {
            if (!widget->isVisible() || !(widget->focusPolicy() & Qt::TabFocus)) continue;
            if (widget->focusProxy() || qobject_cast<QAbstractScrollArea *>(widget->parentWidget())) continue;
            const auto *interface = QAccessible::queryAccessibleInterface(widget);
            QVERIFY2(interface && !interface->text(QAccessible::Name).isEmpty(),
                     qPrintable(QString("%1 %2").arg(widget->metaObject()->className(), widget->objectName())));
        }
    }
    void theProgramTakesPicturesAndRefusesBadArguments() {
        QTemporaryDir folder;
        auto run = [](const QStringList &arguments) {
            QProcess process;
            process.start(WEIGHTAXIS_PROGRAM, arguments);
            constexpr int kPatience_ms = 120000; // the whole survey, on a machine that does other things as well
            if (!process.waitForFinished(kPatience_ms)) qWarning("the program did not end in time");
            return std::pair(process.exitCode(), process.readAllStandardOutput() + process.readAllStandardError());
        };
        const QString out = folder.filePath("shot.png"), demo = WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis";
        QCOMPARE(run({"--screenshot", out, "--size", "1100x700", "--stage", "place", demo}).first, 0);
        QCOMPARE(QImage(out).size(), QSize(1100, 700));
        QCOMPARE(run({"--help"}).first, 0);
        QCOMPARE(run({"--screenshot", out, "--stage", "plaice", demo}).first, 2);
        QCOMPARE(run({"--screenshot", out, "--size", "big", demo}).first, 2);
        const auto bad = run({"--screenshot", out, WEIGHTAXIS_TEST_FIXTURES "/bad/truncated.waxis"});
        QCOMPARE(bad.first, 2);
        QVERIFY(bad.second.contains("expected"));
    }
    void withoutADisplayItSaysSoAndStillTakesPictures() {
        QTemporaryDir folder;
        auto environment = QProcessEnvironment::systemEnvironment();
        for (const char *name : {"DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"}) environment.remove(name);
        auto run = [&](const QStringList &arguments) {
            QProcess process;
            process.setProcessEnvironment(environment);
            process.start(WEIGHTAXIS_PROGRAM, arguments);
            process.waitForFinished(30000);
            return std::pair(process.exitCode(), process.readAllStandardError());
        };
        const auto window = run({WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis"});
        QCOMPARE(window.first, 2);
        QVERIFY(window.second.contains("no display"));
        const QString out = folder.filePath("shot.png");
        QCOMPARE(run({"--screenshot", out, WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis"}).first, 0);
        QCOMPARE(QImage(out).size(), QSize(1280, 800));
    }
};

QTEST_MAIN(TestWindow)
#include "test_window.moc"
