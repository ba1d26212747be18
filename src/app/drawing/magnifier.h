// Looking closer at a drawing that fits itself to its widget: wheel at the pointer, dragging, whole again.
#pragma once

#include <QPointF>
#include <QRectF>
#include <algorithm>
#include <cmath>

namespace waxis::drawing {

/// From where a thing stands in the whole drawing (widget pixels) to where it is seen, and back.
class Magnifier {
public:
    double factor() const { return factor_; }
    bool isWhole() const { return factor_ == 1 && shift_.isNull(); }
    QPointF seen(const QPointF &whole) const { return whole * factor_ + shift_; }
    QPointF whole(const QPointF &seen) const { return (seen - shift_) / factor_; }

    void fit() {
        factor_ = 1;
        shift_ = {};
    }
    /// What lies at `seen` stays there.
    void zoomAt(const QPointF &seen, double by) {
        const QPointF fixed = whole(seen);
        factor_ = std::clamp(factor_ * by, kLeast, kMost);
        shift_ = seen - fixed * factor_;
    }
    void moveBy(const QPointF &seen) { shift_ += seen; }
    /// A piece of the whole drawing fills half of the room.
    void show(const QRectF &piece, const QRectF &room) {
        constexpr double kShare = 0.5, kSmallest_px = 8;
        factor_ = std::clamp(kShare * std::min(room.width() / std::max(piece.width(), kSmallest_px),
                                               room.height() / std::max(piece.height(), kSmallest_px)),
                             kLeast, kMost);
        shift_ = room.center() - piece.center() * factor_;
    }

private:
    static constexpr double kLeast = 0.5, kMost = 40;
    double factor_ = 1;
    QPointF shift_;
};

/// How much a turn of the wheel magnifies.
inline double wheelFactor(int angleDelta) { return std::pow(1.0015, angleDelta); }

} // namespace waxis::drawing
