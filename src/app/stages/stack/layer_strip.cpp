#include "app/stages/stack/layer_strip.h"

#include "app/widgets/typed_number.h"
#include "core/edits/stack_edits.h"
#include "core/stack/report.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::stackbench {

LayerStrip::LayerStrip(StackFocus &focus, StackCanvas &canvas, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), focus_(focus), canvas_(canvas), theme_(theme) {
    setObjectName("strip");
    auto *column = new QVBoxLayout(this);
    column->setContentsMargins(12, 5, 12, 5);
    column->setSpacing(4);
    auto *top = new QHBoxLayout;
    top->setSpacing(6);
    title_ = new QLabel;
    title_->setObjectName("layer-title");
    title_->setFont(theme.text(12, true));
    title_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    top->addWidget(title_, 1);
    column->addLayout(top);
    auto *line = new QHBoxLayout;
    line->setSpacing(5);
    column->addLayout(line);
    auto addField = [&](QLineEdit *&edit, const QString &name, const QString &label, const QString &says, int width) {
        auto *text = new QLabel(label);
        edit = new QLineEdit;
        edit->setObjectName(name);
        edit->setAccessibleName(says);
        edit->setToolTip(says);
        edit->setFont(theme.numbers(11));
        edit->setFixedWidth(width);
        line->addWidget(text);
        line->addWidget(edit);
        fields_.emplace_back(edit, text);
        connect(edit, &QLineEdit::editingFinished, this, &LayerStrip::apply);
    };
    addField(height_, "layer-height", tr("measured"),
             tr("Height as measured in hand, mm, free; empty: as the part has it"), 56);
    addField(tolerance_, "layer-tolerance", tr("±"),
             tr("Tolerance of the height, mm, two sigma; empty: the practice's"), 46);
    addField(squeeze_, "layer-squeeze", tr("squeezed"), tr("Share of the free height that the screws take, %"), 46);
    addField(cut_, "layer-cut", tr("cut to"), tr("Free height after cutting, mm; empty: not cut"), 46);
    line->addStretch(1);
    auto addButton = [&](QToolButton *&tool, const QString &text, const QString &name, const QString &says,
                         auto &&run) {
        tool = new QToolButton;
        tool->setText(text);
        tool->setObjectName(name);
        tool->setToolTip(says);
        tool->setAccessibleName(says);
        tool->setFocusPolicy(Qt::TabFocus);
        top->addWidget(tool);
        connect(tool, &QToolButton::clicked, this, run);
    };
    addButton(up_, tr("Out"), "layer-up", tr("Further from the frame (Ctrl+Up)"), [this] { canvas_.moveChosen(1); });
    addButton(down_, tr("In"), "layer-down", tr("Nearer to the frame (Ctrl+Down)"), [this] { canvas_.moveChosen(-1); });
    addButton(over_, tr("Over"), "layer-over", tr("Turn the board over (V)"), [this] { canvas_.flipChosen(); });
    addButton(turn_, tr("Turn"), "layer-turn", tr("Turn the board left by a quarter (Q; E to the right)"),
              [this] { canvas_.turnChosen(90); });
    addButton(other_, tr("Other"), "layer-other", tr("Another size or material for this layer"), [] {});
    auto *others = new QMenu(other_);
    connect(others, &QMenu::aboutToShow, this, [this, others] { fillChangeMenu(*others, focus_); });
    other_->setMenu(others);
    other_->setPopupMode(QToolButton::InstantPopup);
    addButton(out_, tr("Remove"), "layer-remove", tr("Take the layer out; a board stays in the build (Del)"),
              [this] { canvas_.removeChosen(); });
    title_->setForegroundRole(QPalette::BrightText);
    theme_.dress(*this, theme::Ground::matBar);
    connect(&focus_, &StackFocus::changed, this, &LayerStrip::refresh);
    refresh();
}

void LayerStrip::refresh() {
    const Stack *stack = focus_.stack();
    const StackReport *report = focus_.report();
    const int index = focus_.layer();
    const bool any = stack && report && index >= 0 && index < int(stack->layers.size());
    const StackLayer layer = any ? stack->layers[std::size_t(index)] : StackLayer{};
    const bool board = any && (layer.role == LayerRole::board || layer.role == LayerRole::adapter);
    const bool frame = any && layer.role == LayerRole::frame, damper = any && layer.role == LayerRole::damper;
    auto show = [&](QLineEdit *edit, bool shown, const QString &text) {
        for (const auto &[field, label] : fields_)
            if (field == edit) {
                field->setVisible(shown);
                label->setVisible(shown);
            }
        if (!edit->isModified() || !edit->hasFocus()) app::putText(edit, text);
    };
    if (!any)
        title_->setText(stack ? tr("Choose a layer, or drag it to reorder.") : QString());
    else
        title_->setText(tr("%1 of %2: %3").arg(index + 1).arg(stack->layers.size()).arg(focus_.layerWords(index)));
    auto maybe = [](const std::optional<double> &value, int decimals = 2) {
        return value ? QString::number(*value, 'f', decimals) : QString();
    };
    show(height_, any && !frame, maybe(layer.height_mm.value));
    show(tolerance_, any && !frame && !liesOnly(layer.role), maybe(layer.height_mm.tolerance));
    show(squeeze_, damper, QString::number(layer.squeeze * 100, 'f', 0));
    show(cut_, damper, maybe(layer.cutTo_mm, 1));
    if (any && !frame) height_->setPlaceholderText(number(report->layers[std::size_t(index)].free_mm));
    if (any && !frame) tolerance_->setPlaceholderText(number(report->layers[std::size_t(index)].tolerance_mm, 2));
    for (auto *tool : {up_, down_, over_, turn_, out_}) tool->setVisible(any);
    up_->setEnabled(any && index + 1 < int(stack->layers.size()));
    down_->setEnabled(any && index > 0);
    over_->setVisible(board);
    turn_->setVisible(board);
    other_->setVisible(any && isHardware(layer.role));
    out_->setEnabled(any && !frame);
}

void LayerStrip::apply() {
    const Stack *stack = focus_.stack();
    const int index = focus_.layer();
    if (!stack || index < 0 || index >= int(stack->layers.size())) return;
    const StackLayer layer = stack->layers[std::size_t(index)];
    bool typed = false, wrong = false;
    auto read = [&](QLineEdit *edit, std::optional<double> before,
                    Measure measure = Measure::length) -> std::optional<double> {
        if (!edit->isModified()) return before;
        edit->setModified(false);
        typed = true;
        if (edit->text().trimmed().isEmpty()) return std::nullopt;
        const auto value = app::typedNumber(edit->text(), measure);
        if (!value) {
            emit focus_.document().refused(app::notUnderstood(edit->text(), measure));
            wrong = true;
        }
        return value;
    };
    Measured height = layer.height_mm;
    height.value = read(height_, height.value);
    height.tolerance = read(tolerance_, height.tolerance);
    if (height.value != layer.height_mm.value) height.source = Source::measured;
    if (!height.value && !height.tolerance) height = {};
    const auto squeeze = read(squeeze_, layer.squeeze * 100, Measure::percent);
    const auto cut = read(cut_, layer.cutTo_mm);
    if (!typed) return;
    if (!wrong)
        focus_.edit(tr("Numbers of a layer"),
                    setLayer(focus_.document().build(), stack->id, index, height, squeeze.value_or(0) / 100, cut));
    refresh();
}

} // namespace waxis::stackbench
