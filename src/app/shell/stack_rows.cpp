#include "app/shell/stack_rows.h"

#include "core/build/chain.h"
#include "core/rules/wording.h"
#include "core/stack/report.h"

#include <QFormLayout>
#include <QLabel>

namespace waxis::app {

namespace {
QString mm(double value) { return QString::fromStdString(oneDecimal(value)); }
} // namespace

StackRows::StackRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent)
    : QObject(parent), document_(document), form_(form) {
    says_ = new QLabel;
    says_->setObjectName("in-the-stack");
    says_->setFont(theme.numbers(11));
    form.addRow(tr("in the stack"), says_);
}

void StackRows::refresh() {
    const Build &build = document_.build();
    const Part *part = document_.selectedPart();
    StackPlace place;
    if (part) place = stackPlaceOf(build, *part).value_or(StackPlace{});
    const StackReport *report = nullptr;
    for (const auto &candidate : document_.analysis().derived.stacks)
        if (place.stack && candidate.stack == place.stack->id) report = &candidate;
    says_->setVisible(report != nullptr);
    if (auto *label = form_.labelForField(says_)) label->setVisible(report != nullptr);
    if (!report) return;
    const Stack &stack = *place.stack;
    const QString name = QString::fromStdString(stack.name.empty() ? stack.id : stack.name);
    if (place.layer < 0) {
        says_->setText(tr("screw %1 of %2\n%3").arg(place.index + 1).arg(stack.screws.size()).arg(name));
        return;
    }
    const LayerSpan &span = report->chain.spans[std::size_t(place.layer)];
    const LayerReport &layer = report->layers[std::size_t(place.layer)];
    QStringList lines{tr("layer %1 of %2").arg(place.layer + 1).arg(stack.layers.size()),
                      tr("%1 to %2 mm over the base").arg(mm(span.from_mm), mm(span.to_mm))};
    if (stack.layers[std::size_t(place.layer)].role == LayerRole::board)
        lines << tr("stands up %1, hangs down %2").arg(mm(layer.standsUp_mm), mm(layer.hangsDown_mm));
    for (const auto &bare : report->bare)
        if (bare.board == part->id && !bare.hardware)
            lines << (bare.sheet ? tr("insulating sheet to the plate")
                                 : tr("bare %1 mm over the plate").arg(mm(bare.air_mm)));
    for (const auto &harness : report->harnesses)
        if (harness.boardA == part->id || harness.boardB == part->id) {
            const bool straight = harness.turn_deg <= 45;
            lines << (straight ? tr("flat cable %1 mm%2")
                                     .arg(harness.length_mm, 0, 'f', 0)
                                     .arg(harness.halfTwist ? tr(", half a twist") : QString())
                               : tr("flat cable %1 mm, %2° apart")
                                     .arg(harness.length_mm, 0, 'f', 0)
                                     .arg(harness.turn_deg, 0, 'f', 0));
        }
    says_->setText(lines.join('\n'));
}

} // namespace waxis::app
