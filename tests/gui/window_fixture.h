// The real window with a copy of the demo, in a folder of its own, without the user's settings.
#pragma once

#include "app/document/survey_runner.h"
#include "app/drawing/projection.h"
#include "app/shell/axis_bar.h"
#include "app/shell/findings_panel.h"
#include "app/shell/main_window.h"
#include "app/shell/plurals.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/place_view.h"
#include "app/widgets/notice_bar.h"
#include "support/builds.h"

#include <QMenu>
#include <QSettings>
#include <QTemporaryDir>
#include <QTimer>
#include <functional>

namespace waxis::test {

/// Opens a context menu and reads it; the action whose text begins with `choose` is taken, else the menu is closed.
inline QStringList readMenu(const std::function<void()> &open, const QString &choose = {}) {
    QStringList texts;
    QTimer::singleShot(100, [&] {
        auto *menu = qobject_cast<QMenu *>(QApplication::activePopupWidget());
        if (!menu) return;
        QAction *wanted = nullptr;
        for (auto *action : menu->actions()) {
            texts << action->text();
            if (!choose.isEmpty() && !wanted && action->text().startsWith(choose)) wanted = action;
        }
        if (!wanted) {
            menu->close();
            return;
        }
        menu->setActiveAction(wanted);
        QTest::keyClick(menu, Qt::Key_Return);
    });
    open();
    return texts;
}

class WindowFixture {
public:
    WindowFixture() {
        QSettings().clear();
        app::loadPlurals();
        QFile::copy(WEIGHTAXIS_TEST_DATA "/demos/stakewalker.waxis", file());
        QFile::setPermissions(file(), QFile::ReadOwner | QFile::WriteOwner);
        window = std::make_unique<app::MainWindow>(theme, folder.filePath("unsaved"));
        window->resize(1280, 800);
        window->show();
        window->activateWindow();
        (void)QTest::qWaitForWindowExposed(window.get());
        if (!window->openFile(file())) qFatal("demo not opened");
        QTest::qWait(30); // fits after the first layout
    }
    ~WindowFixture() {
        window->document().history().setClean(); // nobody is there to answer whether to save
        window.reset();
    }

    QString file() const { return folder.filePath("stakewalker.waxis"); }
    app::Document &document() { return window->document(); }
    place::PlaceView &plan() { return window->placeBench().plan(); }
    QString axisText() { return window->axisBar().spokenText(); }
    const Part &part(const char *id) { return *findPart(document().build(), id); }
    template <class Widget>
    Widget *child(const char *name) {
        return window->findChild<Widget *>(name);
    }
    /// Waits until the survey has caught up with the last edit.
    bool settle() {
        return QTest::qWaitFor([&] { return window->surveyor().isSettled() && document().isSurveyed(); }, 10000);
    }
    int findingRows() { return window->findings().model().rowCount(); }

    /// Where a part's origin stands in the plan's viewport.
    QPoint at(const char *part) {
        const Pose pose = framePose(document().build(), *findPart(document().build(), part));
        return plan().mapFromScene(drawing::project(drawing::View::plan, pose.position_mm));
    }
    Vec3 position(const char *part) {
        return framePose(document().build(), *findPart(document().build(), part)).position_mm;
    }
    void move(const QPoint &to, Qt::KeyboardModifiers modifiers) {
        QMouseEvent event(QEvent::MouseMove, to, plan().viewport()->mapToGlobal(to), Qt::NoButton, Qt::LeftButton,
                          modifiers);
        QApplication::sendEvent(plan().viewport(), &event);
    }
    /// Presses on a part, moves in three steps; leaves the button down. Ctrl keeps it from snapping.
    void dragBy(const char *part, const QPoint &pixels, Qt::KeyboardModifiers modifiers = Qt::ControlModifier) {
        document().select(part); // a chosen part keeps the pointer even under others
        start_ = at(part);
        QTest::mousePress(plan().viewport(), Qt::LeftButton, {}, start_);
        for (int i = 1; i <= 3; ++i) move(start_ + pixels * i / 3, modifiers);
        end_ = start_ + pixels;
    }
    void drop() { QTest::mouseRelease(plan().viewport(), Qt::LeftButton, {}, end_); }

    QTemporaryDir folder;
    theme::Theme theme{theme::Mode::light};
    std::unique_ptr<app::MainWindow> window;

private:
    QPoint start_, end_;
};

} // namespace waxis::test
