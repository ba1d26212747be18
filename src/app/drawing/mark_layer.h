// What is drawn over everything: findings' marks, live distances, drag ghosts, grams.
#pragma once

#include "app/drawing/projection.h"
#include "app/theme/theme.h"
#include "core/rules/finding.h"

#include <QGraphicsItem>

namespace waxis::drawing {

class MarkLayer : public QGraphicsItem {
public:
    struct Mark {
        QPointF from, to;
        Severity severity = Severity::note;
    };
    struct Distance {
        QPointF from, to;
        QString text;
    };
    struct Dot {
        QPointF at;
        double radius_mm = 0;
    };
    struct Content {
        std::vector<Mark> marks;
        std::vector<Distance> distances;
        std::vector<Dot> grams;
        QPainterPath dragFrom, dragRaw;
        std::vector<QLineF> guides;
        QString dragText;
        QPointF dragAt;
    };

    explicit MarkLayer(const theme::Theme &theme) : theme_(theme) { setZValue(1e7); }
    void show(Content content);

    QRectF boundingRect() const override { return bounds_; }
    QPainterPath shape() const override { return {}; } // never in the way of the mouse
    void paint(QPainter *painter, const QStyleOptionGraphicsItem *option, QWidget *widget) override;

private:
    const theme::Theme &theme_;
    Content content_;
    QRectF bounds_;
};

} // namespace waxis::drawing
