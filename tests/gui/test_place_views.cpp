// The looks of the Place bench in the real window: solid, lens, sky with places, overlays, sections, measuring, several
// parts together, folding.
#include "app/document/survey_runner.h"
#include "app/drawing/gl_guard.h"
#include "app/drawing/mark_clusters.h"
#include "app/drawing/tag_board.h"
#include "app/stages/place/legend.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/outline_panel.h"
#include "app/stages/place/place_view.h"
#include "core/build/folding.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/rules/wording.h"
#include "core/scene/scene.h"
#include "core/survey/views.h"
#include "gui/window_fixture.h"

#include <QComboBox>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMenuBar>
#include <QMessageBox>
#include <QMimeData>
#include <QToolButton>
#include <QTreeWidget>

using namespace waxis;
using place::Lower;
using test::WindowFixture;

namespace {

bool open(WindowFixture &f, const char *demo) {
    QFile::copy(QString(WEIGHTAXIS_TEST_DATA "/demos/%1.waxis").arg(demo), f.folder.filePath("other.waxis"));
    const bool opened = f.window->openFile(f.folder.filePath("other.waxis"));
    QTest::qWait(30);
    return opened;
}

/// How many findings of a rule are open.
int open(WindowFixture &f, RuleId rule) {
    const auto &all = f.document().analysis().findings;
    return int(
        std::count_if(all.begin(), all.end(), [&](const Finding &x) { return x.rule == rule && !x.accepted(); }));
}

QStringList tags(drawing::BuildScene &scene) {
    QStringList all;
    for (const auto &picture : scene.pictures())
        if (!picture.tag.isEmpty()) all << picture.tag;
    return all;
}

} // namespace

