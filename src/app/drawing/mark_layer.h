// What is drawn over everything: findings' marks, live distances, drag ghosts, grams.
#pragma once

#include "app/drawing/projection.h"
#include "app/theme/theme.h"
#include "core/findings/finding.h"

#include <QGraphicsItem>

namespace waxis::drawing {

class MarkLayer : public QGraphicsItem {
public:
    struct Mark {
        QPointF from, to;
        Severity severity = Severity::note;
        bool operator==(const Mark &) const = default;
    };
    struct Distance {
        QPointF from, to;
        QString text;
        bool operator==(const Distance &) const = default;
    };
    struct Dot {
        QPointF at;
        double radius_mm = 0;
        bool operator==(const Dot &) const = default;
    };
    struct Content {
        std::vector<Mark> marks;
        std::vector<Distance> distances;
        std::vector<QRectF> keepClear; ///< scene coordinates: other labels
        QRectF distancesBeside;        ///< the labels stand in a column beside this
        bool distancesOnLeft = false;
        std::vector<Dot> grams;
        QPainterPath dragFrom, dragRaw;
        std::vector<QLineF> guides;
        QString dragText;
        QPointF dragAt;
    };

    explicit MarkLayer(const theme::Theme &theme) : theme_(theme) { setZValue(1e7); }
    void show(Content content);
    /// Marks and labels keep their size on screen: how much of the scene they cover depends on the scale.
    void setPixelsPerMm(double scale) { pixelsPerMm_ = scale; }

    QRectF boundingRect() const override { return wholeScene(); }
    QPainterPath shape() const override { return {}; } // never in the way of the mouse
    void paint(QPainter *painter, const QStyleOptionGraphicsItem *option, QWidget *widget) override;

private:
    const theme::Theme &theme_;
    Content content_;
    double pixelsPerMm_ = 1;
};

} // namespace waxis::drawing
