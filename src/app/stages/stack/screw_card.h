// Which screw: the lengths that are sold, what each would do, head and material; the motors' screws below.
#pragma once

#include "app/stages/stack/stack_focus.h"
#include "app/widgets/card.h"

class QComboBox;

namespace waxis::stackbench {

class ScrewCard : public theme::Card {
    Q_OBJECT

public:
    ScrewCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);
    const std::vector<theme::ChoiceRow *> &rows() const { return rows_; }

private:
    void refresh();
    void choose(double length_mm);

    StackFocus &focus_;
    std::vector<theme::ChoiceRow *> rows_;
    QComboBox *head_ = nullptr, *material_ = nullptr;
    QLabel *sums_ = nullptr;
};

class MotorScrewCard : public theme::Card {
    Q_OBJECT

public:
    MotorScrewCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);

private:
    void refresh();
    void addRow();
    StackFocus &focus_;
    const theme::Theme &theme_;
    std::vector<theme::ChoiceRow *> rows_;
    QLabel *note_ = nullptr;
};

} // namespace waxis::stackbench
