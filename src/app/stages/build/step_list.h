// The steps as a strip of small cards, grouped by where hands are and which side is up.
#pragma once

#include "app/document/document.h"
#include "app/stages/build/plan_source.h"
#include "app/theme/theme.h"

#include <QListWidget>

namespace waxis::assembly {

/// Rows are groups' heads, which cannot be chosen, and steps. Space ticks; a step that is dragged asks for another
/// order.
class StepList : public QListWidget {
    Q_OBJECT

public:
    StepList(app::Document &document, const theme::Theme &theme, const PlanSource &source, QWidget *parent = nullptr);

    /// Of the plan; -1: none.
    int step() const;
    void choose(int step);
    /// Row of a step; -1: none.
    int rowOf(int step) const;

signals:
    void stepChosen(int step);
    /// By a hand: what it is about is to be shown elsewhere too.
    void picked(int step);
    void tickWanted(int step);
    /// `step` is to stand before `before`, or after all of them when that is the number of steps.
    void orderWanted(int step, int before);

protected:
    void keyPressEvent(QKeyEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void dropEvent(QDropEvent *event) override;

private:
    void fill();

    app::Document &document_;
    const theme::Theme &theme_;
    const PlanSource &source_;
};

} // namespace waxis::assembly
