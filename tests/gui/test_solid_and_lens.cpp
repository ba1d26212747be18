// Solid, Lens and Sky in the real window, and places compared.
#include "app/document/survey_runner.h"
#include "app/drawing/gl_guard.h"
#include "app/drawing/mark_clusters.h"
#include "app/drawing/tag_board.h"
#include "app/stages/place/legend.h"
#include "app/stages/place/lens_view.h"
#include "app/stages/place/library_drawer.h"
#include "app/stages/place/place_view.h"
#include "app/stages/place/sky_panel.h"
#include "app/stages/place/solid_pane.h"
#include "core/build/folding.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/edits/group_edits.h"
#include "core/edits/part_edits.h"
#include "core/rules/wording.h"
#include "core/scene/scene.h"
#include "core/survey/survey.h"
#include "core/survey/views.h"
#include "gui/window_fixture.h"

#include <QSlider>
#include <QToolButton>

using namespace waxis;
using place::Lower;
using test::WindowFixture;

namespace {

/// The solid view seen from straight above, where right of the picture and up lie level; null without one.
drawing::SolidView *solidFromAbove(WindowFixture &f) {
    f.window->placeBench().showLower(Lower::solid);
    auto *view = f.window->placeBench().solid().view();
    if (!view) return nullptr;
    QTest::qWait(80);
    view->fit();
    auto orbit = view->orbit();
    orbit.elevation_deg = 89;
    orbit.azimuth_deg = 0;
    view->setOrbit(orbit);
    return view;
}

QStringList tags(drawing::BuildScene &scene) {
    QStringList all;
    for (const auto &picture : scene.pictures())
        if (!picture.tag.isEmpty()) all << picture.tag;
    return all;
}

} // namespace

