// What was found in a drawing, on the mat, to be looked over and corrected.
#pragma once

#include "app/drawing/mat.h"
#include "core/recognise/recognise.h"

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

signals:
    void picked(const Pick &pick);

protected:
    QRectF content() const override;
    void paintContent(QPainter &painter) override;
    bool press(const QPointF &at, Qt::KeyboardModifiers modifiers) override;

private:
    Pick pickAt(const Vec2 &p) const;
    Recognition found_;
    DrawingChoices choices_;
    Pick picked_;
};

} // namespace waxis::frame
