#include "app/widgets/calm_wheel.h"

#include <QAbstractSpinBox>
#include <QComboBox>
#include <QCoreApplication>
#include <QEvent>
#include <QLineEdit>

namespace waxis::app {

CalmWheel::CalmWheel(QObject *parent) : QObject(parent) { QCoreApplication::instance()->installEventFilter(this); }

bool CalmWheel::eventFilter(QObject *receiver, QEvent *event) {
    if (event->type() != QEvent::Wheel) return false;
    // What is typed into stands in the box; the list that drops down hangs deeper, and scrolls.
    auto *box = qobject_cast<QWidget *>(qobject_cast<QLineEdit *>(receiver) ? receiver->parent() : receiver);
    if (!qobject_cast<QComboBox *>(box) && !qobject_cast<QAbstractSpinBox *>(box)) return false;
    if (box->hasFocus()) return false;
    event->ignore(); // offered to what it stands in next
    return true;
}

} // namespace waxis::app
