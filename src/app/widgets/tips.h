// Tool tips that say what is under the pointer.
#pragma once

#include <QHelpEvent>
#include <QToolTip>

namespace waxis::theme {

/// Answers a tool tip event by what `tipAt` says of the place; true when the event was one.
template <class TipAt>
bool showTip(QEvent *event, QWidget *widget, TipAt &&tipAt) {
    if (event->type() != QEvent::ToolTip) return false;
    const auto *help = static_cast<QHelpEvent *>(event);
    const QString tip = tipAt(QPointF(help->pos()));
    if (tip.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(help->globalPos(), tip, widget);
    return true;
}

} // namespace waxis::theme
