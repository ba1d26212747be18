// Draws pictures: shapes in the scene's millimetres, lines and tags in screen pixels.
#pragma once

#include "app/drawing/pictures.h"

#include <QGraphicsItem>

namespace waxis::drawing {

class PictureLayer : public QGraphicsItem {
public:
    PictureLayer(const theme::Theme &theme, bool hatched) : theme_(theme), hatched_(hatched) {
        setFlag(ItemUsesExtendedStyleOption); // to be told what is exposed
    }
    void show(std::vector<Picture> pictures);
    void setPixelsPerMm(double scale) { pixelsPerMm_ = scale; }
    const std::vector<Picture> &pictures() const { return pictures_; }

    QRectF boundingRect() const override { return wholeScene(); }
    QPainterPath shape() const override { return {}; } // never in the way of the mouse
    void paint(QPainter *painter, const QStyleOptionGraphicsItem *option, QWidget *widget) override;

private:
    const theme::Theme &theme_;
    bool hatched_; ///< cut faces carry a hatch
    std::vector<Picture> pictures_;
    double pixelsPerMm_ = 1;
};

} // namespace waxis::drawing
