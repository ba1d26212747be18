// One step of a drag in the real window: analysis and scene update, and the repaint, apart.
#include "app/document/survey_runner.h"
#include "app/shell/main_window.h"
#include "app/stages/place/place_bench.h"
#include "app/stages/place/place_view.h"
#include "app/stages/stack/stack_bench.h"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QMouseEvent>
#include <QTextStream>
#include <algorithm>
#include <vector>

using namespace waxis;

namespace {

QString spread(std::vector<double> values) {
    std::sort(values.begin(), values.end());
    return QString("median %1 ms, 95 % under %2 ms, worst %3 ms")
        .arg(values[values.size() / 2], 0, 'f', 2)
        .arg(values[values.size() * 95 / 100], 0, 'f', 2)
        .arg(values.back(), 0, 'f', 2);
}

void dragAbout(app::MainWindow &window, place::PlaceView &plan, const char *part, QTextStream &out) {
    window.document().select(part);
    const Pose pose = framePose(window.document().build(), *window.document().selectedPart());
    const QPoint start = plan.mapFromScene(drawing::project(drawing::View::plan, pose.position_mm));
    auto send = [&](QEvent::Type type, const QPoint &at) {
        QMouseEvent event(type, at, plan.viewport()->mapToGlobal(at), Qt::LeftButton,
                          type == QEvent::MouseButtonRelease ? Qt::NoButton : Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(plan.viewport(), &event);
    };
    send(QEvent::MouseButtonPress, start);
    std::vector<double> update, paint;
    for (int i = 0; i < 300; ++i) {
        const QPoint at = start + QPoint(int(40 * std::sin(i * 0.1)), int(15 * std::cos(i * 0.07)));
        QElapsedTimer timer;
        timer.start();
        send(QEvent::MouseMove, at);
        update.push_back(double(timer.nsecsElapsed()) / 1e6);
        timer.restart();
        QApplication::processEvents();
        paint.push_back(double(timer.nsecsElapsed()) / 1e6);
    }
    send(QEvent::MouseButtonRelease, start);
    window.document().history().undo();
    out << "  analysis and scene: " << spread(update) << "\n  repaint:            " << spread(paint) << '\n';
    out.flush();
}

/// A layer of the stack is drawn up and down, so that it changes its place at every step.
void dragLayer(app::MainWindow &window, QTextStream &out) {
    window.setStage(Stage::stack);
    for (int i = 0; i < 20; ++i) QApplication::processEvents();
    auto &canvas = window.stackBench().canvas();
    const QPointF low = canvas.layerPixels(1), high = canvas.layerPixels(3);
    auto send = [&](QEvent::Type type, const QPointF &at) {
        QMouseEvent event(type, at, canvas.mapToGlobal(at), Qt::LeftButton,
                          type == QEvent::MouseButtonRelease ? Qt::NoButton : Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&canvas, &event);
    };
    send(QEvent::MouseButtonPress, high);
    std::vector<double> update, paint;
    for (int i = 0; i < 200; ++i) {
        QElapsedTimer timer;
        timer.start();
        send(QEvent::MouseMove, i % 2 ? high : low + QPointF(0, 15));
        update.push_back(double(timer.nsecsElapsed()) / 1e6);
        timer.restart();
        QApplication::processEvents();
        paint.push_back(double(timer.nsecsElapsed()) / 1e6);
    }
    send(QEvent::MouseButtonRelease, high);
    window.document().history().undo();
    out << "spacers of the stack\n  analysis and column: " << spread(update)
        << "\n  repaint:             " << spread(paint) << '\n';
    out.flush();
    window.setStage(Stage::place);
}

} // namespace

int main(int argc, char **argv) {
    QApplication application(argc, argv);
    QApplication::setOrganizationName("weightaxis-bench");
    theme::Theme theme(theme::Mode::light);
    app::MainWindow window(theme, QDir::tempPath() + "/weightaxis-bench");
    window.resize(1280, 800);
    window.show();
    window.openFile(WEIGHTAXIS_BENCH_DATA "/demos/stakewalker.waxis");
    for (int i = 0; i < 20; ++i) QApplication::processEvents();
    auto &plan = window.placeBench().plan();
    QTextStream out(stdout);
    dragLayer(window, out);
    // Beside Side each live panel, with all overlays, dragging what it looks at.
    const std::pair<waxis::place::Lower, const char *> views[] = {{waxis::place::Lower::side, "gps"},
                                                                  {waxis::place::Lower::side, "pack"},
                                                                  {waxis::place::Lower::side, "fc"},
                                                                  {waxis::place::Lower::lens, "cam"},
                                                                  {waxis::place::Lower::sky, "gps"}};
    for (const bool overlays : {false, true}) {
        if (overlays)
            for (int key : {4, 5, 6, 7}) window.placeBench().toggleOverlay(key);
        for (const auto &[lower, part] : views) {
            window.placeBench().showLower(lower);
            QElapsedTimer settle; // the survey is in before the drag
            settle.start();
            while (!window.surveyor().isSettled() && settle.elapsed() < 5000) QApplication::processEvents();
            for (int i = 0; i < 20; ++i) QApplication::processEvents();
            out << part
                << (lower == waxis::place::Lower::lens  ? ", lens shown"
                    : lower == waxis::place::Lower::sky ? ", sky shown"
                                                        : "")
                << (overlays ? ", all overlays" : "") << '\n';
            dragAbout(window, plan, part, out);
        }
    }
    window.document().history().setClean();
}
