// The guides, walked as they are written: from an empty mat with mouse and keyboard to a craft without a stop.
#include "app/shell/lesson.h"
#include "app/stages/frame/frame_bench.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/place_view.h"
#include "app/stages/stack/stack_bench.h"
#include "app/stages/wire/wire_bench.h"
#include "core/power/power_report.h"
#include "core/rules/rule.h"
#include "gui/window_fixture.h"

#include <QFileDialog>
#include <QLineEdit>
#include <QListView>
#include <QMimeData>
#include <QPushButton>
#include <QStandardPaths>
#include <QTimer>
#include <QToolButton>

using namespace waxis;
using waxis::test::WindowFixture;

namespace {

/// The hands: every key, click or typed word is one action.
class Hands {
public:
    explicit Hands(WindowFixture &f) : f_(f) {}
    int actions() const { return actions_; }

    void key(Qt::Key key, Qt::KeyboardModifiers modifiers = {}) {
        ++actions_;
        QTest::keyClick(f_.window.get(), key, modifiers);
        QTest::qWait(20);
    }
    /// In the part drawer: what is looked for, and Enter.
    void seat(const QString &words) {
        // Into whatever has the keyboard: after F3 or Ctrl+L that is the search, its last words chosen.
        QWidget *field = QApplication::focusWidget();
        QVERIFY(field == &f_.window->placeBench().library().words());
        ++actions_;
        QTest::keyClicks(field, words);
        ++actions_;
        QTest::keyClick(field, Qt::Key_Return);
        QTest::qWait(20);
    }
    void click(const char *button) {
        auto *tool = f_.window->findChild<QAbstractButton *>(button);
        QVERIFY2(tool && tool->isVisible() && tool->isEnabled(), button);
        ++actions_;
        QTest::mouseClick(tool, Qt::LeftButton);
        QTest::qWait(20);
    }