class TestSolidAndLens : public QObject {
    Q_OBJECT

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }
    void theSurveyComesInTheBackgroundAndFollowsTheBuild() {
        WindowFixture f;
        QVERIFY(f.settle());
        const double hidden = f.document().analysis().derived.survey->skies.at(0).level.hidden;
        QVERIFY(f.document().edit("far", movePart(f.document().build(), "gps", Pose{{-84, 0, 300}})));
        QVERIFY(!f.document().isSurveyed()); // stale, not gone
        QVERIFY(f.settle());
        QVERIFY(f.document().analysis().derived.survey->skies.at(0).level.hidden < hidden / 4);
        QVERIFY(f.document().edit("back", movePart(f.document().build(), "gps", Pose{{-84, 0, 38}})));
        QTest::qWait(140); // it has begun; a change stops it and it starts again
        QVERIFY(f.document().edit("aside", movePart(f.document().build(), "gps", Pose{{-84, 5, 300}})));
        QVERIFY(f.settle());
        QVERIFY(f.document().analysis().derived.survey->skies.at(0).level.hidden < hidden / 4);
    }
    void theTiltSliderTurnsTheCameraLive() {
        WindowFixture f;
        f.window->placeBench().showLower(Lower::lens);
        auto &lens = f.window->placeBench().lens();
        QCOMPARE(lens.camera(), std::string("cam"));
        QSlider &slider = lens.tilt();
        const int steps = f.document().history().count();
        const double before = lens.view().propellers + lens.view().hidden;
        slider.setSliderDown(true);
        slider.setValue(slider.maximum());
        QVERIFY(f.document().isPreviewing()); // live, nothing kept
        QCOMPARE(f.document().history().count(), steps);
        QVERIFY(std::abs(lens.view().tilt_deg - slider.maximum() / 2.0) < 1e-6);
        QVERIFY(std::abs(lens.view().propellers + lens.view().hidden - before) > 0.01);
        slider.setSliderDown(false);
        QCOMPARE(f.document().history().count(), steps + 1);
        QVERIFY(std::abs(tiltOf(*typeOf(f.document().build(), f.part("cam")),
                                framePose(f.document().build(), f.part("cam"))) -
                         slider.maximum() / 2.0) < 1e-6);
        f.document().history().undo();
        QVERIFY(std::abs(lens.view().propellers + lens.view().hidden - before) < 1e-9);
        QVERIFY(std::abs(slider.value() / 2.0 - lens.view().tilt_deg) < 0.5); // the slider follows
        QTest::keyClick(&slider, Qt::Key_Right);                              // by keyboard each step is kept
        QCOMPARE(f.document().history().count(), steps + 1);
    }
    void theLensSeesWhatTheCoreSees() {
        WindowFixture f;
        QVERIFY(f.settle());
        f.window->placeBench().showLower(Lower::lens);
        const auto &lens = f.window->placeBench().lens();
        const auto &cameras = f.document().analysis().derived.survey->cameras;
        const auto at =
            std::find_if(cameras.begin(), cameras.end(), [](const CameraSurvey &c) { return c.part == "cam"; });
        QVERIFY(std::abs(lens.view().hidden - at->now.hidden) < 0.01);
        QVERIFY(std::abs(lens.view().propellers - at->now.propellers) < 0.01);
        f.document().select("acam");
        QCOMPARE(lens.camera(), std::string("acam")); // a chosen camera is looked through
    }
    void theLowerViewGrowsAndTheSolidFollows() {
        WindowFixture f;
        auto &bench = f.window->placeBench();
        bench.showLower(Lower::solid);
        QTest::qWait(80);
        const int before = bench.solid().height();
        QTest::keyClick(&f.plan(), Qt::Key_L);
        QTest::qWait(80);
        QVERIFY(bench.solid().height() > before * 3 / 2);
        if (auto *view = bench.solid().view()) // the craft still fills it
            QVERIFY(view->rect().contains(view->toPixels(f.position("gps")).toPoint()));
        QTest::keyClick(&f.plan(), Qt::Key_L);
        QTest::qWait(40);
        QVERIFY(std::abs(bench.solid().height() - before) < 12);
    }
    void withoutACameraTheLensSaysWhatToDo() {
        WindowFixture f;
        Build build = f.document().build();
        std::vector<std::string> cameras;
        for (const auto &p : build.parts)
            if (typeOf(build, p)->camera) cameras.push_back(p.id);
        for (const auto &id : cameras) build = *removePart(build, id);
        f.document().edit("none", build);
        f.window->placeBench().showLower(Lower::lens);
        QVERIFY(f.window->placeBench().lens().camera().empty());
    }
    void placesAreComparedAndTakenUp() {
        WindowFixture f;
        f.document().edit("none", [&] {
            Build build = f.document().build();
            build.trials.clear();
            return build;
        }());
        f.window->placeBench().showLower(Lower::sky);
        auto &sky = f.window->placeBench().sky();
        QCOMPARE(sky.receiver(), std::string("gps"));
        f.child<QToolButton>("place-here")->click();
        QCOMPARE(sky.table().rowCount(), 2);
        QVERIFY(std::abs(sky.sites()[1].level.hidden - sky.sites()[0].level.hidden) < 1e-9); // the same place
        // High above everything nothing hides; in the middle, beside the pack, much does.
        sky.addPlace(drawing::View::side, {0, 0, 400});
        QCOMPARE(sky.sites()[2].level.hidden, 0.0);
        sky.addPlace(drawing::View::plan, {-20, 30, 0});
        QVERIFY(sky.sites()[3].level.hidden > sky.sites()[0].level.hidden);
        QVERIFY(!f.window->placeBench().plan().buildScene().pictures().empty());
        QVERIFY(tags(f.window->placeBench().plan().buildScene()).contains("Place C"));
        // They are the build's own: Radio compares the same, and undo takes them back.
        QCOMPARE(f.document().build().trials.size(), std::size_t(3));
        sky.table().selectRow(2);
        f.child<QToolButton>("place-move")->click();
        QVERIFY(std::abs(f.position("gps").z() - 400) < 1e-9);
        QCOMPARE(sky.sites()[0].level.hidden, 0.0);
        f.document().history().undo();
        sky.table().selectRow(1);
        f.child<QToolButton>("place-forget")->click();
        QCOMPARE(sky.table().rowCount(), 3);
        QCOMPARE(f.document().build().trials.size(), std::size_t(2));
        f.document().history().undo();
        QCOMPARE(sky.table().rowCount(), 4);
        // They are drawn while the sky is looked at, and no longer.
        f.window->placeBench().showLower(Lower::side);
        QVERIFY(!tags(f.window->placeBench().plan().buildScene()).contains("Place C"));
    }
    void theKeyGRemembersThePlaceAtThePointer() {
        WindowFixture f;
        const QPoint at = f.plan().mapFromScene(-60, -20);
        QCursor::setPos(f.plan().viewport()->mapToGlobal(at));
        QTest::qWait(20);
        QTest::keyClick(&f.plan(), Qt::Key_G);
        QCOMPARE(f.window->placeBench().lower(), Lower::sky);
        const auto &sites = f.window->placeBench().sky().sites();
        QCOMPARE(sites.size(), 1 + f.document().build().trials.size());
        QVERIFY((sites.back().X_FramePart.position_mm.head<2>() - Vec2(-60, 20)).norm() < 1.0);
    }
    void aClickInTheSolidViewChoosesThePart() {
        if (!drawing::whyNoSolidView().isEmpty()) QSKIP("no OpenGL here");
        WindowFixture f;
        auto *view = solidFromAbove(f);
        QVERIFY(view);
        const QPointF at = view->toPixels(f.position("gps") + Vec3(0, 0, 3));
        QVERIFY(view->rect().contains(at.toPoint()));
        QTest::mouseClick(view, Qt::LeftButton, {}, at.toPoint());
        QCOMPARE(f.document().selected(), QString("gps"));
        QTest::mouseClick(view, Qt::LeftButton, {}, QPoint(2, 2)); // past everything
        QVERIFY(f.document().selected().isEmpty());
        // Cut away from below the receiver's place upwards, it is gone, and the ray goes on to what lies beneath.
        view->setCut(drawing::CutAway{2, 20});
        QVERIFY(view->thingAt(at) != "gps");
        view->setCut({});
        QCOMPARE(view->thingAt(at), QString("gps"));
    }
    void aChosenPartIsDraggedAndTurnedInTheSolidView() {
        if (!drawing::whyNoSolidView().isEmpty()) QSKIP("no OpenGL here");
        WindowFixture f;
        auto *view = solidFromAbove(f);
        QVERIFY(view);
        f.document().select("gps");
        const Vec3 start = f.position("gps");
        const QPointF at = view->toPixels(start + Vec3(0, 0, 3));
        const auto drag = [&](const QPointF &to, bool escape) {
            QTest::mousePress(view, Qt::LeftButton, {}, at.toPoint());
            for (int i = 1; i <= 3; ++i) {
                const QPointF there = at + (to - at) * i / 3;
                QMouseEvent move(QEvent::MouseMove, there, view->mapToGlobal(there), Qt::NoButton, Qt::LeftButton, {});
                QApplication::sendEvent(view, &move);
            }
            if (escape) QTest::keyClick(view, Qt::Key_Escape);
            QTest::mouseRelease(view, Qt::LeftButton, {}, to.toPoint());
        };
        drag(at + QPointF(0, 25), true);
        QVERIFY((f.position("gps") - start).norm() < 1e-9);
        drag(at + QPointF(0, 25), false);
        const Vec3 by = f.position("gps") - start;
        QVERIFY(by.head<2>().norm() > 2);
        QVERIFY(std::abs(by.z()) < 0.1 * by.norm());
        QCOMPARE(view->orbit().azimuth_deg, 0.0); // the picture stood still
        f.document().history().undo();
        QVERIFY((f.position("gps") - start).norm() < 1e-9);
        // A quarter turn about what points at the viewer: here upwards.
        const auto heading = [&] {
            const Pose pose = framePose(f.document().build(), *findPart(f.document().build(), "gps"));
            return Vec3(pose.rotation * Vec3::UnitX());
        };
        const Vec3 before = heading();
        QTest::keyClick(view, Qt::Key_Q);
        QVERIFY((heading() - Vec3(-before.y(), before.x(), before.z())).norm() < 1e-6);
        QTest::keyClick(view, Qt::Key_E);
        QVERIFY((heading() - before).norm() < 1e-6);
        // Tab goes from part to part, Z to the chosen one; what hangs on a part goes along when it turns.
        view->setFocus();
        QTest::keyClick(view, Qt::Key_Tab);
        QVERIFY(!f.document().selected().isEmpty() && f.document().selected() != "gps");
        f.document().select("gps");
        const double far = view->orbit().distance_mm;
        QTest::keyClick(view, Qt::Key_Z);
        QVERIFY(view->orbit().distance_mm < far / 2);
        QVERIFY((view->orbit().target_mm - f.position("gps")).norm() < 15);
        f.document().select("gpsmast");
        const Vec3 onMast = f.position("gps") - f.position("gpsmast");
        QTest::keyClick(view, Qt::Key_V); // upside down
        QVERIFY((f.position("gps") - f.position("gpsmast") + onMast).norm() < onMast.norm() + 1e-6);
        QVERIFY((f.position("gps") - f.position("gpsmast") - onMast).norm() > 1);
    }
    void dragsOrbitAndTheWheelZooms() {
        if (!drawing::whyNoSolidView().isEmpty()) QSKIP("no OpenGL here");
        WindowFixture f;
        f.window->placeBench().showLower(Lower::solid);
        auto *view = f.window->placeBench().solid().view();
        QTest::qWait(80);
        const auto start = view->orbit();
        auto drag = [&](Qt::MouseButton button) {
            QTest::mousePress(view, button, {}, {100, 60});
            QMouseEvent move(QEvent::MouseMove, QPointF(150, 80), view->mapToGlobal(QPointF(150, 80)), Qt::NoButton,
                             button, {});
            QApplication::sendEvent(view, &move);
            QTest::mouseRelease(view, button, {}, {150, 80});
        };
        drag(Qt::LeftButton);
        QVERIFY(view->orbit().azimuth_deg < start.azimuth_deg && view->orbit().elevation_deg > start.elevation_deg);
        QVERIFY((view->orbit().target_mm - start.target_mm).norm() < 1e-9);
        drag(Qt::MiddleButton);
        QVERIFY((view->orbit().target_mm - start.target_mm).norm() > 1);
        QWheelEvent wheel(QPointF(100, 60), view->mapToGlobal(QPointF(100, 60)), {}, {0, 240}, Qt::NoButton, {},
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(view, &wheel);
        QVERIFY(view->orbit().distance_mm < start.distance_mm);
        QVERIFY(f.document().selected().isEmpty()); // turning is not choosing
    }
    void thePictureShowsTheCraftAndTheChosenPart() {
        if (!drawing::whyNoSolidView().isEmpty()) QSKIP("no OpenGL here");
        WindowFixture f;
        f.window->placeBench().showLower(Lower::solid);
        auto *view = f.window->placeBench().solid().view();
        QTest::qWait(80);
        auto count = [&](auto &&likes) {
            const QImage image = view->grabFramebuffer();
            int pixels = 0;
            for (int y = 0; y < image.height(); ++y)
                for (int x = 0; x < image.width(); ++x) pixels += likes(image.pixelColor(x, y));
            return pixels;
        };
        const QColor mat = f.theme.colors().mat;
        QVERIFY(count([&](const QColor &c) { return c != mat; }) > 3000);
        // Chalk for what is chosen: amber belongs to the weight axis. Lit faces only, so the shade is loose.
        auto chalk = [](const QColor &c) { return c.lightness() > 190 && c.saturation() < 60; };
        const int before = count(chalk);
        f.document().select("pack");
        QVERIFY(count(chalk) > before + 500);
        view->setCut(drawing::CutAway{2, -1000}); // everything away
        QVERIFY(count([&](const QColor &c) { return c != mat; }) < 20);
    }

private:
    Aabb partBounds(WindowFixture &f, int index) {
        const auto parts = f.document().selectedParts();
        return waxis::partBounds(f.document().build(), *findPart(f.document().build(), parts[std::size_t(index)]));
    }
};

QTEST_MAIN(TestSolidAndLens)
#include "test_solid_and_lens.moc"
