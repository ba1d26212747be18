// Does it close under the plate above? The likely and worst case, and which layer matters most.
#pragma once

#include "app/stages/stack/stack_focus.h"
#include "app/widgets/card.h"

namespace waxis::stackbench {

class ClosingCurve : public QWidget {
    Q_OBJECT

public:
    ClosingCurve(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *) override;

private:
    StackFocus &focus_;
    const theme::Theme &theme_;
};

class ClosingCard : public theme::Card {
    Q_OBJECT

public:
    ClosingCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);

private:
    void refresh();
    StackFocus &focus_;
    ClosingCurve *curve_ = nullptr;
    QLabel *words_ = nullptr;
};

} // namespace waxis::stackbench
