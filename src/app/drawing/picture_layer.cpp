#include "app/drawing/picture_layer.h"

#include "app/drawing/mat.h"
#include "app/theme/metrics.h"

#include <QGraphicsScene>
#include <QPainter>
#include <QStyleOptionGraphicsItem>
#include <algorithm>

namespace waxis::drawing {

namespace {

/// Dashing takes time in step with the length in pixels, seen or not: a line to something far away, looked at closely,
/// has millions of dashes. Such a line is drawn whole and faint.
void keepDashesFew(QPen &pen, const QRectF &bounds, double pixelsPerMm) {
    constexpr double kMost_px = 12000;
    if (pen.style() == Qt::SolidLine || (bounds.width() + bounds.height()) * pixelsPerMm < kMost_px) return;
    QColor faint = pen.color();
    faint.setAlphaF(0.5f * float(faint.alphaF()));
    pen.setColor(faint);
    pen.setStyle(Qt::SolidLine);
}

/// No less than half a tag's width: the figures' font is 7 px wide at this size.
double halfTag_px(const Picture &picture) { return 4.0 * double(picture.tag.size()) + 12; }

} // namespace

void PictureLayer::show(std::vector<Picture> pictures) {
    if (pictures == pictures_) return;
    if (scene()) { // only what changed is painted again
        const double px = 1 / pixelsPerMm_;
        for (const auto &[these, those] : {std::pair(&pictures_, &pictures), std::pair(&pictures, &pictures_)})
            for (const auto &picture : *these) {
                if (std::find(those->begin(), those->end(), picture) != those->end()) continue;
                scene()->update(picture.path.boundingRect().adjusted(-3 * px, -3 * px, 3 * px, 3 * px));
                if (!picture.tag.isEmpty())
                    scene()->update(
                        QRectF(picture.tagAt, picture.tagAt)
                            .adjusted(-halfTag_px(picture) * px, -14 * px, halfTag_px(picture) * px, 14 * px));
            }
    }
    pictures_ = std::move(pictures);
}

void PictureLayer::paint(QPainter *painter, const QStyleOptionGraphicsItem *option, QWidget *) {
    painter->setRenderHint(QPainter::Antialiasing);
    const double px = 1 / pixelsPerMm_;
    const QRectF exposed = option->exposedRect.adjusted(-4 * px, -4 * px, 4 * px, 4 * px);
    for (const auto &picture : pictures_) {
        if (!picture.path.boundingRect().adjusted(-px, -px, px, px).intersects(exposed)) continue;
        QPen pen(picture.line, picture.width_px, picture.style);
        pen.setCosmetic(true);
        keepDashesFew(pen, picture.path.boundingRect(), painter->worldTransform().m11());
        painter->setPen(picture.line.isValid() ? pen : QPen(Qt::NoPen));
        painter->setBrush(picture.fill.isValid() ? QBrush(picture.fill) : QBrush(Qt::NoBrush));
        painter->drawPath(picture.path);
        if (!hatched_) continue;
        QBrush hatch(QColor(0, 0, 0, 110), Qt::BDiagPattern);
        hatch.setTransform(painter->worldTransform().inverted()); // the hatch keeps its size on screen
        painter->setPen(Qt::NoPen);
        painter->setBrush(hatch);
        painter->drawPath(picture.path);
    }
    // Tags last, in pixels.
    const QTransform toPixels = painter->worldTransform();
    painter->save();
    painter->resetTransform();
    painter->setFont(theme_.numbers(theme::kSmallPixels));
    constexpr double kTagHeight_px = 14;
    for (const auto &picture : pictures_)
        if (!picture.tag.isEmpty() &&
            QRectF(picture.tagAt, picture.tagAt)
                .adjusted(-halfTag_px(picture) * px, -kTagHeight_px * px, halfTag_px(picture) * px, kTagHeight_px * px)
                .intersects(exposed))
            paintTag(*painter, toPixels.map(picture.tagAt), picture.tag, theme_.colors().chalk, theme_.colors());
    painter->restore();
}

} // namespace waxis::drawing
