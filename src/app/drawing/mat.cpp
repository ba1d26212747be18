#include "app/drawing/mat.h"

#include "app/drawing/walk.h"

#include <QFontMetricsF>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <cmath>

namespace waxis::drawing {

void paintMat(QPainter &painter, const QRectF &rect, double scale, const theme::Palette &c) {
    constexpr double kGrid_mm = 10, kStrongGrid_mm = 50;
    painter.fillRect(rect, c.mat);
    painter.setRenderHint(QPainter::Antialiasing, false);
    auto lines = [&](double step, const QColor &color) {
        if (step * scale < 5) return; // too fine to be seen
        QPen pen(color, 1.0);
        pen.setCosmetic(true);
        painter.setPen(pen);
        for (double x = std::floor(rect.left() / step) * step; x <= rect.right(); x += step)
            painter.drawLine(QPointF(x, rect.top()), QPointF(x, rect.bottom()));
        for (double y = std::floor(rect.top() / step) * step; y <= rect.bottom(); y += step)
            painter.drawLine(QPointF(rect.left(), y), QPointF(rect.right(), y));
    };
    lines(kGrid_mm, c.matGrid);
    lines(kStrongGrid_mm, c.matGridStrong);
    painter.setRenderHint(QPainter::Antialiasing, true);
}

void paintTag(QPainter &painter, const QPointF &at, const QString &text, const QColor &ink, const theme::Palette &c) {
    const QFontMetricsF metrics(painter.font());
    const QSizeF size(metrics.horizontalAdvance(text) + 8, metrics.height() + 2);
    const QRectF box(at - QPointF(size.width() / 2, size.height() / 2), size);
    QColor ground = c.matBar;
    ground.setAlphaF(0.85f);
    painter.setPen(Qt::NoPen);
    painter.setBrush(ground);
    painter.drawRoundedRect(box, 3, 3);
    painter.setPen(ink);
    painter.drawText(box, Qt::AlignCenter, text);
}

void prepareMapView(QGraphicsView &view) {
    view.setViewportUpdateMode(QGraphicsView::FullViewportUpdate);
    view.setRenderHint(QPainter::Antialiasing);
    view.setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    view.setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    view.setFrameShape(QFrame::NoFrame);
    view.setTransformationAnchor(QGraphicsView::NoAnchor);
    view.setResizeAnchor(QGraphicsView::AnchorViewCenter);
    view.setFocusPolicy(Qt::StrongFocus);
}

MatCanvas::MatCanvas(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumSize(200, 200);
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

QPointF MatCanvas::toPixels(double x, double y) const {
    return QPointF(width() / 2.0, height() / 2.0) + QPointF(x - centre_.x(), up_ * (centre_.y() - y)) * scale_;
}

QPointF MatCanvas::toMm(const QPointF &pixels) const {
    const QPointF d = (pixels - QPointF(width() / 2.0, height() / 2.0)) / scale_;
    return {centre_.x() + d.x(), centre_.y() - up_ * d.y()};
}

void MatCanvas::fit() {
    const QRectF box = content();
    touched_ = false;
    if (box.isEmpty() || width() < 40) return;
    constexpr double kMargin_px = 28;
    scale_ = std::clamp(std::min((width() - 2 * kMargin_px) / box.width(), (height() - 2 * kMargin_px) / box.height()),
                        0.05, 40.0);
    centre_ = box.center();
    update();
}

void MatCanvas::setMirrored(bool mirrored) {
    up_ = mirrored ? -1 : 1;
    update();
}

void MatCanvas::zoomToChosen() {
    const QRectF box = chosenBox();
    if (!box.isValid()) return;
    constexpr double kShare = 0.5, kLeast_mm = 4; // a post of no height still has a size
    const double wide = std::max(box.width(), kLeast_mm), high = std::max(box.height(), kLeast_mm);
    scale_ = std::clamp(kShare * std::min(width() / wide, height() / high), 0.05, 40.0);
    centre_ = box.center();
    touched_ = true;
    update();
}

bool MatCanvas::focusNextPrevChild(bool next) {
    if (const auto to = walkTo(walkable(), walkedAt(), next)) {
        walkedTo(*to);
        return true;
    }
    return QWidget::focusNextPrevChild(next);
}

void MatCanvas::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QPointF origin = toPixels(0, 0);
    painter.save();
    painter.translate(origin);
    painter.scale(scale_, scale_);
    const QRectF seen(-origin.x() / scale_, -origin.y() / scale_, width() / scale_, height() / scale_);
    paintMat(painter, seen, scale_, theme_.colors());
    painter.restore();
    paintContent(painter);
    if (hasFocus()) {
        QPen pen(theme_.colors().thrustAxis, 1);
        painter.setPen(pen);
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5));
    }
}

void MatCanvas::mousePressEvent(QMouseEvent *event) {
    if (event->button() == Qt::LeftButton && press(event->position(), event->modifiers())) {
        holding_ = true;
        return;
    }
    panning_ = true;
    last_ = event->position();
    setCursor(Qt::ClosedHandCursor);
}

void MatCanvas::mouseMoveEvent(QMouseEvent *event) {
    if (holding_) {
        drag(event->position(), event->modifiers());
    } else if (panning_) {
        const QPointF moved = (event->position() - last_) / scale_;
        centre_ += QPointF(-moved.x(), up_ * moved.y());
        last_ = event->position();
        touched_ = true;
        update();
    } else {
        hover(event->position());
    }
}

void MatCanvas::mouseReleaseEvent(QMouseEvent *) {
    if (holding_) release();
    holding_ = panning_ = false;
    setCursor(Qt::ArrowCursor);
}

void MatCanvas::wheelEvent(QWheelEvent *event) {
    const QPointF under = toMm(event->position());
    scale_ = std::clamp(scale_ * std::pow(1.0015, event->angleDelta().y()), 0.05, 40.0);
    centre_ += under - toMm(event->position());
    touched_ = true;
    update();
    event->accept();
}

void MatCanvas::keyPressEvent(QKeyEvent *event) {
    if (event->key() == Qt::Key_0)
        fit();
    else if (event->key() == Qt::Key_Z && !(event->modifiers() & ~Qt::KeypadModifier))
        zoomToChosen();
    else if (event->key() == Qt::Key_Escape && holding_) {
        holding_ = false;
        cancel();
    } else {
        QWidget::keyPressEvent(event);
    }
}

void MatCanvas::resizeEvent(QResizeEvent *event) {
    QWidget::resizeEvent(event);
    if (!touched_) fit();
}

void MatCanvas::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    if (!touched_) fit();
}

} // namespace waxis::drawing
