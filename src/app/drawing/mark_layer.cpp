#include "app/drawing/mark_layer.h"

#include "app/theme/metrics.h"

#include <QFontMetricsF>
#include <QGraphicsScene>
#include <QPainter>
#include <algorithm>

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
    // Only what changed is painted again, piece by piece: while a part is dragged that is little of the mat.
    const double px = 1 / pixelsPerMm_;
    auto refresh = [&](const QRectF &rect, double across_px, double down_px) {
        if (scene())
            scene()->update(rect.normalized().adjusted(-across_px * px, -down_px * px, across_px * px, down_px * px));
    };
    auto refreshChanged = [&](const auto &before, const auto &after, auto &&rectOf) {
        for (const auto &[these, those] : {std::pair(&before, &after), std::pair(&after, &before)})
            for (const auto &piece : *these)
                if (std::find(those->begin(), those->end(), piece) == those->end()) rectOf(piece);
    };
    constexpr double kLabel_px = 90, kPushedDown_px = 80;
    refreshChanged(content_.marks, content.marks, [&](const Mark &m) { refresh(QRectF(m.from, m.to), 10, 10); });
    if (content_.distances != content.distances) // one label may push another
        for (const auto *list : {&content_.distances, &content.distances})
            for (const auto &d : *list) refresh(QRectF(d.from, d.to), kLabel_px, kPushedDown_px);
    refreshChanged(content_.grams, content.grams, [&](const Dot &d) {
        refresh(QRectF(d.at, d.at).adjusted(-d.radius_mm, -d.radius_mm, d.radius_mm, d.radius_mm), 2, 2);
    });
    refreshChanged(content_.guides, content.guides, [&](const QLineF &l) { refresh(QRectF(l.p1(), l.p2()), 2, 2); });
    for (const auto *side : {&content_, &content}) {
        if (content_.dragFrom != content.dragFrom) refresh(side->dragFrom.boundingRect(), 3, 3);
        if (content_.dragRaw != content.dragRaw) refresh(side->dragRaw.boundingRect(), 3, 3);
        if (content_.dragText != content.dragText || content_.dragAt != content.dragAt)
            refresh(QRectF(side->dragAt, side->dragAt), 320, kPushedDown_px);
    }
    content_ = std::move(content);
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
