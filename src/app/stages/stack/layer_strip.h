// Under the column: the chosen layer's numbers, and what can be done with it.
#pragma once

#include "app/stages/stack/stack_canvas.h"

class QLabel;
class QLineEdit;
class QMenu;
class QToolButton;

namespace waxis::stackbench {

class LayerStrip : public QWidget {
    Q_OBJECT

public:
    LayerStrip(StackFocus &focus, StackCanvas &canvas, const theme::Theme &theme, QWidget *parent = nullptr);

private:
    void refresh();
    void apply();

    StackFocus &focus_;
    StackCanvas &canvas_;
    const theme::Theme &theme_;
    QLabel *title_ = nullptr;
    QLineEdit *height_ = nullptr, *tolerance_ = nullptr, *squeeze_ = nullptr, *cut_ = nullptr;
    std::vector<std::pair<QLineEdit *, QLabel *>> fields_;
    QToolButton *up_ = nullptr, *down_ = nullptr, *over_ = nullptr, *turn_ = nullptr, *out_ = nullptr,
                *other_ = nullptr;
};

/// What can be laid on the chosen layer: boards, hardware of every size, air, wires, sheets.
void fillAddMenu(QMenu &menu, StackFocus &focus);
/// Other sizes and materials of the chosen layer of hardware.
void fillChangeMenu(QMenu &menu, StackFocus &focus);

} // namespace waxis::stackbench
