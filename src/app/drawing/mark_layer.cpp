#include "app/drawing/mark_layer.h"

#include "app/theme/metrics.h"

#include <QFontMetricsF>
#include <QPainter>

namespace waxis::drawing {

namespace {

/// Draws in screen pixels at a scene point.
template <class Draw>
void atPixel(QPainter *painter, const QPointF &scenePoint, Draw &&draw) {
    painter->save();
    const QPointF at = painter->worldTransform().map(scenePoint);
    painter->resetTransform();
    draw(at);
    painter->restore();
}

} // namespace

void MarkLayer::show(Content content) {
    prepareGeometryChange();
    content_ = std::move(content);
    QRectF b;
    auto include = [&](const QPointF &p) { b |= QRectF(p - QPointF(1, 1), QSizeF(2, 2)); };
    for (const auto &m : content_.marks) {
        include(m.from);
        include(m.to);
    }
    for (const auto &d : content_.distances) {
        include(d.from);
        include(d.to);
    }
    for (const auto &g : content_.guides) {
        include(g.p1());
        include(g.p2());
    }
    for (const auto &d : content_.grams)
        b |= QRectF(d.at - QPointF(d.radius_mm, d.radius_mm), 2 * QSizeF(d.radius_mm, d.radius_mm));
    b |= content_.dragFrom.boundingRect() | content_.dragRaw.boundingRect();
    if (!content_.dragText.isEmpty()) include(content_.dragAt);
    constexpr double kTextRoom_mm = 60; // labels are in pixels: at the smallest usual scale they reach this far
    bounds_ = b.isNull() ? b : b.adjusted(-kTextRoom_mm, -kTextRoom_mm / 2, kTextRoom_mm, kTextRoom_mm / 2);
    update();
}

void MarkLayer::paint(QPainter *painter, const QStyleOptionGraphicsItem *, QWidget *) {
    const auto &c = theme_.colors();
    painter->setRenderHint(QPainter::Antialiasing);
    for (const auto &dot : content_.grams) {
        QColor amber = c.plumb;
        amber.setAlphaF(0.45f);
        painter->setPen(Qt::NoPen);
        painter->setBrush(amber);
        painter->drawEllipse(dot.at, dot.radius_mm, dot.radius_mm);
    }
    QPen ghost(c.chalk, 1.2, Qt::DashLine);
    ghost.setCosmetic(true);
    painter->setBrush(Qt::NoBrush);
    painter->setPen(ghost);
    painter->drawPath(content_.dragFrom);
    QPen raw(c.softChalk, 1.0, Qt::DotLine);
    raw.setCosmetic(true);
    painter->setPen(raw);
    painter->drawPath(content_.dragRaw);
    QPen guide(c.thrustAxis, 1.0);
    guide.setCosmetic(true);
    painter->setPen(guide);
    for (const auto &line : content_.guides) painter->drawLine(line);

    const QFont numbers = theme_.numbers(theme::kSmallPixels);
    const QFontMetricsF metrics(numbers);
    std::vector<QRectF> taken;
    auto label = [&](const QPointF &scenePoint, const QString &text, const QColor &color) {
        atPixel(painter, scenePoint, [&](const QPointF &at) {
            QRectF box(at + QPointF(8, -9), QSizeF(metrics.horizontalAdvance(text) + 8, 18));
            // Labels never stand on each other: a taken place pushes the next one down.
            for (bool moved = true; moved;) {
                moved = false;
                for (const auto &other : taken)
                    if (box.intersects(other)) {
                        box.moveTop(other.bottom() + 1);
                        moved = true;
                    }
            }
            taken.push_back(box);
            painter->setPen(Qt::NoPen);
            painter->setBrush(c.matBar);
            painter->drawRoundedRect(box, theme::kCorner, theme::kCorner);
            painter->setPen(color);
            painter->setFont(numbers);
            painter->drawText(box, Qt::AlignCenter, text);
        });
    };
    QPen distance(c.chalk, 1.0, Qt::DashLine);
    distance.setCosmetic(true);
    for (const auto &d : content_.distances) {
        painter->setPen(distance);
        painter->drawLine(d.from, d.to);
        label((d.from + d.to) / 2, d.text, c.chalk);
    }
    for (const auto &mark : content_.marks) {
        const QColor color = theme::severityOnMat(mark.severity);
        QPen pen(color, 1.4);
        pen.setCosmetic(true);
        painter->setPen(pen);
        painter->drawLine(mark.from, mark.to);
        atPixel(painter, (mark.from + mark.to) / 2, [&](const QPointF &at) {
            theme::drawSeverityMark(*painter, at, 6.5, Severity::note,
                                    c.matBar); // a rim, so that it stands out on any fill
            theme::drawSeverityMark(*painter, at, 4.5, mark.severity, color);
        });
    }
    if (!content_.dragText.isEmpty()) label(content_.dragAt, content_.dragText, c.thrustAxis);
}

} // namespace waxis::drawing