    /// Presses what a finding offers; nothing where there is no such stop (any more).
    void mend(RuleId rule) {
        QTRY_VERIFY_WITH_TIMEOUT(f_.document().isSurveyed(), 20000); // dear cures come with the survey
        const int row = stopOf(rule);
        if (row < 0) return;
        auto &model = f_.window->findings().model();
        const std::string key = model.finding(row).key();
        QTRY_VERIFY_WITH_TIMEOUT(model.cures(model.rowOf(key)), 20000);
        press(model.rowOf(key), app::FindingAction::fix);
    }
    /// A button of the start page that asks for a file: pressed, the path typed, Enter.
    void choose(const QString &button, const QString &path) {
        QPushButton *found = nullptr;
        for (auto *entry : f_.window->findChildren<QPushButton *>())
            if (entry->isVisible() && entry->text().startsWith(button)) found = entry;
        QVERIFY(found);
        QTimer::singleShot(300, [&] {
            auto *dialog = qobject_cast<QFileDialog *>(QApplication::activeModalWidget());
            if (!dialog) return;
            auto *name = dialog->findChild<QLineEdit *>("fileNameEdit");
            ++actions_;
            QTest::keyClicks(name, path);
            ++actions_;
            QTest::keyClick(name, Qt::Key_Return);
        });
        ++actions_;
        QTest::mouseClick(found, Qt::LeftButton);
        QTest::qWait(50);
    }
    void drag(const char *part, const QPoint &by) {
        ++actions_;
        f_.dragBy(part, by); // with Ctrl: freely, not onto a seat
        f_.drop();
    }
    /// Clicked in the outline.
    void pick(const char *part) {
        ++actions_;
        f_.document().select(part);
        QTest::qWait(20);
    }
    void type(const char *field, const QString &value) {
        auto *edit = f_.window->findChild<QLineEdit *>(field);
        QVERIFY2(edit && edit->isVisible(), field);
        ++actions_;
        edit->setFocus();
        edit->selectAll();
        ++actions_;
        QTest::keyClicks(edit, value);
        QTest::keyClick(edit, Qt::Key_Return);
        QTest::qWait(20);
    }
    void show(RuleId rule) {
        const int row = stopOf(rule);
        QVERIFY(row >= 0);
        press(row, app::FindingAction::show);
    }

private:
    int stopOf(RuleId rule) {
        auto &model = f_.window->findings().model();
        for (int row = 0; row < model.rowCount(); ++row)
            if (model.finding(row).rule == rule && model.finding(row).severity == Severity::stop) return row;
        return -1;
    }
    void press(int row, app::FindingAction action) {
        auto &panel = f_.window->findings();
        const auto index = panel.model().index(row);
        panel.list().scrollTo(index);
        const QRect link = panel.delegate().linkRect(panel.list().visualRect(index), index, action);
        if (link.isEmpty()) return; // nothing is offered
        ++actions_;
        QTest::mouseClick(panel.list().viewport(), Qt::LeftButton, {}, link.center());
        QTest::qWait(30);
    }
    WindowFixture &f_;
    int actions_ = 0;
};

QStringList stopsOf(const WindowFixture &f) {
    QStringList stops;
    auto &document = f.window->document();
    for (const auto &finding : document.analysis().findings)
        if (finding.severity == Severity::stop && !finding.accepted())
            stops << QString::fromStdString(std::string(ruleName(finding.rule)) + " " +
                                            wordFinding(document.build(), finding).headline.text());
    return stops;
}

void settle(WindowFixture &f) { QTRY_VERIFY_WITH_TIMEOUT(f.document().isSurveyed(), 20000); }

/// The drawing again with everything on one layer moved aside, as plates lie on a cutter's sheet.
bool writeBeside(const QString &from, const QString &to, const QString &layer, double byX_mm) {
    QFile in(from), out(to);
    if (!in.open(QIODevice::ReadOnly) || !out.open(QIODevice::WriteOnly)) return false;
    bool entities = false, moved = false;
    while (!in.atEnd()) {
        const QByteArray code = in.readLine();
        QByteArray value = in.readLine();
        const int group = code.trimmed().toInt();
        const QByteArray text = value.trimmed();
        if (group == 2 && text == "ENTITIES") entities = true;
        if (group == 8) moved = entities && text == layer.toUtf8();
        if (group == 0) moved = false;
        if (moved && (group == 10 || group == 11)) value = QByteArray::number(text.toDouble() + byX_mm, 'f', 6) + "\n";
        out.write(code + value);
    }
    return true;
}

} // namespace

