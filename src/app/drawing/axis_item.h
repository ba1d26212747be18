// The plumb line through the centre of gravity, beside the thrust axis.
#pragma once

#include "app/drawing/projection.h"
#include "app/theme/theme.h"

#include <QGraphicsItem>
#include <optional>

namespace waxis::drawing {

class AxisItem : public QGraphicsItem {
public:
    AxisItem(const theme::Theme &theme) : theme_(theme) {}
    void show(View view, std::optional<Vec3> cg_mm, const Vec3 &thrustCentre_mm, std::optional<Vec3> offset_mm);
    void setPixelsPerMm(double scale) { pixelsPerMm_ = scale; }
    /// What the words cover, scene coordinates; null without words.
    QRectF wordsRect() const;

    QRectF boundingRect() const override { return wholeScene(); }
    QPainterPath shape() const override { return {}; } // never in the way of the mouse
    void paint(QPainter *painter, const QStyleOptionGraphicsItem *option, QWidget *widget) override;

private:
    /// Where the plumb bob hangs, scene coordinates.
    QPointF foot() const;
    void refresh();

    const theme::Theme &theme_;
    View view_ = View::plan;
    std::optional<QPointF> cg_;
    QPointF thrust_;
    QString words_; ///< how far the plumb line hangs off the thrust axis
    double pixelsPerMm_ = 1;
};

} // namespace waxis::drawing
