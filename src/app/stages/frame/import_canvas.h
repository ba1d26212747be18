// What was found in a drawing, on the mat, to be looked over and corrected.
#pragma once

#include "app/drawing/mat.h"
#include "core/recognise/laying.h"

#include <optional>

namespace waxis::frame {

/// Which thing of which plate.
struct Pick {
    enum class Kind { none, plate, hole, slot, pattern } kind = Kind::none;
    std::size_t plate = 0, index = 0;
    bool operator==(const Pick &) const = default;
};

class ImportCanvas : public drawing::MatCanvas {
    Q_OBJECT

public:
    explicit ImportCanvas(const theme::Theme &theme, QWidget *parent = nullptr);

    void show(const Recognition &found, const DrawingChoices &choices, const Pick &picked);
    QPointF pixelsOf(const Vec2 &p) const { return toPixels(p.x(), p.y()); }
    /// Plates as they lie in the drawing, or laid on one another as in the frame, where they can be dragged.
    void setLaid(bool laid);
    bool isLaid() const { return laid_; }

signals:
    void picked(const Pick &pick);
    /// Laid: a plate was dragged; its shift in the drawing's axes.
    void moved(std::size_t plate, const Vec2 &shift_mm);
    /// Q or E: the picked plate is to be turned by so much, anticlockwise.
    void turned(std::size_t plate, double by_deg);
    void contextWanted(const QPoint &globally);

protected:
    QRectF content() const override;
    void paintContent(QPainter &painter) override;
    bool press(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void drag(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void release() override { held_.reset(); }
    void cancel() override;
    QRectF chosenBox() const override;
    QStringList walkable() const override;
    QString walkedAt() const override;
    void walkedTo(const QString &key) override;
    void keyPressEvent(QKeyEvent *event) override;
    void contextMenuEvent(QContextMenuEvent *event) override;

private:
    /// Where a plate is drawn from where the drawing has it.
    Vec2 shiftOf(std::size_t plate) const { return laid_ && plate < shifts_.size() ? shifts_[plate] : Vec2(0, 0); }
    QPolygonF pixelsOf(std::size_t plate, const Ring &ring) const; ///< where the plate lies
    void paintPlate(QPainter &painter, std::size_t plate, bool ignored);
    /// Each use has its own line besides its name: squares for stacks, rings for motors, strokes along slots.
    void paintPatterns(QPainter &painter, std::size_t plate, std::vector<QRectF> &tags);
    void paintSlots(QPainter &painter, std::size_t plate);
    void paintNose(QPainter &painter);
    void paintFaults(QPainter &painter);
    Pick pickAt(const Vec2 &at) const;
    Recognition found_;
    DrawingChoices choices_;
    Pick picked_;
    bool laid_ = false;
    std::vector<Vec2> shifts_;
    struct Held {
        std::size_t plate = 0;
        Vec2 grip = Vec2::Zero(), start = Vec2::Zero();
    };
    std::optional<Held> held_;
};

} // namespace waxis::frame