class TestJourneys : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void theFirstBuildEndsWithoutAStop() {
        WindowFixture f;
        f.document().history().setClean();
        Hands hands(f);
        hands.key(Qt::Key_N, Qt::ControlModifier);
        hands.key(Qt::Key_F3);
        for (const char *words : {"motor 2207", "prop 5 three", "nut m5 flanged", "four-in-one 55", "C7 controller"})
            hands.seat(words);
        hands.key(Qt::Key_F4);
        hands.click("furnish-stack");
        hands.key(Qt::Key_F3);
        for (const char *words :
             {"4S 1300", "60 A plug", "cap 1000 35", "14 mm camera", "vtx 400", "868 tiny", "868 whip", "5.8 stub"})
            hands.seat(words);
        hands.key(Qt::Key_F5);
        hands.click("join-fits");
        settle(f);
        const QStringList stops = stopsOf(f);
        QVERIFY2(stops.isEmpty(), qPrintable(stops.join("\n")));
        QVERIFY2(hands.actions() <= 60, qPrintable(QString::number(hands.actions())));
        qInfo("first build: %d actions, %d stops, %d watches", hands.actions(), int(stops.size()),
              f.document().analysis().counts.watch);
        // A whole craft: it hovers for some minutes, and the receivers hear.
        QVERIFY(f.document().mass()->mass_g > 400);
        QVERIFY(!f.document().analysis().derived.power->hover.empty());
        QStringList wires;
        for (const auto &wire : f.document().build().wires) wires << QString::fromStdString(wire.name);
        QVERIFY2(wires.size() == 13, qPrintable(wires.join("\n")));
    }
    void otherWordsChooseTheirOwnBestPart() {
        // Typed at the speed of a hand, one letter after another: an earlier best that is still listed gives way.
        WindowFixture f;
        f.document().history().setClean();
        f.window->newFromLayout();
        f.window->setStage(Stage::place);
        f.window->placeBench().showLibrary(true);
        auto &drawer = f.window->placeBench().library();
        QTest::keyClicks(&drawer.words(), "C7");
        QVERIFY(drawer.list().count() > 1);
        drawer.list().choose(drawer.list().types().last()); // the hand goes down the list ...
        QTest::keyClicks(&drawer.words(), " controller", Qt::NoModifier, 15);
        QCOMPARE(drawer.chosenType(), drawer.list().types().first()); // ... and types on
        QCOMPARE(drawer.chosenType(), QString("fc-305"));
    }
    void theOwlboxIsConvertedInTenActions() {
        WindowFixture f;
        QFile::copy(WEIGHTAXIS_TEST_DATA "/demos/owlbox-mini.waxis", f.folder.filePath("owl.waxis"));
        f.document().history().setClean();
        QVERIFY(f.window->openFile(f.folder.filePath("owl.waxis")));
        settle(f);
        Hands hands(f);
        QVERIFY(stopsOf(f).size() >= 8);
        // What can be mended with one press each, the worst first.
        for (const RuleId rule : {RuleId::stkHeight, RuleId::wirLength, RuleId::wirLength, RuleId::wirLength})
            hands.mend(rule);
        // Two antennas with a plug that does not go onto the new unit: another type for both.
        hands.show(RuleId::radConnector);
        hands.key(Qt::Key_R, Qt::ControlModifier);
        hands.click("library-all");
        settle(f);
        // The new unit sends beside the receiver's antenna: a little forward, where its lead still reaches.
        hands.key(Qt::Key_F3);
        const int tenMillimetres = f.plan().mapFromScene(10, 0).x() - f.plan().mapFromScene(0, 0).x();
        hands.drag("rxant", QPoint(tenMillimetres, 0));
        hands.type("position-z", "35.3"); // up on the plate, over whose rear edge it leant before
        settle(f);
        const QStringList stops = stopsOf(f);
        qInfo("owlbox: %d actions, %d stops\n%s", hands.actions(), int(stops.size()), qPrintable(stops.join("\n")));
        QVERIFY2(stops.isEmpty(), qPrintable(stops.join("\n")));
        QVERIFY(hands.actions() <= 10);
    }
    void anOwnDrawingFlies() {
        // Main plate and top plate lie beside each other in the drawing; only the common holes tell how they stack.
        WindowFixture f;
        f.document().history().setClean();
        const QString sheet = f.folder.filePath("sheet.dxf");
        QVERIFY(writeBeside(WEIGHTAXIS_TEST_DATA "/drawings/marshlight-5.dxf", sheet, "top-plate", 260));
        f.window->showStart();
        Hands hands(f);
        hands.choose("New from a frame drawing", sheet);
        const auto &found = f.window->frameBench().importPage().found().plates;
        QCOMPARE(found.size(), std::size_t(2));
        const auto leastX = [](const FoundPlate &plate) {
            double least = 1e9;
            for (const auto &p : plate.outline_mm) least = std::min(least, p.x());
            return least;
        };
        QVERIFY(std::max(leastX(found[0]), leastX(found[1])) > 150); // really beside
        QVERIFY(f.window->frameBench().isReadingDrawing());
        QVERIFY(f.document().build().parts.empty()); // a build of its own, not the demo's new frame
        hands.click("apply");
        const Frame &frame = *f.document().build().frame;
        QCOMPARE(frame.plates.size(), std::size_t(2));
        QCOMPARE(frame.motorMounts.size(), std::size_t(4));
        QCOMPARE(frame.standoffs.size(), std::size_t(4));
        for (const auto &post : frame.standoffs) QVERIFY(std::abs(post.base_mm.x()) < 60); // over the main plate
        hands.key(Qt::Key_F3);
        for (const char *words : {"motor 2207", "prop 5 three", "nut m5 flanged", "four-in-one 55", "C7 controller"})
            hands.seat(words);
        hands.key(Qt::Key_F4);
        hands.click("furnish-stack");
        hands.key(Qt::Key_F3);
        for (const char *words : {"4S 1300", "60 A plug"}) hands.seat(words);
        hands.key(Qt::Key_F5);
        hands.click("join-fits");
        settle(f);
        hands.mend(RuleId::wirLength); // the pack's own lead ends before the plug
        settle(f);
        const QStringList stops = stopsOf(f);
        qInfo("own drawing: %d actions, %d stops\n%s", hands.actions(), int(stops.size()),
              qPrintable(stops.join("\n")));
        QVERIFY2(stops.isEmpty(), qPrintable(stops.join("\n")));
        QVERIFY(hands.actions() <= 25);
        QVERIFY(!f.document().analysis().derived.power->hover.empty());
    }
    void theStakewalkerIsClearedInFifteenActions() {
        WindowFixture f;
        settle(f);
        Hands hands(f);
        QCOMPARE(int(stopsOf(f).size()), 11);
        // One press each: leads, screws, camera, the antenna in the blades, the ground's antenna, the rail, the buzzer
        // beside the compass, power leads twisted.
        for (const RuleId rule :
             {RuleId::wirLength, RuleId::wirLength, RuleId::wirLength, RuleId::stkScrew, RuleId::fitOverlap,
              RuleId::fitPropZone, RuleId::radLink, RuleId::pwrRail, RuleId::navMagnet, RuleId::navThrottle})
            hands.mend(rule);
        // The leads run under the compass all the same: its pedestal becomes a mast, and it goes up with that.
        hands.key(Qt::Key_F3);
        hands.pick("gpsmast");
        hands.key(Qt::Key_R, Qt::ControlModifier);
        hands.seat("gps mast 60");
        settle(f);
        const QStringList stops = stopsOf(f);
        qInfo("stakewalker: %d actions, %d stops\n%s", hands.actions(), int(stops.size()),
              qPrintable(stops.join("\n")));
        QVERIFY2(stops.isEmpty(), qPrintable(stops.join("\n")));
        QVERIFY(hands.actions() <= 15);
        for (const auto &finding : f.document().analysis().findings) // every part is held
            QVERIFY2(finding.rule != RuleId::fitHeld || finding.severity >= Severity::note, finding.key().c_str());
        // The antenna went with its tube.
        const auto axis = [&](const char *part) {
            return Vec3(framePose(f.document().build(), *findPart(f.document().build(), part)).rotation *
                        Vec3::UnitZ());
        };
        QVERIFY((axis("tube-l") - axis("rxant-l")).norm() < 1e-6);
    }
    void theLessonWalksAlong() {
        WindowFixture f;
        f.document().history().setClean();
        f.window->startLesson();
        auto &lesson = f.window->lesson();
        QVERIFY(lesson.isVisible());
        QCOMPARE(lesson.step(), 0);
        Hands hands(f);
        hands.key(Qt::Key_F3);
        QCOMPARE(lesson.step(), 1);
        hands.seat("motor 2207");
        QCOMPARE(lesson.step(), 2);
        QVERIFY(lesson.text().contains("prop 5"));
        hands.seat("prop 5 three");
        hands.seat("nut m5 flanged");
        QCOMPARE(lesson.step(), 4);
        f.document().history().undo(); // what is done stays done in a lesson
        QCOMPARE(lesson.step(), 4);
        auto *leave = f.window->findChild<QPushButton *>("lesson-leave");
        QTest::mouseClick(leave, Qt::LeftButton);
        QVERIFY(!lesson.isVisible());
    }
};

QTEST_MAIN(TestJourneys)
#include "test_journeys.moc"
