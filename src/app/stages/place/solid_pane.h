// The Solid tab: the three-dimensional view with its switches, or why there is none.
#pragma once

#include "app/drawing/solid_view.h"

#include <QWidget>

class QLabel;
class QSlider;
class QToolButton;

namespace waxis::place {

class SolidPane : public QWidget {
    Q_OBJECT

public:
    SolidPane(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    /// Null where no OpenGL context can be had.
    drawing::SolidView *view() { return view_; }
    /// Switches for the bar over the pane; they live with it.
    QWidget *makeTools();

protected:
    void showEvent(QShowEvent *event) override;

private:
    void applyCut();

    app::Document &document_;
    const theme::Theme &theme_;
    drawing::SolidView *view_ = nullptr; ///< made when the pane is first shown
    QLabel *message_ = nullptr;
    QToolButton *plates_ = nullptr, *discs_ = nullptr, *cut_ = nullptr, *axis_ = nullptr;
    QSlider *at_ = nullptr;
    int cutAxis_ = 1;
};

} // namespace waxis::place
