// What would make it close, cheapest change first; and the bill of hardware.
#pragma once

#include "app/stages/stack/stack_focus.h"
#include "app/widgets/card.h"
#include "core/remedies/stack_changes.h"

#include <QFutureWatcher>
#include <QTimer>

namespace waxis::stackbench {

class WhatIfCard : public theme::Card {
    Q_OBJECT

public:
    WhatIfCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);
    ~WhatIfCard() override;
    const std::vector<theme::ChoiceRow *> &rows() const { return rows_; }
    /// The list is worked out on another thread when nothing has moved for a moment; true once it is of what is shown.
    bool isSettled() const { return !quiet_.isActive() && !working_.isRunning(); }

private:
    void wait();
    void workOut();
    void take();
    void apply(std::size_t index);
    StackFocus &focus_;
    const theme::Theme &theme_;
    std::vector<theme::ChoiceRow *> rows_;
    std::vector<StackSuggestion> suggestions_;
    QLabel *note_ = nullptr;
    QTimer quiet_;
    QFutureWatcher<std::vector<StackSuggestion>> working_;
    Build asked_; ///< what the list is worked out for
    std::string askedStack_;
};

class HardwareCard : public theme::Card {
    Q_OBJECT

public:
    HardwareCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);

private:
    void refresh();
    StackFocus &focus_;
    QLabel *rows_ = nullptr, *sums_ = nullptr;
};

} // namespace waxis::stackbench
