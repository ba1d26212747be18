// Where two things of a stack come closest, on a small plan.
#pragma once

#include "app/stages/stack/stack_focus.h"
#include "app/widgets/card.h"

class QToolButton;

namespace waxis::stackbench {

/// The lower board with what stands up, the upper one's outline and what hangs down, and the place.
class GapPlan : public QWidget {
    Q_OBJECT

public:
    GapPlan(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    StackFocus &focus_;
    const theme::Theme &theme_;
};

class GapCard : public theme::Card {
    Q_OBJECT

public:
    GapCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);

private:
    void refresh();
    void step(int way);
    StackFocus &focus_;
    GapPlan *plan_ = nullptr;
    QLabel *words_ = nullptr;
    QToolButton *before_ = nullptr, *next_ = nullptr;
};

} // namespace waxis::stackbench
