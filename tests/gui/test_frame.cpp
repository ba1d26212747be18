// The Frame stage in the real window.
#include "app/shell/start_page.h"
#include "app/stages/frame/frame_bench.h"
#include "core/layout/frame_report.h"
#include "gui/window_fixture.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>
#include <QTableWidget>
#include <QToolButton>

using namespace waxis;
using test::WindowFixture;

namespace {

void dragOn(QWidget &widget, const QPointF &from, const QPointF &to) {
    QTest::mousePress(&widget, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= 4; ++i) {
        const QPointF at = from + (to - from) * i / 4;
        QMouseEvent move(QEvent::MouseMove, at, widget.mapToGlobal(at), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&widget, &move);
    }
}

} // namespace

class TestFrameStage : public QObject {
    Q_OBJECT

private slots:
    void aNewBuildBeginsWithALayout() {
        WindowFixture f;
        f.document().history().setClean();
        auto *start = f.window->findChild<app::StartPage *>();
        QVERIFY(start);
        QPushButton *begin = nullptr;
        for (auto *button : start->findChildren<QPushButton *>())
            if (button->text().startsWith("New from a layout")) begin = button;
        QVERIFY(begin);
        begin->click();
        QCOMPARE(f.window->stage(), Stage::frame);
        QCOMPARE(f.document().build().frame->layout, std::string("quad-x"));
        QVERIFY(f.document().build().parts.empty());
        QVERIFY(f.document().path().isEmpty());
        QVERIFY(!f.document().isModified());

        // Numbers beside the drawing change it...
        auto &panel = f.window->frameBench().panel();
        auto *arm = qobject_cast<QDoubleSpinBox *>(panel.editorOf("arm_mm"));
        QVERIFY(arm);
        arm->setFocus();
        arm->selectAll();
        QTest::keyClicks(arm, "130");
        QTest::keyClick(arm, Qt::Key_Return);
        QVERIFY(std::abs(motorDiagonal_mm(*f.document().build().frame) - 260) < 1e-9);
        // ...and a layout is changed for another, what both ask for keeps its number.
        auto *layouts = panel.findChild<QComboBox *>("layout");
        layouts->setCurrentIndex(layouts->findData("hexa-x"));
        emit layouts->activated(layouts->currentIndex());
        QCOMPARE(f.document().build().frame->motorMounts.size(), std::size_t(6));
        QVERIFY(std::abs(motorDiagonal_mm(*f.document().build().frame) - 260) < 1e-9);
        f.document().history().undo();
        f.document().history().undo();
        QVERIFY(std::abs(motorDiagonal_mm(*f.document().build().frame) - 236) < 1e-9);
    }
    void handlesAndNumbersDoTheSame() {
        WindowFixture f;
        f.document().history().setClean();
        f.window->newFromLayout();
        QTest::qWait(30);
        auto &canvas = f.window->frameBench().canvas();
        const QPointF from = canvas.handlePixels(HandleKind::motor, "mount-fr");
        const Vec3 at = f.document().build().frame->motorMounts[0].position_mm;
        QCOMPARE(f.document().build().frame->motorMounts[0].id, std::string("mount-fr"));
        const QPointF to = canvas.toPixels(at.x() + 20, at.y() - 20);
        dragOn(canvas, from, to);
        QVERIFY(f.document().isPreviewing());
        QTest::mouseRelease(&canvas, Qt::LeftButton, {}, to.toPoint());
        QVERIFY(!f.document().isPreviewing());
        const double arm = f.document().build().frame->layoutParameters.at("arm_mm");
        QVERIFY2(std::abs(arm - (118 + 20 * std::sqrt(2.0))) < 1.5, qPrintable(QString::number(arm)));
        QCOMPARE(qobject_cast<QDoubleSpinBox *>(f.window->frameBench().panel().editorOf("arm_mm"))->value(), arm);
        QCOMPARE(f.document().history().count(), 1); // one step to undo
        f.document().history().undo();
        QCOMPARE(f.document().build().frame->layoutParameters.at("arm_mm"), 118.0);
        // Escape puts it back while the mouse is down.
        dragOn(canvas, from, to);
        QTest::keyClick(&canvas, Qt::Key_Escape);
        QVERIFY(!f.document().isPreviewing());
        QTest::mouseRelease(&canvas, Qt::LeftButton, {}, to.toPoint());
        QCOMPARE(f.document().build().frame->layoutParameters.at("arm_mm"), 118.0);
    }
    void motorsAreNumberedAndReversed() {
        WindowFixture f;
        f.window->setStage(Stage::frame);
        auto &panel = f.window->frameBench().panel();
        auto *numbering = panel.findChild<QComboBox *>("numbering");
        numbering->setCurrentIndex(numbering->findData("diagonal-first"));
        emit numbering->activated(numbering->currentIndex());
        QCOMPARE(f.document().build().frame->motorMounts[1].number, 1); // front right
        auto *motors = panel.findChild<QTableWidget *>("motors");
        QCOMPARE(motors->rowCount(), 4);
        motors->item(0, 0)->setText("1");
        QCOMPARE(f.document().build().frame->motorMounts[0].number, 1);
        QCOMPARE(f.document().build().frame->numbering, std::string("own"));
        const Spin before = f.document().build().frame->motorMounts[0].spin;
        emit motors->cellClicked(0, 2);
        QCOMPARE(f.document().build().frame->motorMounts[0].spin, opposite(before));
        QVERIFY(motors->item(0, 3)->text().contains("right-hand"));
    }
    void platesAreChangedInTheirTable() {
        WindowFixture f;
        f.window->setStage(Stage::frame);
        auto *plates = f.window->frameBench().panel().findChild<QTableWidget *>("plates");
        QCOMPARE(plates->rowCount(), 3);
        const double before = plates->item(0, 4)->text().toDouble();
        plates->item(0, 1)->setText("4");
        QCOMPARE(f.document().build().frame->plates[0].thickness_mm, 4.0);
        QVERIFY(std::abs(plates->item(0, 4)->text().toDouble() - 2 * before) < 0.2);
        plates->item(0, 1)->setText("thick");
        QCOMPARE(f.document().build().frame->plates[0].thickness_mm, 4.0);
        plates->item(0, 1)->setText("-1");
        QCOMPARE(f.document().build().frame->plates[0].thickness_mm, 4.0);
    }
    void aDrawingIsLookedOverCorrectedAndApplied() {
        WindowFixture f;
        f.window->newFromDrawing(WEIGHTAXIS_TEST_FIXTURES "/drawings/plate-r2010-mm.dxf");
        QTest::qWait(30);
        auto &bench = f.window->frameBench();
        QVERIFY(bench.isReadingDrawing());
        QVERIFY(f.document().build().frame->plates.empty()); // nothing is applied yet
        auto &page = bench.importPage();
        QCOMPARE(page.found().plates.size(), std::size_t(1));
        // The obround slot was taken for a pass-through; it is for a strap.
        auto &canvas = page.canvas();
        QTest::mouseClick(&canvas, Qt::LeftButton, {}, canvas.pixelsOf({100, 30}).toPoint());
        auto *use = page.findChild<QComboBox *>("pick-use");
        QVERIFY(use->isVisible());
        QCOMPARE(use->currentData().toInt(), int(SlotUse::passThrough));
        use->setCurrentIndex(use->findData(int(SlotUse::strap)));
        emit use->activated(use->currentIndex());
        // The pattern that looked like a motor's is none here.
        QTest::mouseClick(&canvas, Qt::LeftButton, {}, canvas.pixelsOf({20, 36.5}).toPoint());
        QCOMPARE(use->currentData().toInt(), int(PatternUse::motor));
        use->setCurrentIndex(use->findData(int(PatternUse::other)));
        emit use->activated(use->currentIndex());
        auto *plates = page.findChild<QTableWidget *>("found-plates");
        plates->item(0, 2)->setText("3");
        QCOMPARE(page.choices().plates[0].thickness_mm, 3.0);
        page.findChild<QPushButton *>("apply")->click();
        QVERIFY(!bench.isReadingDrawing());
        const Frame &frame = *f.document().build().frame;
        QCOMPARE(frame.plates.size(), std::size_t(1));
        QCOMPARE(frame.plates[0].thickness_mm, 3.0);
        QVERIFY(frame.motorMounts.empty());
        QVERIFY(frame.passThroughs.empty());
        QVERIFY(std::any_of(frame.sites.begin(), frame.sites.end(),
                            [](const Site &s) { return s.kind == SiteKind::strap; }));
        f.document().history().undo();
        QVERIFY(f.document().build().frame->plates.empty());
    }
    void aPostIsDraggedAndTakenOutInTheDrawing() {
        WindowFixture f;
        f.document().history().setClean();
        f.window->newFromLayout();
        QTest::qWait(30);
        auto &canvas = f.window->frameBench().canvas();
        auto post = [&] { return f.document().build().frame->standoffs.front(); };
        const Standoff before = post();
        const QPointF at = *canvas.thingPixels(before.id);
        const double px = canvas.pixelsPerMm();
        dragOn(canvas, at, at + QPointF(-3 * px, 0)); // three millimetres aft
        QVERIFY(f.document().isPreviewing());
        QTest::mouseRelease(&canvas, Qt::LeftButton, {}, (at + QPointF(-3 * px, 0)).toPoint());
        QVERIFY(std::abs(post().base_mm.x() - before.base_mm.x() + 3) <= 0.51);
        QVERIFY(std::abs(post().base_mm.y() - before.base_mm.y()) <= 0.51);
        QCOMPARE(f.document().selected().toStdString(), before.id);
        // The plates are drilled anew with it.
        bool drilled = false;
        for (const auto &plate : f.document().build().frame->plates)
            for (const auto &hole : plate.holes) drilled |= (hole.centre_mm - post().base_mm.head<2>()).norm() < 1e-6;
        QVERIFY(drilled);
        f.document().history().undo();
        QCOMPARE(post(), before);
        // Off the plate it does not go, and says why; Del takes it out.
        const std::size_t posts = f.document().build().frame->standoffs.size();
        dragOn(canvas, at, at + QPointF(0, -200 * px));
        QTest::mouseRelease(&canvas, Qt::LeftButton, {}, (at + QPointF(0, -200 * px)).toPoint());
        QVERIFY(!f.window->notices().text().isEmpty());
        f.document().select(QString::fromStdString(before.id));
        canvas.setFocus();
        QTest::keyClick(&canvas, Qt::Key_Delete);
        QCOMPARE(f.document().build().frame->standoffs.size(), posts - 1);
    }
    void tabWalksTheFrameAndZGoesToWhatIsChosen() {
        WindowFixture f;
        f.window->setStage(Stage::frame);
        auto &canvas = f.window->frameBench().canvas();
        canvas.setFocus();
        f.document().select({});
        QStringList walked;
        for (int i = 0; i < 4; ++i) {
            QTest::keyClick(&canvas, Qt::Key_Tab);
            walked << f.document().selected();
        }
        QCOMPARE(QSet<QString>(walked.begin(), walked.end()).size(), qsizetype(4));
        QTest::keyClick(&canvas, Qt::Key_Backtab);
        QCOMPARE(f.document().selected(), walked[2]);
        const double before = canvas.pixelsPerMm();
        f.document().select("so-1");
        QTest::keyClick(&canvas, Qt::Key_Z);
        QVERIFY(canvas.pixelsPerMm() > 2 * before);
        QVERIFY(QLineF(*canvas.thingPixels("so-1"), QRectF(canvas.rect()).center()).length() < 2);
        QTest::keyClick(&canvas, Qt::Key_0);
        QVERIFY(std::abs(canvas.pixelsPerMm() - before) < 1e-6);
        // Beyond the last thing the keyboard leaves the drawing.
        f.document().select(QString::fromStdString(f.document().build().frame->passThroughs.empty()
                                                       ? f.document().build().frame->sites.back().id
                                                       : f.document().build().frame->passThroughs.back().id));
        QTest::keyClick(&canvas, Qt::Key_Tab);
        QVERIFY(!canvas.hasFocus());
    }
    void platesAreLaidTogetherByHandAndNamedByTheirWriting() {
        WindowFixture f;
        auto &bench = f.window->frameBench();
        f.window->setStage(Stage::frame);
        bench.readDrawing(WEIGHTAXIS_TEST_DATA "/drawings/marshlight-5.dxf");
        auto &page = bench.importPage();
        QCOMPARE(page.choices().plates.size(), std::size_t(2));
        for (const auto &plate : page.choices().plates) // its caption names both
            QCOMPARE(plate.thickness_mm, plate.role == PlateRole::main ? 5.0 : 2.0);
        const std::size_t top = page.choices().plates[0].role == PlateRole::top ? 0 : 1;
        auto *laid = page.findChild<QToolButton *>("laid");
        auto *again = page.findChild<QToolButton *>("by-holes");
        QTest::mouseClick(laid, Qt::LeftButton);
        QVERIFY(page.canvas().isLaid());
        QVERIFY(!again->isVisible());
        // A corner of the top plate is taken hold of and drawn aside, freely.
        const auto &found = page.found().plates[top];
        Vec2 grip = Vec2::Zero();
        for (const auto &p : found.outline_mm) grip += p / double(found.outline_mm.size());
        grip += Vec2(6, 3);
        const Vec2 shift = plateShifts(page.found(), page.choices())[top];
        const QPointF at = page.canvas().pixelsOf(grip + shift);
        const double px = page.canvas().pixelsPerMm();
        dragOn(page.canvas(), at, at + QPointF(11 * px, 0));
        QTest::mouseRelease(&page.canvas(), Qt::LeftButton, {}, (at + QPointF(11 * px, 0)).toPoint());
        std::optional<Vec2> moved;
        for (const auto &plate : page.choices().plates)
            if (plate.shift_mm) moved = plate.shift_mm;
        QVERIFY(moved);
        QVERIFY(again->isVisible());
        QTest::mouseClick(again, Qt::LeftButton);
        for (const auto &plate : page.choices().plates) QVERIFY(!plate.shift_mm);
        // A name is typed; another reading of the layers keeps it.
        auto *plates = page.findChild<QTableWidget *>("found-plates");
        plates->item(int(top), 0)->setText("My roof");
        QCOMPARE(page.choices().plates[top].name, std::string("My roof"));
    }
    void aPlateOfADrawingIsTurnedAndTabWalksWhatWasFound() {
        WindowFixture f;
        f.window->setStage(Stage::frame);
        f.window->frameBench().readDrawing(WEIGHTAXIS_TEST_DATA "/drawings/marshlight-5.dxf");
        auto &page = f.window->frameBench().importPage();
        auto &canvas = page.canvas();
        auto *turn = page.findChild<QDoubleSpinBox *>("plate-turn");
        canvas.setFocus();
        QVERIFY(!turn->isVisible()); // nothing is picked yet
        QTest::keyClick(&canvas, Qt::Key_Tab);
        QVERIFY(turn->isVisible());
        const auto widest = [&] {
            double low = 1e9, high = -1e9;
            for (const auto &p : page.found().plates[0].outline_mm) {
                low = std::min(low, p.x());
                high = std::max(high, p.x());
            }
            return high - low;
        };
        const double drawn = widest();
        QTest::keyClick(&canvas, Qt::Key_Q);
        QCOMPARE(page.choices().plates[0].turn_deg, 90.0);
        QCOMPARE(turn->value(), 90.0);
        QVERIFY(std::abs(widest() - drawn) > 1 || page.found().plates[0].patterns.size() > 1);
        QTest::keyClick(&canvas, Qt::Key_E, Qt::ShiftModifier); // by one degree
        QCOMPARE(page.choices().plates[0].turn_deg, 89.0);
        QTest::keyClick(&canvas, Qt::Key_E, Qt::ControlModifier); // with Ctrl they are the window's
        QCOMPARE(page.choices().plates[0].turn_deg, 89.0);
        turn->setValue(0);
        QVERIFY(std::abs(widest() - drawn) < 1e-6);
        const QStringList texts = waxis::test::readMenu(
            [&] { emit canvas.contextWanted(canvas.mapToGlobal(QPoint(5, 5))); }, "Turn the plate right");
        QVERIFY(!texts.isEmpty());
        QCOMPARE(page.choices().plates[0].turn_deg, -90.0);
        // On to what the plate has; Z goes there; beyond the last thing the keyboard leaves the drawing.
        QTest::keyClick(&canvas, Qt::Key_Tab);
        auto *use = page.findChild<QComboBox *>("pick-use");
        QVERIFY(use->isVisible());
        const double before = canvas.pixelsPerMm();
        QTest::keyClick(&canvas, Qt::Key_Z);
        QVERIFY(canvas.pixelsPerMm() > 1.5 * before);
        for (int i = 0; i < 500 && canvas.hasFocus(); ++i) QTest::keyClick(&canvas, Qt::Key_Tab);
        QVERIFY(!canvas.hasFocus());
    }
    void whatCannotBeCutIsMarkedWhenTheDrawingIsRead() {
        WindowFixture f;
        QFile file(f.folder.filePath("edge.dxf"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        const auto ring = [](double x0, double y0, double x1, double y1) {
            QByteArray text = "0\nLWPOLYLINE\n8\nmain\n90\n4\n70\n1\n";
            const double xs[] = {x0, x1, x1, x0}, ys[] = {y0, y0, y1, y1};
            for (int i = 0; i < 4; ++i)
                text += "10\n" + QByteArray::number(xs[i]) + "\n20\n" + QByteArray::number(ys[i]) + "\n";
            return text;
        };
        file.write("0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n" +
                   ring(0, 0, 100, 60) + ring(85, 20, 104, 24) + "0\nENDSEC\n0\nEOF\n");
        file.close();
        f.window->setStage(Stage::frame);
        f.window->frameBench().readDrawing(file.fileName());
        auto &page = f.window->frameBench().importPage();
        QCOMPARE(page.found().faults.size(), std::size_t(1));
        auto *faults = page.findChild<QLabel *>("faults");
        QVERIFY(faults->isVisible());
        QVERIFY2(faults->text().contains("edge"), qPrintable(faults->text()));
        // The mark stands there: stop red round the place.
        const QImage shot = page.canvas().grab().toImage();
        const QPoint at = page.canvas().pixelsOf(page.found().faults[0].at_mm).toPoint();
        int red = 0;
        for (int x = at.x() - 12; x <= at.x() + 18; ++x)
            for (int y = at.y() - 18; y <= at.y() + 12; ++y)
                if (shot.rect().contains(x, y)) {
                    const QColor c = shot.pixelColor(x, y);
                    red += c.red() > 180 && c.green() < 160 && c.blue() < 150;
                }
        QVERIFY(red > 20);
    }
    void aDrawingWithoutUnitAsksForIt() {
        WindowFixture f;
        f.window->newFromDrawing(WEIGHTAXIS_TEST_FIXTURES "/drawings/plate-r12-in.dxf");
        auto &page = f.window->frameBench().importPage();
        QVERIFY(page.found().plates.empty());
        QVERIFY(page.findChild<QLabel *>("problem")->text().contains("mm, or in"));
        QVERIFY(!page.findChild<QPushButton *>("apply")->isEnabled());
        auto *units = page.findChild<QComboBox *>("units");
        units->setCurrentIndex(units->findData("in"));
        emit units->activated(units->currentIndex());
        QCOMPARE(page.found().plates.size(), std::size_t(1));
        QVERIFY(page.findChild<QPushButton *>("apply")->isEnabled());
    }
    void aBrokenDrawingIsToldAndLeavesTheBuildAlone() {
        WindowFixture f;
        const auto before = f.document().build();
        QFile bad(f.folder.filePath("bad.dxf"));
        QVERIFY(bad.open(QIODevice::WriteOnly));
        bad.write("0\nSECTION\n2\nENTITIES\n0\nLINE\n");
        bad.close();
        f.window->setStage(Stage::frame);
        f.window->frameBench().readDrawing(bad.fileName());
        auto &page = f.window->frameBench().importPage();
        QVERIFY(page.findChild<QLabel *>("problem")->text().contains("expected"));
        for (auto *button : page.findChildren<QPushButton *>())
            if (button->text() == "Leave it") button->click();
        QVERIFY(!f.window->frameBench().isReadingDrawing());
        QVERIFY(f.document().build() == before);
    }
    void drawingsAndListsCanBeDropped() {
        WindowFixture f;
        auto drop = [&](const QString &path) {
            QMimeData data;
            data.setUrls({QUrl::fromLocalFile(path)});
            QDragEnterEvent enter(QPoint(400, 400), Qt::CopyAction, &data, Qt::LeftButton, {});
            QApplication::sendEvent(f.window.get(), &enter);
            QVERIFY(enter.isAccepted());
            QDropEvent event(QPointF(400, 400), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(f.window.get(), &event);
        };
        drop(WEIGHTAXIS_TEST_FIXTURES "/drawings/pieces.dxf");
        QCOMPARE(f.window->stage(), Stage::frame);
        QVERIFY(f.window->frameBench().isReadingDrawing());
    }
};

QTEST_MAIN(TestFrameStage)
#include "test_frame.moc"
