// Finds places for labels so that none stands on another.
#pragma once

#include <QRectF>
#include <vector>

namespace waxis::drawing {

/// All in scene coordinates. What is placed first keeps its place.
class TagBoard {
public:
    void keepClear(const QRectF &rect) { taken_.push_back(rect); }
    const std::vector<QRectF> &taken() const { return taken_; }

    /// A box of that size about the anchor, or moved off it by the fewest steps up, down or aside until it stands free;
    /// it is taken from then on. Where nothing near is free it stays on the anchor.
    QRectF place(const QPointF &anchor, const QSizeF &size);

private:
    std::vector<QRectF> taken_;
};

} // namespace waxis::drawing
