#include "app/drawing/axis_item.h"

#include <QPainter>

namespace waxis::drawing {

void AxisItem::show(View view, std::optional<Vec3> cg_mm, const Vec3 &thrustCentre_mm, const QRectF &reach) {
    const std::optional<QPointF> cg = cg_mm ? std::optional(project(view, *cg_mm)) : std::nullopt;
    const QPointF thrust = project(view, thrustCentre_mm);
    if (view == view_ && cg == cg_ && thrust == thrust_ && reach == reach_) return;
    prepareGeometryChange();
    view_ = view;
    cg_ = cg;
    thrust_ = thrust;
    reach_ = reach;
    // Only a strip round the two lines is repainted when the plumb line moves.
    constexpr double kStrip_mm = 12;
    const double left = std::min(thrust.x(), cg ? cg->x() : thrust.x()) - kStrip_mm;
    const double right = std::max(thrust.x(), cg ? cg->x() : thrust.x()) + kStrip_mm;
    bounds_ = QRectF(left, reach.top(), right - left, reach.height());
}

void AxisItem::paint(QPainter *painter, const QStyleOptionGraphicsItem *, QWidget *) {
    const auto &c = theme_.colors();
    const double scale = painter->worldTransform().m11();
    painter->setRenderHint(QPainter::Antialiasing);
    QPen thrust(c.thrustAxis, 1.2);
    thrust.setCosmetic(true);
    thrust.setDashPattern({10, 4, 2, 4});
    painter->setPen(thrust);
    painter->drawLine(QPointF(thrust_.x(), bounds_.top()), QPointF(thrust_.x(), bounds_.bottom()));
    const double arm = 6 / scale;
    painter->drawLine(thrust_ - QPointF(arm, 0), thrust_ + QPointF(arm, 0));
    if (!cg_) return;
    QPen plumb(c.plumb, 1.8);
    plumb.setCosmetic(true);
    painter->setPen(plumb);
    painter->drawLine(QPointF(cg_->x(), bounds_.top()), QPointF(cg_->x(), bounds_.bottom()));
    painter->setBrush(Qt::NoBrush);
    painter->drawEllipse(*cg_, 6 / scale, 6 / scale);
    painter->setBrush(c.plumb);
    painter->drawEllipse(*cg_, 2 / scale, 2 / scale);
}

} // namespace waxis::drawing
