// The Stack stage in the real window: layers dragged, boards turned over, screws accepted, kit and mass following.
#include "app/shell/axis_bar.h"
#include "app/stages/stack/closing_card.h"
#include "app/stages/stack/gap_card.h"
#include "app/stages/stack/layer_strip.h"
#include "app/stages/stack/stack_bench.h"
#include "core/edits/stack_edits.h"
#include "core/kit/kit.h"
#include "core/stack/report.h"
#include "gui/window_fixture.h"

#include <QClipboard>
#include <QComboBox>
#include <QInputDialog>
#include <QLineEdit>
#include <QMenu>
#include <QTimer>
#include <QToolButton>

using namespace waxis;
using namespace waxis::test;

namespace {

struct StackFixture : WindowFixture {
    StackFixture() {
        window->setStage(Stage::stack);
        QTest::qWait(30);
    }
    stackbench::StackBench &bench() { return window->stackBench(); }
    stackbench::StackCanvas &canvas() { return bench().canvas(); }
    const Stack &stack() { return *bench().focus().stack(); }
    std::vector<LayerRole> roles() {
        std::vector<LayerRole> list;
        for (const auto &layer : stack().layers) list.push_back(layer.role);
        return list;
    }
    const StackReport &report() { return *bench().focus().report(); }
    void press(const QPointF &at) { QTest::mousePress(&canvas(), Qt::LeftButton, {}, at.toPoint()); }
    void moveTo(const QPointF &at) {
        QMouseEvent event(QEvent::MouseMove, at, canvas().mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
        QApplication::sendEvent(&canvas(), &event);
    }
    void release(const QPointF &at) { QTest::mouseRelease(&canvas(), Qt::LeftButton, {}, at.toPoint()); }
    template <class W>
    W *child(const char *name) {
        auto *found = window->findChild<W *>(name);
        if (!found) qFatal("no %s", name);
        return found;
    }
    void type(const char *field, const QString &text) {
        auto *edit = child<QLineEdit>(field);
        edit->setFocus();
        edit->selectAll();
        QTest::keyClicks(edit, text);
        QTest::keyClick(edit, Qt::Key_Return);
    }
    int needed(const std::string &item) {
        for (const auto &line : document().analysis().derived.kit)
            if (line.item == item) return line.needed;
        return 0;
    }
    double mass_g() { return document().mass()->mass_g; }
};

} // namespace

class TestStackStage : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void theColumnShowsWhatTheCoreComputes() {
        StackFixture f;
        const QStringList words = f.canvas().writing();
        QVERIFY(words.join('|').contains("Flight controller"));
        const double left = f.report().closest.air_mm();
        QVERIFY(words.contains(QString("%1 free").arg(left, 0, 'f', 1)));
        QCOMPARE(words.size(), int(f.stack().layers.size() + f.report().gaps.size() + 1));
    }
    void layersAreReorderedByDragging() {
        StackFixture f;
        const auto before = f.roles();
        QVERIFY(before[3] == LayerRole::spacer && before[2] == LayerRole::board);
        const QPointF from = f.canvas().layerPixels(3), to = f.canvas().layerPixels(1) + QPointF(0, 12);
        const double fcBefore = f.position("fc").z(), escBefore = f.position("esc").z();
        f.press(from);
        for (int i = 1; i <= 4; ++i) f.moveTo(from + (to - from) * i / 4);
        QVERIFY(f.document().isPreviewing()); // the column follows while the mouse is down
        QVERIFY(f.position("esc").z() > escBefore + 5);
        f.release(to);
        QVERIFY(!f.document().isPreviewing());
        QCOMPARE(f.roles()[1], LayerRole::spacer);
        QVERIFY(std::abs(f.position("fc").z() - fcBefore) < 1e-9); // the sum is the same
        QCOMPARE(f.document().history().count(), 1);
        f.document().history().undo();
        QCOMPARE(f.roles(), before);
    }
    void escapePutsADraggedLayerBack() {
        StackFixture f;
        const auto before = f.roles();
        const QPointF from = f.canvas().layerPixels(3);
        f.press(from);
        f.moveTo(from + QPointF(0, 40));
        f.moveTo(from + QPointF(0, 80));
        QTest::keyClick(&f.canvas(), Qt::Key_Escape);
        QCOMPARE(f.roles(), before);
        QCOMPARE(f.document().history().count(), 0);
    }
    void aBoardIsTurnedOverByItsKey() {
        StackFixture f;
        const QPointF fc = f.canvas().layerPixels(4);
        f.press(fc);
        f.release(fc);
        QCOMPARE(f.document().selected(), QString("fc"));
        const double up = f.report().layers[4].standsUp_mm, down = f.report().layers[4].hangsDown_mm;
        QTest::keyClick(&f.canvas(), Qt::Key_V);
        QVERIFY(f.report().layers[4].standsUp_mm != up && f.report().layers[4].hangsDown_mm > down);
        const Quat turn = framePose(f.document().build(), *findPart(f.document().build(), "fc")).rotation;
        QVERIFY((turn * Vec3::UnitZ()).z() < -0.999);
        // Place and Stack agree: one chain of poses.
        QVERIFY(
            std::abs((framePose(f.document().build(), *findPart(f.document().build(), "fc")) * Vec3(0, 0, 1.6)).z() -
                     8 - f.report().chain.spans[4].from_mm) < 1e-9);
        QTest::keyClick(&f.canvas(), Qt::Key_Q);
        QVERIFY(f.document().history().count() == 2);
    }
    void theSuggestedScrewIsAcceptedAndKitAndMassFollow() {
        StackFixture f;
        const double before = f.mass_g();
        QCOMPARE(f.needed("screw-m3x22"), 4);
        const auto &rows = f.bench().screws().rows();
        const auto use = std::find_if(rows.begin(), rows.end(), [](auto *row) { return !row->look().act.isEmpty(); });
        QVERIFY(use != rows.end());
        QCOMPARE((*use)->look().lead, QString::fromUtf8("M3 × 25"));
        QTest::mouseClick(*use, Qt::LeftButton);
        QCOMPARE(f.needed("screw-m3x22"), 0);
        QCOMPARE(f.needed("screw-m3x25"), 4);
        QVERIFY(f.mass_g() > before + 0.3 && f.mass_g() < before + 1);
        QVERIFY(f.axisText().startsWith(QString::number(f.mass_g(), 'f', 1)));
        for (const auto &finding : f.document().analysis().findings) QVERIFY(finding.rule != RuleId::stkScrew);
        QTest::keyClick(f.window.get(), Qt::Key_Z, Qt::ControlModifier);
        QVERIFY(std::abs(f.mass_g() - before) < 1e-9);
        // Another material weighs less.
        auto *material = f.child<QComboBox>("screw-material");
        material->setCurrentIndex(material->findData("titanium"));
        emit material->activated(material->currentIndex());
        QVERIFY(f.mass_g() < before - 2);
        QCOMPARE(f.needed("screw-m3x22-titanium"), 4);
    }
    void theFindingsFixDoesTheSame() {
        StackFixture f;
        auto &model = f.window->findings().model();
        int row = -1;
        for (int i = 0; i < model.rowCount(); ++i)
            if (model.finding(i).rule == RuleId::stkScrew) row = i;
        QVERIFY(row >= 0);
        f.window->setStage(Stage::kit);
        f.window->findings().act(row, app::FindingAction::show);
        QVERIFY(f.bench().isVisible()); // the finding leads to its own bench
        for (int i = 0; i < model.rowCount(); ++i)
            if (model.finding(i).rule == RuleId::stkScrew) row = i;
        f.window->findings().act(row, app::FindingAction::fix);
        QTRY_COMPARE_WITH_TIMEOUT(f.needed("screw-m3x25"), 4, 20000); // once it was tried
    }
    void numbersOfALayerAreTyped() {
        StackFixture f;
        const QPointF damper = f.canvas().layerPixels(1);
        f.press(damper);
        f.release(damper);
        f.type("layer-squeeze", "25");
        QVERIFY(std::abs(f.stack().layers[1].squeeze - 0.25) < 1e-9);
        f.type("layer-cut", "2");
        QVERIFY(std::abs(f.report().chain.spans[1].to_mm - 1.5) < 1e-9);
        f.type("layer-height", "2.8");
        f.type("layer-tolerance", "0.05");
        QVERIFY(f.stack().layers[1].height_mm == measuredValue(2.8, 0.05));
        const int steps = f.document().history().count();
        f.type("layer-height", "much");
        QCOMPARE(f.document().history().count(), steps);
        QVERIFY(f.window->notices().text().contains("much"));
        f.type("layer-squeeze", "120");
        QCOMPARE(f.document().history().count(), steps);
    }
    void layersComeAndGo() {
        StackFixture f;
        const auto before = f.stack().layers.size();
        f.bench().focus().chooseLayer(4);
        QMenu menu;
        stackbench::fillAddMenu(menu, f.bench().focus());
        QAction *spacer = nullptr, *wires = nullptr;
        for (auto *action : menu.actions()) {
            if (action->text().startsWith("Wires")) wires = action;
            if (action->menu() && action->text().startsWith("Spacers, nylon"))
                for (auto *inner : action->menu()->actions())
                    if (inner->text().contains("8 mm")) spacer = inner;
        }
        QVERIFY(spacer && wires);
        spacer->trigger();
        QCOMPARE(f.stack().layers.size(), before + 1);
        QCOMPARE(f.stack().layers[5].role, LayerRole::spacer);
        QCOMPARE(f.bench().focus().layer(), 5);
        QCOMPARE(f.needed("spacer-m3-8"), 4);
        wires->trigger();
        QCOMPARE(f.stack().layers[6].role, LayerRole::wires);
        QTest::keyClick(&f.canvas(), Qt::Key_Delete);
        f.bench().focus().chooseLayer(5);
        QTest::keyClick(&f.canvas(), Qt::Key_Delete);
        QCOMPARE(f.stack().layers.size(), before);
        QCOMPARE(f.needed("spacer-m3-8"), 0);
    }
    void everyLayerIsReachedByKeys() {
        StackFixture f;
        f.canvas().setFocus();
        for (std::size_t i = 0; i < f.stack().layers.size(); ++i) {
            QTest::keyClick(&f.canvas(), Qt::Key_Up);
            QCOMPARE(f.bench().focus().layer(), int(i));
        }
        f.bench().focus().chooseLayer(2);
        QTest::keyClick(&f.canvas(), Qt::Key_Up, Qt::ControlModifier);
        QCOMPARE(f.roles()[3], LayerRole::board);
        QCOMPARE(f.bench().focus().layer(), 3);
    }
    void whatIfTriesAndTakesBack() {
        StackFixture f;
        auto &card = f.bench().whatIf();
        QTRY_VERIFY_WITH_TIMEOUT(card.isSettled() && card.isVisible(), 10000);
        QVERIFY(card.rows()[0]->look().text.contains("M3 x 25"));
        QTest::mouseClick(card.rows()[0], Qt::LeftButton);
        QCOMPARE(f.needed("screw-m3x25"), 4);
        QCOMPARE(f.document().history().count(), 1); // several changes, one step
        f.document().history().undo();
        QCOMPARE(f.needed("screw-m3x22"), 4);
    }
    void tabsShowTheOtherStacksAndNewOnesAreMade() {
        StackFixture f;
        QCOMPARE(f.window->findChildren<QToolButton *>("stack-tab").size(), 2);
        f.window->findChildren<QToolButton *>("stack-tab")[1]->click();
        QCOMPARE(f.stack().id, std::string("stack-video"));
        f.document().select("esc"); // choosing a part elsewhere leads to its stack
        QCOMPARE(f.stack().id, std::string("stack-main"));
        std::string id;
        QVERIFY(f.document().edit("hang", addHangingStack(f.document().build(), "site-stack", &id)));
        QCOMPARE(f.window->findChildren<QToolButton *>("stack-tab").size(), 3);
        f.bench().focus().chooseStack(id);
        QVERIFY(f.report().chain.X_FrameBase.position_mm.z() < 8);
        QVERIFY(!f.canvas().grab().isNull());
    }
    void theBenchWithoutStacksSaysWhatToDo() {
        StackFixture f;
        Build bare = f.document().build();
        for (const char *id : {"stack-main", "stack-video"}) bare = *removeStack(bare, id);
        QVERIFY(f.document().edit("apart", EditResult(bare)));
        QVERIFY(f.bench().focus().stack() == nullptr);
        QVERIFY(f.canvas().writing().isEmpty());
        QVERIFY(!f.bench().grab().isNull());
        f.document().history().undo();
        QVERIFY(f.bench().focus().stack() != nullptr);
    }
    void theColumnFillsTheBenchAndItsWordsStayInside_data() {
        QTest::addColumn<QSize>("size");
        for (const QSize size : {QSize(960, 600), QSize(1100, 700), QSize(1280, 800), QSize(1390, 940)})
            QTest::newRow(qPrintable(QString("%1x%2").arg(size.width()).arg(size.height()))) << size;
    }
    void theColumnFillsTheBenchAndItsWordsStayInside() {
        QFETCH(QSize, size);
        StackFixture f;
        f.window->resize(size);
        QTest::qWait(60);
        auto &canvas = f.canvas();
        const QRectF room = QRectF(canvas.rect());
        int cut = 0;
        for (const auto &word : canvas.written()) {
            QVERIFY2(room.contains(word.box), qPrintable(QString("%1 %2").arg(word.box.x()).arg(word.box.y())));
            cut += !word.whole;
        }
        QCOMPARE(cut, 0);
        // As high as there is room for, but never beyond twice the width's scale; what is stretched says so.
        double low = 1e9, high = -1e9;
        for (int i = 0; i < int(f.stack().layers.size()); ++i) {
            low = std::min(low, canvas.layerPixels(i).y());
            high = std::max(high, canvas.layerPixels(i).y());
        }
        QVERIFY(canvas.heightsTimes() >= 1 && canvas.heightsTimes() <= 2);
        QVERIFY(canvas.heightsTimes() > 1.9 || high - low > 0.25 * canvas.height());
    }
    void cutSagAndDepthAreTypedWithTheirDoubt() {
        StackFixture f;
        const auto answer = [&](const QString &entry, const QString &text) {
            auto *menu = f.child<QToolButton>("stack-base")->menu();
            emit menu->aboutToShow();
            QAction *action = nullptr;
            for (auto *one : menu->actions())
                if (one->text().startsWith(entry)) action = one;
            QVERIFY2(action, qPrintable(entry));
            bool typed = false;
            QTimer::singleShot(0, [&] {
                auto *dialog = qobject_cast<QInputDialog *>(QApplication::activeModalWidget());
                if (!dialog) return;
                auto *field = dialog->findChild<QLineEdit *>();
                field->selectAll();
                QTest::keyClicks(field, text);
                typed = true;
                dialog->accept();
            });
            action->trigger();
            QVERIFY(typed);
        };
        answer("How far it sinks", "0.4 +- 0.1");
        QCOMPARE(f.stack().sag_mm.value, std::optional(0.4));
        QCOMPARE(f.stack().sag_mm.tolerance, std::optional(0.1));
        answer("How far it sinks", "a bit"); // said, and it stays
        QCOMPARE(f.stack().sag_mm.value, std::optional(0.4));
        QVERIFY(f.window->notices().text().contains("a bit"));
        answer("How far it sinks", " ");
        QVERIFY(!f.stack().sag_mm.known());
        answer("Depth of the thread", "6 ± 0,5 mm");
        QCOMPARE(f.stack().threadDepth_mm.value, std::optional(6.0));
        QCOMPARE(f.stack().threadDepth_mm.tolerance, std::optional(0.5));
        answer("Cut off", "1.5");
        QCOMPARE(f.stack().cut_mm, 1.5);
    }
    void theBillIsCopiedAsCsv() {
        StackFixture f;
        f.child<QToolButton>("copy-hardware")->click();
        const QString text = QApplication::clipboard()->text();
        QVERIFY(text.startsWith("item,name,material,pieces"));
        QVERIFY(text.contains("screw-m3x22"));
    }
    void everyControlHasAName() {
        StackFixture f;
        for (auto *edit : f.bench().findChildren<QLineEdit *>()) QVERIFY(!edit->accessibleName().isEmpty());
        for (auto *box : f.bench().findChildren<QComboBox *>()) QVERIFY(!box->accessibleName().isEmpty());
        for (auto *tool : f.bench().findChildren<QToolButton *>())
            QVERIFY(!tool->accessibleName().isEmpty() || !tool->text().isEmpty());
        QVERIFY(!f.canvas().accessibleName().isEmpty());
    }
};

QTEST_MAIN(TestStackStage)
#include "test_stack_stage.moc"
