// The Wire bench with mouse and keys: join ports, pin a route, overload a rail, take what is offered.
#include "app/stages/wire/wire_bench.h"
#include "core/edits/part_edits.h"
#include "core/edits/wire_edits.h"
#include "core/power/power_report.h"
#include "core/wiring/routing.h"
#include "window_fixture.h"

#include <QComboBox>
#include <QLabel>
#include <QTableWidget>
#include <QToolButton>
#include <QWheelEvent>

using namespace waxis;
using namespace waxis::test;

namespace {

wire::WireBench &bench(WindowFixture &f) {
    f.window->setStage(Stage::wire);
    QTest::qWait(30);
    return f.window->wireBench();
}

void dragOn(QWidget *widget, const QPointF &from, const QPointF &to, int steps = 4, bool drop = true) {
    QTest::mousePress(widget, Qt::LeftButton, {}, from.toPoint());
    for (int i = 1; i <= steps; ++i) {
        const QPointF at = from + (to - from) * i / steps;
        QMouseEvent move(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
        QApplication::sendEvent(widget, &move);
    }
    if (drop) QTest::mouseRelease(widget, Qt::LeftButton, {}, to.toPoint());
}

const Wire *wireOf(WindowFixture &f, const char *id) { return findWire(f.document().build(), id); }

int openFindings(WindowFixture &f, RuleId rule, Severity severity) {
    int count = 0;
    for (const auto &finding : f.document().analysis().findings)
        count += finding.rule == rule && finding.severity == severity;
    return count;
}

std::size_t indexOf(WindowFixture &f, const std::string &id) {
    const auto &wires = f.document().build().wires;
    for (std::size_t w = 0; w < wires.size(); ++w)
        if (wires[w].id == id) return w;
    return wires.size();
}

} // namespace

class TestWireStage : public QObject {
    Q_OBJECT

private slots:
    void theBenchShowsEveryWire() {
        WindowFixture f;
        auto &b = bench(f);
        QCOMPARE(b.table().rowCount(), int(f.document().build().wires.size()));
        QVERIFY(b.rails().rowOf("fc:5v").isValid());
        QVERIFY(b.rails().rowOf("pack:BAT").isValid());
        QVERIFY(!b.rails().rowOf("pack-small:BAT").isValid()); // it flies in another load case
        // A row chosen shows the wire's sum in the inspector.
        b.table().setCurrentCell(int(indexOf(f, "w-gps")), 0);
        QCOMPARE(f.document().selected(), QString("w-gps"));
        auto *sum = f.window->findChild<QLabel *>("wire-sum");
        QVERIFY(sum && sum->isVisible() && sum->text().contains("needed"));
    }
    void portsAreJoinedByDragging() {
        WindowFixture f;
        auto &b = bench(f);
        f.document().edit("out", removeWire(f.document().build(), "w-cam"));
        QVERIFY(!wireOf(f, "w-cam"));
        const auto from = b.map().portPixel({"cam", "signal"}), to = b.map().portPixel({"fc", "video"});
        QVERIFY(from && to);
        dragOn(b.map().viewport(), *from, *to);
        const Wire *wire = f.document().build().wires.empty() ? nullptr : &f.document().build().wires.back();
        QVERIFY(wire && wire->from.part == "cam" && wire->to.part == "fc");
        QCOMPARE(wire->cores.size(), std::size_t(3));
        QVERIFY(std::any_of(wire->cores.begin(), wire->cores.end(),
                            [](const WireCore &c) { return c.fromPin == "VIDEO" && c.toPin == "CAM"; }));
        QCOMPARE(f.document().selected(), QString::fromStdString(wire->id));
        f.document().history().undo();
        QVERIFY(f.document().build().wires.back().from.part != "cam");
    }
    void aDropOnAPartTakesTheFreePort() {
        WindowFixture f;
        auto &b = bench(f);
        f.document().edit("out", removeWire(f.document().build(), "w-rx"));
        b.map().fit();
        const auto from = b.map().portPixel({"rx", "serial"});
        QVERIFY(from);
        // Somewhere on the controller where no port is near.
        const QPointF on = b.map().pixel(f.position("fc") + Vec3(4, 3, 0));
        dragOn(b.map().viewport(), *from, on);
        const Wire &wire = f.document().build().wires.back();
        QVERIFY(wire.from.part == "rx");
        QVERIFY(wire.to.part == "fc" && wire.to.port.starts_with("uart"));
        for (const auto &other : f.document().build().wires)
            if (&other != &wire) QVERIFY(!(other.to == wire.to));
    }
    void aRouteIsPinnedMovedAndFreed() {
        WindowFixture f;
        auto &b = bench(f);
        f.document().select("w-gps");
        const auto before = f.document().analysis().derived.routes[indexOf(f, "w-gps")];
        QVERIFY(before.points_mm.size() > 5);
        const Vec3 bend = before.points_mm[before.points_mm.size() / 2];
        const QPointF at = b.map().pixel(bend), to = at + QPointF(0, -40);
        dragOn(b.map().viewport(), at, to, 4, false);
        QVERIFY(f.document().isPreviewing()); // live while the mouse is down
        QTest::mouseRelease(b.map().viewport(), Qt::LeftButton, {}, to.toPoint());
        QCOMPARE(wireOf(f, "w-gps")->stops.size(), std::size_t(1));
        const Vec3 pinned = wireOf(f, "w-gps")->stops[0].point_mm;
        QVERIFY(std::abs(pinned.z() - bend.z()) < 1e-9);
        const auto after = f.document().analysis().derived.routes[indexOf(f, "w-gps")];
        QVERIFY(after.length_mm > before.length_mm);
        const QPoint grip = b.map().pixel(pinned).toPoint();
        QTest::mouseDClick(b.map().viewport(), Qt::LeftButton, {}, grip);
        QVERIFY(wireOf(f, "w-gps")->stops.empty());
    }
    void anOverloadedRailStopsAndIsRelieved() {
        WindowFixture f;
        auto &b = bench(f);
        QCOMPARE(openFindings(f, RuleId::pwrRail, Severity::stop), 1); // the camera that charges in flight
        f.document().edit("out", removeWire(f.document().build(), "w-charge"));
        QCOMPARE(openFindings(f, RuleId::pwrRail, Severity::stop), 0);
        // Joined again by hand it is overloaded again, and the stop is there at once.
        const auto from = b.map().portPixel({"acam", "charge"}), to = b.map().portPixel({"fc", "uart4"});
        QVERIFY(from && to);
        dragOn(b.map().viewport(), *from, *to);
        QCOMPARE(openFindings(f, RuleId::pwrRail, Severity::stop), 1);
        // The video transmitter from 9 V over to the pack, by its block.
        const QRectF block = b.rails().blockOf("vtx"), row = b.rails().rowOf("pack:BAT");
        QVERIFY(block.isValid() && row.isValid());
        dragOn(&b.rails(), block.center(), row.center());
        bool onPack = false;
        for (const auto &rail : f.document().analysis().derived.power->rails)
            for (const auto &load : rail.loads) onPack |= rail.output == "BAT" && load.part == "vtx";
        QVERIFY(onPack);
        QVERIFY(f.document().history().canUndo());
        // Onto 5 V it would burn nothing but overload more: the camera's block to 9 V is refused by voltage as a stop.
        f.document().history().undo();
        const QRectF lamp = b.rails().blockOf("lamp-1"), nine = b.rails().rowOf("fc:9v");
        QVERIFY(lamp.isValid() && nine.isValid());
        dragOn(&b.rails(), lamp.center(), nine.center());
        QVERIFY(openFindings(f, RuleId::pwrRange, Severity::stop) >= 1);
    }
    void aBarIsMarkedAsTheLedgerJudgesIt() {
        WindowFixture f;
        f.window->setStage(Stage::wire);
        auto &rails = f.window->wireBench().rails();
        QCOMPARE(rails.verdictOn("fc:5v"), Severity::stop); // 141 %
        QCOMPARE(rails.verdictOn("fc:9v"), Severity::pass);
        // A pack may give more than its continuous current for seconds: what the rule watches, the bar watches.
        Severity pack = Severity::pass;
        for (const auto &finding : f.document().analysis().findings)
            if (finding.rule == RuleId::pwrPack && finding.subjects[0] == "pack-small")
                pack = std::min(pack, finding.severity);
        QCOMPARE(rails.verdictOn("pack-small:BAT"), pack);
        // Accepted is accepted.
        for (const auto &finding : f.document().analysis().findings)
            if (finding.rule == RuleId::pwrRail && finding.variant == "5v") {
                QVERIFY(f.document().edit("Accept", acceptFinding(f.document().build(), finding.key(), "measured")));
                break;
            }
        QCOMPARE(rails.verdictOn("fc:5v"), Severity::pass);
    }
    void bothBarsOfAJoinedRailAreMarked() {
        // One finding for both regulators; each bar shows what it says.
        WindowFixture f;
        f.document().history().setClean();
        QFile::copy(WEIGHTAXIS_TEST_DATA "/demos/sedge-tri.waxis", f.folder.filePath("sedge.waxis"));
        QVERIFY(f.window->openFile(f.folder.filePath("sedge.waxis")));
        f.window->setStage(Stage::wire);
        auto &rails = f.window->wireBench().rails();
        QCOMPARE(openFindings(f, RuleId::pwrRail, Severity::watch), 1);
        QCOMPARE(rails.verdictOn("esc-fr:5v"), Severity::watch);
        QCOMPARE(rails.verdictOn("fc:5v"), Severity::watch);
        QCOMPARE(rails.verdictOn("fc:9v"), Severity::pass);
    }
    void pinsAreJoinedAndMoved() {
        WindowFixture f;
        auto &b = bench(f);
        f.document().select("w-rx");
        b.showPage(wire::Page::pins);
        QTest::qWait(20);
        auto &board = b.pins().board();
        QVERIFY(board.left() == (WireEnd{"rx", "serial"}));
        const auto pin = [&](bool left, const char *name) {
            const Port *port = portOf(f.document().build(), left ? board.left() : board.right());
            return board.pinPixel(left, pinIndex(*port, name));
        };
        // TX to TX is wrong, and said so.
        dragOn(&board, pin(true, "TX"), pin(false, "TX"));
        QCOMPARE(openFindings(f, RuleId::lnkCross, Severity::stop), 1); // both cores of one wire
        dragOn(&board, pin(true, "TX"), pin(false, "RX"));
        QCOMPARE(openFindings(f, RuleId::lnkCross, Severity::stop), 0);
        // A pin that is not joined yet.
        f.document().edit("out", removeCore(f.document().build(), "w-rx", 0));
        dragOn(&board, pin(true, "5V"), pin(false, "5V"));
        QCOMPARE(wireOf(f, "w-rx")->cores.size(), std::size_t(4));
    }
    void aFreePortIsSuggestedAndTaken() {
        WindowFixture f;
        auto &b = bench(f);
        f.document().edit("out", removeWire(f.document().build(), "w-rx"));
        b.showPage(wire::Page::pins);
        b.pins().showPort({"rx", "serial"});
        auto choose = [](QComboBox &box, const QStringList &end) {
            box.setCurrentIndex(box.findData(end));
            emit box.activated(box.currentIndex());
        };
        choose(b.pins().leftPort(), {"rx", "serial"});
        choose(b.pins().rightPort(), {"fc", "video"});
        auto *suggest = b.findChild<QToolButton *>("suggest-port");
        QVERIFY(suggest && suggest->isEnabled());
        QTest::mouseClick(suggest, Qt::LeftButton);
        QVERIFY(b.pins().rightPort().currentText().contains("uart1"));
        auto *propose = b.findChild<QToolButton *>("propose");
        QVERIFY(propose->isEnabled());
        QTest::mouseClick(propose, Qt::LeftButton);
        const Wire &wire = f.document().build().wires.back();
        QCOMPARE(wire.cores.size(), std::size_t(4));
        QVERIFY(!propose->isEnabled()); // they are joined now
        // What another unit would need is told.
        auto *wish = b.findChild<QComboBox *>("wish");
        wish->setCurrentIndex(wish->findData("dvu-30"));
        emit wish->activated(wish->currentIndex());
        auto *needs = b.findChild<QLabel *>("needs");
        QVERIFY(needs->text().contains("serial port"));
        QVERIFY(needs->text().contains("fc/9v"));
    }
    void keysTieAndRemove() {
        WindowFixture f;
        auto &b = bench(f);
        f.document().select("w-buzzer");
        const auto route = f.document().analysis().derived.routes[indexOf(f, "w-buzzer")];
        const QPointF at = b.map().pixel(pointAlong(route.points_mm, route.length_mm * 0.55));
        QMouseEvent move(QEvent::MouseMove, at, b.map().viewport()->mapToGlobal(at), Qt::NoButton, Qt::NoButton, {});
        QApplication::sendEvent(b.map().viewport(), &move);
        b.map().setFocus();
        const std::size_t ties = f.document().build().ties.size();
        QTest::keyClick(&b.map(), Qt::Key_T);
        QCOMPARE(f.document().build().ties.size(), ties + 1);
        QTest::keyClick(&b.map(), Qt::Key_Delete);
        QVERIFY(!wireOf(f, "w-buzzer"));
        f.document().history().undo();
        QVERIFY(wireOf(f, "w-buzzer"));
    }
    void theInspectorChangesAWire() {
        WindowFixture f;
        bench(f);
        f.document().select("w-main");
        auto *gauge = f.window->findChild<QComboBox *>("wire-gauge");
        QVERIFY(gauge && gauge->isVisible());
        // On its way down the inspector the wheel changes no wire; where the keyboard is, it may.
        const auto rolledOver = [&] {
            const QPoint middle = gauge->rect().center();
            QWheelEvent event(middle, gauge->mapToGlobal(middle), {}, {0, -120}, Qt::NoButton, Qt::NoModifier,
                              Qt::NoScrollPhase, false);
            const int before = gauge->currentIndex();
            QApplication::sendEvent(gauge, &event);
            return gauge->currentIndex() - before;
        };
        f.window->setFocus();
        QVERIFY(!gauge->hasFocus());
        QCOMPARE(rolledOver(), 0);
        gauge->setFocus();
        QVERIFY(gauge->hasFocus());
        QCOMPARE(rolledOver(), 1);
        f.document().history().undo();
        gauge->setCurrentIndex(gauge->findData(10));
        emit gauge->activated(gauge->currentIndex());
        QCOMPARE(wireOf(f, "w-main")->gauge_AWG.value_or(0), 10);
        auto *lay = f.window->findChild<QComboBox *>("wire-lay");
        lay->setCurrentIndex(1);
        emit lay->activated(1);
        QVERIFY(wireOf(f, "w-main")->lay == WireLay::twisted);
        f.document().history().undo();
        f.document().history().undo();
        QCOMPARE(wireOf(f, "w-main")->gauge_AWG.value_or(0), 12);
    }
    void namesOfWiresAndButtonsAreWhole_data() {
        QTest::addColumn<QSize>("size");
        QTest::newRow("small") << QSize(1100, 700);
        QTest::newRow("usual") << QSize(1280, 800);
    }
    void namesOfWiresAndButtonsAreWhole() {
        QFETCH(QSize, size);
        WindowFixture f;
        f.window->resize(size);
        f.window->setStage(Stage::wire);
        QTest::qWait(60);
        auto &table = f.window->wireBench().table();
        QVERIFY(table.rowCount() > 10);
        constexpr int kSwatch_px = 16;
        for (int row = 0; row < table.rowCount(); ++row) {
            const auto *name = table.item(row, 0);
            const int wide = QFontMetrics(name->font()).horizontalAdvance(name->text()) + kSwatch_px;
            QVERIFY2(wide <= table.columnWidth(0), qPrintable(name->text()));
        }
        for (const char *name : {"join-fits", "join-ports", "wire-view"}) {
            auto *button = f.window->findChild<QToolButton *>(name);
            QVERIFY2(button->width() >= button->sizeHint().width(), name);
        }
        QVERIFY(table.item(0, 0)->toolTip().contains("→")); // both ends, where their column has no room
    }
    void theCutListIsATableAndCsv() {
        WindowFixture f;
        auto &b = bench(f);
        b.showPage(wire::Page::cut);
        QTest::qWait(20);
        QVERIFY(b.cuts().table().rowCount() > 60);
        QVERIFY(b.cuts().asCsv().startsWith("label,colour,"));
        QCOMPARE(b.cuts().asCsv().count("w-gps "), 4);
    }
};

QTEST_MAIN(TestWireStage)
#include "test_wire_stage.moc"
