// Finds places for labels so that none stands on another.
#pragma once

#include <QRectF>
#include <map>
#include <utility>
#include <vector>

namespace waxis::drawing {

/// All in scene coordinates. What is placed first keeps its place.
class TagBoard {
public:
    /// `cell`: about the size of a label; what is taken is looked up by squares of that size.
    explicit TagBoard(double cell) : cell_(cell) {}
    void keepClear(const QRectF &rect);
    const std::vector<QRectF> &taken() const { return taken_; }

    /// A box of that size about the anchor, or moved off it by the fewest steps up, down or aside until it stands free;
    /// it is taken from then on. Where nothing near is free it stays on the anchor.
    QRectF place(const QPointF &anchor, const QSizeF &size);

private:
    using Square = std::pair<int, int>;
    /// The squares that a box covers, first and last.
    std::pair<Square, Square> squaresOf(const QRectF &box) const;
    bool isFree(const QRectF &box) const;

    double cell_;
    std::vector<QRectF> taken_;
    std::map<Square, std::vector<int>> bySquare_; ///< indices in taken_
};

} // namespace waxis::drawing
