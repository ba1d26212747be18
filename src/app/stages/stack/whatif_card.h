// What would make it close, cheapest change first; and the bill of hardware.
#pragma once

#include "app/document/background.h"
#include "app/stages/stack/stack_focus.h"
#include "app/widgets/card.h"
#include "core/remedies/stack_changes.h"

namespace waxis::stackbench {

class WhatIfCard : public theme::Card {
    Q_OBJECT

public:
    WhatIfCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);
    const std::vector<theme::ChoiceRow *> &rows() const { return rows_; }
    /// The list is worked out on another thread when nothing has moved for a moment; true once it is of what is shown.
    bool isSettled() const { return working_.isSettled(); }

private:
    void wait();
    app::Background<std::vector<StackSuggestion>>::Work prepare();
    void take(std::vector<StackSuggestion> suggestions);
    void apply(std::size_t index);
    StackFocus &focus_;
    const theme::Theme &theme_;
    std::vector<theme::ChoiceRow *> rows_;
    std::vector<StackSuggestion> suggestions_;
    QLabel *note_ = nullptr;
    Build asked_; ///< what the list is worked out for
    std::string askedStack_;
    app::Background<std::vector<StackSuggestion>> working_;
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