class TestPlaceViews : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void severalPartsAreMirroredWithOneKey() {
        WindowFixture f;
        QTest::mouseClick(f.plan().viewport(), Qt::LeftButton, {}, f.at("gps"));
        f.document().selectAll({"rxant-l", "buzzer"});
        const QStringList chosen = f.document().selection();
        std::vector<Vec3> before;
        for (const auto &id : chosen) before.push_back(f.position(qPrintable(id)));
        QVERIFY(f.child<QLabel>("several")->isVisible());
        QTest::keyClick(f.window.get(), Qt::Key_M, Qt::ControlModifier);
        for (int i = 0; i < chosen.size(); ++i) {
            const Vec3 now = f.position(qPrintable(chosen[i]));
            QVERIFY((now - Vec3(before[std::size_t(i)].x(), -before[std::size_t(i)].y(), before[std::size_t(i)].z()))
                        .norm() < 1e-9);
        }
        QCOMPARE(f.document().history().count(), 1); // one step
        f.document().history().undo();
        QVERIFY((f.position(qPrintable(chosen[0])) - before[0]).norm() < 1e-12);
    }
    void shiftClickAddsAndTheMouseMovesThemTogether() {
        WindowFixture f;
        f.document().select("gps");
        QTest::mouseClick(f.plan().viewport(), Qt::LeftButton, Qt::ShiftModifier, f.at("acam"));
        QVERIFY(f.document().selection().size() == 2);
        const QString other = f.document().selection().last();
        const Vec3 gps = f.position("gps"), second = f.position(qPrintable(other));
        const QPoint start = f.at("gps");
        QTest::mousePress(f.plan().viewport(), Qt::LeftButton, {}, start);
        f.move(start + QPoint(20, 10), Qt::ControlModifier);
        f.move(start + QPoint(40, 20), Qt::ControlModifier);
        QTest::mouseRelease(f.plan().viewport(), Qt::LeftButton, {}, start + QPoint(40, 20));
        const Vec3 shift = f.position("gps") - gps;
        QVERIFY(shift.norm() > 5);
        QVERIFY((f.position(qPrintable(other)) - second - shift).norm() < 1e-9);
        // A frame drawn on the empty mat takes what lies within.
        QTest::keyClick(&f.plan(), Qt::Key_Escape);
        const QPoint corner(3, 40), far(f.plan().viewport()->width() - 3, f.plan().viewport()->height() - 3);
        QTest::mousePress(f.plan().viewport(), Qt::LeftButton, Qt::ShiftModifier, corner);
        f.move(far, Qt::ShiftModifier);
        QTest::mouseRelease(f.plan().viewport(), Qt::LeftButton, Qt::ShiftModifier, far);
        QVERIFY(f.document().selection().size() > 10);
        f.child<QToolButton>("tool-align-y")->click();
        const double y = (partBounds(f, 0).min_mm.y() + partBounds(f, 0).max_mm.y()) / 2;
        QVERIFY(std::abs((partBounds(f, 3).min_mm.y() + partBounds(f, 3).max_mm.y()) / 2 - y) < 1e-9);
    }
    void oneClickFreesAnOverlap() {
        WindowFixture f;
        const int before = open(f, RuleId::fitOverlap);
        QVERIFY(before > 0);
        auto &model = f.window->findings().model();
        for (int row = 0; row < model.rowCount(); ++row)
            if (model.finding(row).rule == RuleId::fitOverlap && !model.finding(row).fixes.empty()) {
                f.document().highlight({QString::fromStdString(model.finding(row).subjects[0]),
                                        QString::fromStdString(model.finding(row).subjects[1])});
                f.window->placeBench().showLower(Lower::side);
                QVERIFY(tags(f.window->placeBench().elevation().buildScene()).join(' ').contains("frees it")); // drawn
                f.window->findings().act(row, app::FindingAction::fix);
                break;
            }
        QTRY_COMPARE_WITH_TIMEOUT(open(f, RuleId::fitOverlap), before - 1, 20000); // once it was tried
        f.document().history().undo();
        QCOMPARE(open(f, RuleId::fitOverlap), before);
    }
    void aPartThatSitsDownIsFastened() {
        WindowFixture f;
        // The receiver is dragged along the rear left arm: it lies on it, lengthways, taped or tied.
        QVERIFY(f.document().edit("free", movePart(f.document().build(), "rx", Pose{{-60, -60, 30}})));
        QVERIFY(f.document().edit("loose", fastenPart(f.document().build(), "rx", {})));
        const auto &arms = f.document().build().frame->arms;
        QVERIFY(!arms.empty());
        const Vec3 middle = (arms[0].root_mm + arms[0].tip_mm) / 2;
        f.document().select("rx");
        const QPoint start = f.at("rx"), end = f.plan().mapFromScene(middle.x(), -middle.y());
        QTest::mousePress(f.plan().viewport(), Qt::LeftButton, {}, start);
        for (int i = 1; i <= 4; ++i) f.move(start + (end - start) * i / 4, Qt::NoModifier);
        QTest::mouseRelease(f.plan().viewport(), Qt::LeftButton, {}, end);
        QCOMPARE(f.part("rx").fastening.onto, std::vector<std::string>{arms[0].id});
        QVERIFY(f.part("rx").fastening.method == FasteningMethod::tape ||
                f.part("rx").fastening.method == FasteningMethod::ties);
        // The inspector says so, and what it takes.
        QVERIFY(!f.child<QLabel>("fastening-takes")->text().isEmpty());
        const double mass = f.document().mass()->mass_g;
        auto *method = f.child<QComboBox>("fastening");
        const int glue = method->findData(int(FasteningMethod::glue));
        method->setCurrentIndex(glue);
        emit method->activated(glue);
        QCOMPARE(f.part("rx").fastening.method, FasteningMethod::glue);
        QVERIFY(f.document().mass()->mass_g < mass); // no more tape
    }
    void quickLooksStandInTheInspector() {
        WindowFixture f;
        f.document().select("vtx");
        auto *warm = f.child<QLabel>("warm-look");
        QVERIFY(warm->isVisible());
        QVERIFY2(warm->text().contains("W on"), qPrintable(warm->text()));
        f.document().select("rx");
        QVERIFY(!warm->isVisible()); // it draws next to nothing
        // What stands on foam says how far it sinks, and the inspector from which frequency that damps.
        QVERIFY(f.document().edit(
            "tape", fastenPart(f.document().build(), "rx", {FasteningMethod::tape, {"plate-top"}, false, {}})));
        auto *sag = f.child<QLineEdit>("sag");
        QVERIFY(sag->isVisible());
        sag->setFocus();
        QTest::keyClicks(sag, "0,25 ± 0,05");
        QTest::keyClick(sag, Qt::Key_Return);
        QCOMPARE(f.part("rx").fastening.sag_mm.value, std::optional(0.25));
        QVERIFY2(f.child<QLabel>("soft-look")->text().contains("Hz"), qPrintable(f.child<QLabel>("soft-look")->text()));
        sag->setFocus();
        sag->selectAll();
        QTest::keyClicks(sag, "deep");
        QTest::keyClick(sag, Qt::Key_Return);
        QCOMPARE(f.part("rx").fastening.sag_mm.value, std::optional(0.25));
    }
    void aChosenPlateIsDraggedWithWhatItCarries() {
        WindowFixture f;
        f.document().select("plate-top");
        QVERIFY(f.child<QLabel>("member")->isVisible());
        auto *height = f.child<QLineEdit>("plate-height");
        const double z =
            std::find_if(f.document().build().frame->plates.begin(), f.document().build().frame->plates.end(),
                         [](const Plate &p) { return p.id == "plate-top"; })
                ->z_mm;
        const double gps = f.position("gps").z();
        height->setFocus();
        height->selectAll();
        QTest::keyClicks(height, QString::number(z + 4));
        QTest::keyClick(height, Qt::Key_Return);
        QVERIFY(std::abs(f.position("gps").z() - gps - 4) < 1e-9);
        f.document().history().undo();
        QVERIFY(std::abs(f.position("gps").z() - gps) < 1e-12);
        QTest::keyClick(&f.plan(), Qt::Key_Escape);
        QVERIFY(f.document().selected().isEmpty());
    }

    void digitsSwitchOverlaysAndTheLegendFollows() {
        WindowFixture f;
        auto &bench = f.window->placeBench();
        for (const auto &overlay : drawing::kOverlays) {
            const bool was = bench.overlays().*overlay.shown;
            QTest::keyClick(&f.plan(), Qt::Key(Qt::Key_0 + overlay.key));
            QCOMPARE(bench.overlays().*overlay.shown, !was);
            QCOMPARE(bench.legend().lines().contains(drawing::overlayText(overlay.brief)), !was);
            QVERIFY(f.child<QToolButton>(qPrintable(QString("overlay-%1").arg(overlay.key)))->isChecked() == !was);
        }
    }
    void tagsNeverStandOnEachOther() {
        WindowFixture f;
        QVERIFY(f.settle());
        for (int key : {4, 5, 6, 7}) f.window->placeBench().toggleOverlay(key);
        f.document().select("fc");
        const double px = 1 / f.plan().pixelsPerMm();
        std::vector<QRectF> boxes;
        for (const auto &picture : f.plan().buildScene().pictures()) {
            if (picture.tag.isEmpty()) continue;
            QRectF box(QPointF(), QSizeF(20 * px, 10 * px)); // smaller than any label
            box.moveCenter(picture.tagAt);
            for (const auto &other : boxes) QVERIFY2(!other.intersects(box), qPrintable(picture.tag));
            boxes.push_back(box);
        }
        QVERIFY(boxes.size() > 4);
    }
    void marksThatWouldCoverOneAnotherAreOneWithANumber() {
        using drawing::clusterMarks;
        const auto clusters = clusterMarks({{{0, 0}, Severity::note},
                                            {{4, 0}, Severity::stop},
                                            {{8, 0}, Severity::watch},
                                            {{40, 0}, Severity::watch},
                                            {{20, 0}, Severity::unknown}},
                                           15);
        QCOMPARE(clusters.size(), std::size_t(3));
        QCOMPARE(clusters[0].worst, Severity::stop); // and it stands where the stop is
        QCOMPARE(clusters[0].at, QPointF(4, 0));
        QCOMPARE(clusters[0].count, 3);
        QCOMPARE(clusters[1].at, QPointF(40, 0));
        for (std::size_t i = 0; i < clusters.size(); ++i)
            for (std::size_t k = i + 1; k < clusters.size(); ++k)
                QVERIFY(QLineF(clusters[i].at, clusters[k].at).length() >= 15);
        QVERIFY(clusterMarks({}, 15).empty());
    }
    void allThingsAreListedFoundHiddenAndLocked() {
        WindowFixture f;
        f.window->actions().action("outline")->trigger();
        auto &outline = f.window->placeBench().outline();
        QVERIFY(outline.isVisible());
        QVERIFY(outline.words().hasFocus());
        const auto itemOf = [&](const char *id) -> QTreeWidgetItem * {
            for (QTreeWidgetItemIterator it(&outline.tree()); *it; ++it)
                if ((*it)->data(0, Qt::UserRole).toString() == id) return *it;
            return nullptr;
        };
        int parts = 0;
        for (const auto &part : f.document().build().parts) parts += itemOf(part.id.c_str()) != nullptr;
        QCOMPARE(parts, int(f.document().build().parts.size()));
        QVERIFY(itemOf("plate-top") && itemOf("so-1") && itemOf("w-gps"));
        // Found by words of its name and its kind.
        QTest::keyClicks(&outline.words(), "left tube");
        QVERIFY(!itemOf("tube-l")->isHidden());
        QVERIFY(itemOf("tube-r")->isHidden());
        outline.words().clear();
        // Chosen there, chosen on the mat, and the other way round.
        outline.tree().setCurrentItem(itemOf("gps"));
        QCOMPARE(f.document().selected(), QString("gps"));
        f.document().select("rx");
        QCOMPARE(outline.tree().currentItem(), itemOf("rx"));
        // The eye takes it off the mat, not out of the build.
        auto *item = f.plan().buildScene().item("pack");
        QVERIFY(item && item->isVisible());
        itemOf("pack")->setCheckState(1, Qt::Unchecked);
        QVERIFY(!f.plan().buildScene().item("pack")->isVisible());
        QVERIFY(findPart(f.document().build(), "pack"));
        itemOf("pack")->setCheckState(1, Qt::Checked);
        QVERIFY(f.plan().buildScene().item("pack")->isVisible());
        // The lock pins, and undo unpins.
        itemOf("rx")->setCheckState(2, Qt::Checked);
        QTRY_VERIFY(findPart(f.document().build(), "rx")->pinned);
        f.document().history().undo();
        QVERIFY(!findPart(f.document().build(), "rx")->pinned);
        QCOMPARE(itemOf("rx")->checkState(2), Qt::Unchecked);
    }
    void tabGoesFromPartToPartAndZGoesThere() {
        WindowFixture f;
        auto &plan = f.plan();
        plan.setFocus();
        f.document().select({});
        QTest::keyClick(&plan, Qt::Key_Tab);
        const QString first = f.document().selected();
        QVERIFY(!first.isEmpty());
        QTest::keyClick(&plan, Qt::Key_Tab);
        QVERIFY(f.document().selected() != first);
        QTest::keyClick(&plan, Qt::Key_Backtab);
        QCOMPARE(f.document().selected(), first);
        f.document().select("gps");
        const double before = plan.pixelsPerMm();
        QTest::keyClick(&plan, Qt::Key_Z);
        QVERIFY(plan.pixelsPerMm() > 2 * before);
        const QPoint off = f.at("gps") - plan.viewport()->rect().center();
        QVERIFY2(off.manhattanLength() < 60, qPrintable(QString("%1 %2").arg(off.x()).arg(off.y())));
    }
    void anEmptyMatOpensTheDrawerAndItsListHasAMenu() {
        WindowFixture f;
        auto &drawer = f.window->placeBench().library();
        QTest::keyClick(f.window.get(), Qt::Key_F3);
        QVERIFY(!drawer.isVisible()); // this craft has its parts
        f.document().history().setClean();
        QTest::keyClick(f.window.get(), Qt::Key_N, Qt::ControlModifier);
        QVERIFY(!drawer.isVisible());
        QTest::keyClick(f.window.get(), Qt::Key_F3);
        QVERIFY(drawer.isVisible());
        QCOMPARE(QApplication::focusWidget(), static_cast<QWidget *>(&drawer.words()));
        QTest::keyClicks(&drawer.words(), "motor 2207");
        const auto menu = [&](const QString &choose) {
            return waxis::test::readMenu(
                [&] {
                    emit drawer.list().customContextMenuRequested(
                        drawer.list().visualItemRect(drawer.list().currentItem()).center());
                },
                choose);
        };
        const QStringList texts = menu("Seat it on all");
        QVERIFY2(texts.size() > 5 && texts.contains("Like this one, but…"), qPrintable(texts.join(", ")));
        QCOMPARE(f.document().build().parts.size(), std::size_t(4));
        // With a part chosen its place is offered too.
        f.document().select(QString::fromStdString(f.document().build().parts[0].id));
        drawer.words().setText("motor 2306");
        const std::string before = f.document().build().parts[0].type;
        const QStringList more = menu("In the place of");
        QVERIFY2(f.document().build().parts[0].type != before, qPrintable(more.join(", ")));
        QCOMPARE(f.document().build().parts.size(), std::size_t(4));
    }
    void aWireIsHiddenInTheList() {
        WindowFixture f;
        QTest::keyClick(&f.plan(), Qt::Key_9); // wires
        auto &scene = f.plan().buildScene();
        const auto drawn = scene.pictures().size();
        f.window->actions().action("outline")->trigger();
        auto *tree = f.window->findChild<QTreeWidget *>("outline-tree");
        QTreeWidgetItem *wire = nullptr;
        for (QTreeWidgetItemIterator it(tree); *it; ++it)
            if ((*it)->data(0, Qt::UserRole).toString() == "w-gps") wire = *it;
        QVERIFY(wire);
        wire->setCheckState(1, Qt::Unchecked);
        QCOMPARE(scene.pictures().size() + 1, drawn);
        wire->setCheckState(1, Qt::Checked);
        QCOMPARE(scene.pictures().size(), drawn);
    }
    void whatHangsOnAPartGoesWithItInTheHand() {
        WindowFixture f;
        const Vec3 gps = f.position("gps"), mast = f.position("gpsmast");
        f.document().select("gpsmast");
        f.plan().setFocus();
        QTest::keyClick(&f.plan(), Qt::Key_Up); // a millimetre to the left
        QVERIFY((f.position("gpsmast") - mast - Vec3(0, 1, 0)).norm() < 1e-6);
        QVERIFY((f.position("gps") - gps - Vec3(0, 1, 0)).norm() < 1e-6);
        f.document().history().undo();
        QVERIFY((f.position("gps") - gps).norm() < 1e-9);
        f.dragBy("gpsmast", QPoint(0, -30));
        f.drop();
        const Vec3 moved = f.position("gpsmast") - mast;
        QVERIFY(moved.norm() > 1);
        QVERIFY((f.position("gps") - gps - moved).norm() < 1e-6);
    }
    void theSmallestWindowCutsNoWords() {
        WindowFixture f;
        f.window->resize(960, 600);
        QTest::qWait(60);
        for (const auto &overlay : drawing::kOverlays) {
            auto *chip = f.window->findChild<QToolButton *>(QStringLiteral("overlay-%1").arg(overlay.key));
            QVERIFY(chip->width() >= chip->sizeHint().width());
            QVERIFY(!chip->accessibleName().isEmpty());
        }
        // Every menu is reached: none is behind an arrow.
        auto *bar = f.window->menuBar();
        for (auto *action : bar->actions()) QVERIFY2(bar->actionGeometry(action).isValid(), qPrintable(action->text()));
        QVERIFY(bar->actionGeometry(bar->actions().back()).right() < bar->cornerWidget()->x());
        f.window->resize(1280, 800);
        QTest::qWait(60);
        QCOMPARE(f.window->findChild<QToolButton *>("overlay-1")->text(),
                 drawing::overlayText(drawing::kOverlays[0].title));
    }
    void labelsFindFreePlaces() {
        for (const double cell : {3.0, 30.0, 1000.0}) { // however it is looked up
            drawing::TagBoard board(cell);
            std::vector<QRectF> placed;
            for (int i = 0; i < 12; ++i) {
                const QRectF box = board.place({0, 0}, {30, 10});
                for (const auto &other : placed) QVERIFY(!box.intersects(other));
                placed.push_back(box);
            }
            QCOMPARE(placed.front().center(), QPointF(0, 0)); // the first one stands where it wants
            board.keepClear({200, -50, 60, 100});             // larger than a label
            QVERIFY(!board.place({230, 0}, {10, 10}).intersects({200, -50, 60, 100}));
        }
    }
    void theSectionLineCutsTheLowerView() {
        WindowFixture f;
        f.window->placeBench().toggleOverlay(8);
        auto &side = f.window->placeBench().elevation().buildScene();
        QVERIFY(side.section().has_value());
        QCOMPARE(*side.section(), 0.0);
        QVERIFY(side.item("gps")->isVisible());
        // Dragged far to the left, everything that lies to the right of it is taken away.
        const QPoint start = f.plan().mapFromScene(-100, 0);
        QTest::mousePress(f.plan().viewport(), Qt::LeftButton, {}, start);
        const QPoint end = f.plan().mapFromScene(-100, -60);
        f.move(end, Qt::NoModifier);
        QTest::mouseRelease(f.plan().viewport(), Qt::LeftButton, {}, end);
        QVERIFY(std::abs(*side.section() - 60) < 1);
        QVERIFY(!side.item("gps")->isVisible());
        QCOMPARE(f.document().history().count(), 0); // looking is no edit
        f.window->placeBench().toggleOverlay(8);
        QVERIFY(!side.section() && side.item("gps")->isVisible());
    }
    void holdingMMeasuresFromThingToThing() {
        WindowFixture f;
        auto point = [&](const QPoint &at) {
            QCursor::setPos(f.plan().viewport()->mapToGlobal(at));
            QTest::qWait(20);
            QMouseEvent move(QEvent::MouseMove, at, f.plan().viewport()->mapToGlobal(at), Qt::NoButton, Qt::NoButton,
                             {});
            QApplication::sendEvent(f.plan().viewport(), &move);
        };
        const QPoint from = f.at("gps");
        point(from);
        QTest::keyPress(&f.plan(), Qt::Key_M);
        const auto mount = f.document().build().frame->motorMounts[0].position_mm;
        point(f.plan().mapFromScene(mount.x(), -mount.y()));
        const QStringList shown = tags(f.plan().buildScene());
        const auto at =
            std::find_if(shown.begin(), shown.end(), [](const QString &t) { return t.contains(QChar(0x2013)); });
        QVERIFY2(at != shown.end(), qPrintable(shown.join('|')));
        // The same from the core: the shortest gap of the two things by name.
        const auto names = at->section("mm", 1).trimmed().split(QString(" %1 ").arg(QChar(0x2013)));
        QCOMPARE(names.size(), 2);
        const auto &derived = f.document().analysis().derived;
        double best = 1e300;
        for (std::size_t i = 0; i < derived.scene.traits.size(); ++i)
            for (std::size_t j = 0; j < derived.scene.traits.size(); ++j) {
                auto is = [&](std::size_t body, const QString &name) {
                    const auto &owner = derived.scene.owners[std::size_t(derived.scene.traits[body].owner)];
                    return owner.kind != OwnerKind::disc &&
                           QString::fromStdString(displayName(f.document().build(), owner.id)) == name;
                };
                if (is(i, names[0]) && is(j, names[1]))
                    best = std::min(best, derived.scene.world->measure(int(i), int(j)).distance_mm);
            }
        QVERIFY(std::abs(at->section(' ', 0, 0).toDouble() - best) < 0.006);
        QTest::keyRelease(&f.plan(), Qt::Key_M);
        for (const auto &tag : tags(f.plan().buildScene())) QVERIFY(tag != *at);
    }
    void armsFoldWithTheLoadCase() {
        WindowFixture f;
        QVERIFY(open(f, "kilnlamp"));
        const auto &cases = f.document().analysis().derived.loadCases;
        const auto folded = std::find_if(cases.begin(), cases.end(), [](const LoadCase &c) { return c.folded; });
        QVERIFY(folded != cases.end());
        const int index = int(folded - cases.begin());
        const double flat = f.document().drawnCg_mm()->z();
        f.document().setLoadCase(index);
        QVERIFY(
            QTest::qWaitFor([&] { return f.document().foldedShare() > 0.2 && f.document().foldedShare() < 1; }, 2000));
        const double onTheWay = f.document().drawnCg_mm()->z();
        QVERIFY(!(f.document().drawnBuild() == f.document().build()));
        QVERIFY(QTest::qWaitFor([&] { return f.document().foldedShare() == 1; }, 3000));
        QVERIFY(f.document().drawnBuild() == foldedBuild(f.document().build(), 1));
        QVERIFY(std::abs(f.document().drawnCg_mm()->z() - f.document().mass()->cg_mm->z()) < 1e-9);
        QVERIFY(onTheWay != flat); // the mass moved with the arms
        // Parts stay put while folded, and it says why.
        QSignalSpy refused(&f.document(), &app::Document::refused);
        f.dragBy("pack", {-30, 0});
        f.drop();
        QCOMPARE(refused.size(), 1);
        f.document().setLoadCase(0);
        QVERIFY(QTest::qWaitFor([&] { return f.document().foldedShare() == 0; }, 3000));
        QVERIFY(f.document().drawnBuild() == f.document().build());
    }

private:
    Aabb partBounds(WindowFixture &f, int index) {
        const auto parts = f.document().selectedParts();
        return waxis::partBounds(f.document().build(), *findPart(f.document().build(), parts[std::size_t(index)]));
    }
};

QTEST_MAIN(TestPlaceViews)
#include "test_place_views.moc"
