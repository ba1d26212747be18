// One step in three dimensions, on demand: what is in already pale, what comes in full colour with its way in.
#pragma once

#include "app/drawing/solid_view.h"
#include "core/sequence/plan.h"

#include <QWidget>

class QLabel;

namespace waxis::assembly {

class StepSolid : public QWidget {
    Q_OBJECT

public:
    StepSolid(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// As StepDrawing::show.
    void show(const AssemblyPlan &plan, int at);
    void fit();
    /// Null where no OpenGL context can be had, or before it was shown.
    drawing::SolidView *view() { return view_; }

protected:
    void showEvent(QShowEvent *event) override;

private:
    void apply();

    app::Document &document_;
    const theme::Theme &theme_;
    drawing::SolidView *view_ = nullptr; ///< made when it is first shown
    QLabel *message_ = nullptr;
    drawing::SolidLooks looks_;
};

} // namespace waxis::assembly
