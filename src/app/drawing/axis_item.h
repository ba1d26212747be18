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
    void show(View view, std::optional<Vec3> cg_mm, const Vec3 &thrustCentre_mm, std::optional<Vec3> offset_mm,
              const QRectF &reach);

    QRectF boundingRect() const override { return bounds_; }
    void paint(QPainter *painter, const QStyleOptionGraphicsItem *option, QWidget *widget) override;

private:
    const theme::Theme &theme_;
    View view_ = View::plan;
    std::optional<QPointF> cg_;
    QPointF thrust_;
    QString words_; ///< how far the plumb line hangs off the thrust axis
    QRectF reach_, bounds_;
};

} // namespace waxis::drawing
