#include "app/drawing/magnifier.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>

namespace waxis::drawing {

void CloserWidget::fit() {
    closer_.fit();
    update();
}

void CloserWidget::mousePressEvent(QMouseEvent *event) {
    if (takesPress(event) || event->button() == Qt::RightButton || !closerRoom().contains(event->position())) return;
    held_ = event->position();
    setCursor(Qt::ClosedHandCursor);
}

void CloserWidget::mouseMoveEvent(QMouseEvent *event) {
    if (!held_) return;
    closer_.moveBy(event->position() - *held_);
    held_ = event->position();
    update();
}

void CloserWidget::mouseReleaseEvent(QMouseEvent *) {
    held_.reset();
    unsetCursor();
}

void CloserWidget::wheelEvent(QWheelEvent *event) {
    if (!closerRoom().contains(event->position())) return QWidget::wheelEvent(event);
    closer_.zoomAt(event->position(), wheelFactor(event->angleDelta().y()));
    update();
    event->accept();
}

void CloserWidget::keyPressEvent(QKeyEvent *event) {
    const bool plain = !(event->modifiers() & ~Qt::KeypadModifier);
    if (plain && event->key() == Qt::Key_0)
        fit();
    else if (plain && event->key() == Qt::Key_Z)
        zoomToChosen();
    else
        QWidget::keyPressEvent(event);
}

} // namespace waxis::drawing
