#include "app/drawing/mark_layer.h"

#include "app/drawing/mark_clusters.h"
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
    refreshChanged(content_.marks, content.marks, [&](const Mark &m) { refresh(QRectF(m.from, m.to), 26, 26); });
    if (content_.distances != content.distances || content_.distancesBeside != content.distancesBeside)
        for (const auto *side : {&content_, &content}) {
            refresh(side->distancesBeside, kLabel_px, kPushedDown_px);
            for (const auto &d : side->distances) refresh(QRectF(d.from, d.to), 3, 3);
        }
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
    std::vector<QRectF> taken; // in pixels; marks come first
    for (const auto &mark : content_.marks) {
        const QPointF at = painter->worldTransform().map((mark.from + mark.to) / 2);
        taken.push_back(QRectF(at, at).adjusted(-kMark_px, -kMark_px, kMark_px, kMark_px));
    }
    for (const auto &rect : content_.keepClear) taken.push_back(painter->worldTransform().mapRect(rect));
    auto label = [&](const QPointF &scenePoint, const QString &text, const QColor &color, bool onLeft = false) {
        atPixel(painter, scenePoint, [&](const QPointF &at) {
            const double width = metrics.horizontalAdvance(text) + 8;
            QRectF box(at + QPointF(onLeft ? -8 - width : 8, -9), QSizeF(width, 18));
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
        const QRectF &beside = content_.distancesBeside;
        label(content_.distancesOnLeft ? beside.topLeft() : beside.topRight(), d.text, c.chalk,
              content_.distancesOnLeft);
    }
    std::vector<std::pair<QPointF, Severity>> points;
    for (const auto &mark : content_.marks) {
        const QColor color = theme::severityOnMat(mark.severity);
        QPen pen(color, 1.4);
        pen.setCosmetic(true);
        painter->setPen(pen);
        painter->drawLine(mark.from, mark.to);
        points.emplace_back(painter->worldTransform().map((mark.from + mark.to) / 2), mark.severity);
    }
    painter->save();
    painter->resetTransform();
    for (const auto &cluster : clusterMarks(points, 2 * kMark_px)) paintMarkCluster(*painter, cluster, theme_);
    painter->restore();
    if (!content_.dragText.isEmpty()) label(content_.dragAt, content_.dragText, c.thrustAxis);
}

} // namespace waxis::drawing
