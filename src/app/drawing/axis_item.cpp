#include "app/drawing/axis_item.h"

#include "app/theme/metrics.h"
#include "core/rules/wording.h"

#include <QCoreApplication>
#include <QFontMetricsF>
#include <QGraphicsScene>
#include <QLineF>
#include <QPainter>
#include <cmath>

namespace waxis::drawing {

namespace {
constexpr double kWordsWidth_px = 140, kWordsHeight_px = 20;
}

QPointF AxisItem::foot() const {
    // Below the craft in plan, under the feet in the elevation.
    const double below_mm = view_ == View::plan ? 60 : 44;
    return {cg_->x(), (view_ == View::plan ? 0 : thrust_.y()) + below_mm};
}

QRectF AxisItem::wordsRect() const {
    if (!cg_ || words_.isEmpty()) return {};
    const double px = 1 / pixelsPerMm_;
    return {foot() + QPointF(0, -kWordsHeight_px / 2 * px), QSizeF(kWordsWidth_px * px, kWordsHeight_px * 1.5 * px)};
}

void AxisItem::refresh() {
    if (!scene()) return;
    // Two thin strips and the words: the plumb line moves with every step of a drag.
    const double px = 1 / pixelsPerMm_;
    const QRectF all = wholeScene();
    auto strip = [&](double x) { scene()->update(QRectF(x - 8 * px, all.top(), 16 * px, all.height())); };
    strip(thrust_.x());
    if (!cg_) return;
    strip(cg_->x());
    scene()->update(QRectF(foot(), QSizeF(kWordsWidth_px * px, kWordsHeight_px * px)));
}

void AxisItem::show(View view, std::optional<Vec3> cg_mm, const Vec3 &thrustCentre_mm, std::optional<Vec3> offset_mm) {
    const std::optional<QPointF> cg = cg_mm ? std::optional(project(view, *cg_mm)) : std::nullopt;
    const QPointF thrust = project(view, thrustCentre_mm);
    QString words;
    if (offset_mm && view != View::front) {
        const double fore = offset_mm->x();
        const char *pattern =
            fore >= 0 ? QT_TRANSLATE_NOOP("AxisItem", "CG %1 mm fore") : QT_TRANSLATE_NOOP("AxisItem", "CG %1 mm aft");
        words =
            QCoreApplication::translate("AxisItem", pattern).arg(QString::fromStdString(oneDecimal(std::abs(fore))));
    }
    // Less than can be seen is not painted again: a light part hardly moves the line, and the strip is as high as the
    // mat.
    constexpr double kSeen_px = 0.3;
    const bool still =
        cg.has_value() == cg_.has_value() && (!cg || QLineF(*cg, *cg_).length() * pixelsPerMm_ < kSeen_px);
    if (view == view_ && words == words_ && still && thrust == thrust_) return;
    refresh();
    view_ = view;
    words_ = words;
    cg_ = cg;
    thrust_ = thrust;
    refresh();
}

void AxisItem::paint(QPainter *painter, const QStyleOptionGraphicsItem *, QWidget *) {
    const auto &c = theme_.colors();
    const double scale = painter->worldTransform().m11();
    painter->setRenderHint(QPainter::Antialiasing);
    QPen thrust(c.thrustAxis, 1.2);
    thrust.setCosmetic(true);
    thrust.setDashPattern({10, 4, 2, 4});
    painter->setPen(thrust);
    painter->drawLine(QPointF(thrust_.x(), wholeScene().top()), QPointF(thrust_.x(), wholeScene().bottom()));
    const double arm = 6 / scale;
    painter->drawLine(thrust_ - QPointF(arm, 0), thrust_ + QPointF(arm, 0));
    if (!cg_) return;
    QPen plumb(c.plumb, 1.8);
    plumb.setCosmetic(true);
    painter->setPen(plumb);
    painter->drawLine(QPointF(cg_->x(), wholeScene().top()), QPointF(cg_->x(), wholeScene().bottom()));
    painter->setBrush(Qt::NoBrush);
    painter->drawEllipse(*cg_, 6 / scale, 6 / scale);
    painter->setBrush(c.plumb);
    painter->drawEllipse(*cg_, 2 / scale, 2 / scale);
    if (words_.isEmpty()) return;
    const QPointF foot = painter->worldTransform().map(this->foot());
    painter->save();
    painter->resetTransform();
    painter->setPen(Qt::NoPen);
    painter->drawPolygon(QPolygonF{foot + QPointF(-5, 2), foot + QPointF(5, 2), foot + QPointF(0, 14)});
    if (view_ == View::plan) {
        const QFont font = theme_.numbers(theme::kSmallPixels);
        const QRectF box(foot + QPointF(9, 0), QSizeF(QFontMetricsF(font).horizontalAdvance(words_) + 10, 18));
        painter->setBrush(c.matBar);
        painter->drawRoundedRect(box, theme::kCorner, theme::kCorner);
        painter->setPen(c.plumb);
        painter->setFont(font);
        painter->drawText(box, Qt::AlignCenter, words_);
    }
    painter->restore();
}

} // namespace waxis::drawing
