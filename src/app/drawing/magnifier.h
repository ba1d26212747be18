// Looking closer at a drawing that fits itself to its widget: wheel at the pointer, dragging, whole again.
#pragma once

#include <QPointF>
#include <QRectF>
#include <QWidget>
#include <algorithm>
#include <cmath>
#include <optional>

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

/// A drawing that fits itself to its widget and can be looked at closely: wheel at the pointer, dragging, 0, Z.
class CloserWidget : public QWidget {
public:
    explicit CloserWidget(QWidget *parent = nullptr) : QWidget(parent) { setFocusPolicy(Qt::StrongFocus); }

    void fit();
    /// What is chosen, large; by itself nothing is.
    virtual void zoomToChosen() {}
    double magnified() const { return closer_.factor(); }

protected:
    /// Where it can be taken hold of and magnified.
    virtual QRectF closerRoom() const { return rect(); }
    /// A press that chooses something; what is left moves the drawing.
    virtual bool takesPress(QMouseEvent *) { return false; }
    Magnifier &closer() { return closer_; }
    const Magnifier &closer() const { return closer_; }

    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    Magnifier closer_;
    std::optional<QPointF> held_;
};

} // namespace waxis::drawing
