// The column on the mat: layers to take hold of, gaps, screw and ruler beside it.
#pragma once

#include "app/drawing/mat.h"
#include "app/stages/stack/column.h"
#include "core/fasteners/fastener.h"

namespace waxis {
struct ScrewReport;
}

namespace waxis::stackbench {

class StackCanvas : public drawing::MatCanvas {
    Q_OBJECT

public:
    StackCanvas(StackFocus &focus, const theme::Theme &theme, QWidget *parent = nullptr);

    const ColumnView &view() const { return view_; }
    void setView(const ColumnView &view);
    /// Middle of a layer in the drawing, widget pixels; for tests and the keyboard.
    QPointF layerPixels(int layer) const;
    /// What the drawing writes: labels and dimensions, for tests and people who do not see it.
    QStringList writing() const;
    /// Where each of those words stands, widget pixels, in the same order, and whether all of it has room there.
    struct Written {
        QRectF box;
        bool whole = true;
    };
    std::vector<Written> written() const;
    /// How much taller than wide the column is drawn, so that it fills the bench; 1: true to scale.
    double heightsTimes() const { return tall_; }

    void moveChosen(int steps);
    void flipChosen();
    void turnChosen(double angle_deg);
    void turnLeft() { turnChosen(90); }
    void turnRight() { turnChosen(-90); }
    void removeChosen();

protected:
    QRectF content() const override;
    QRectF chosenBox() const override;
    QStringList walkable() const override;
    QString walkedAt() const override { return QString::number(focus_.layer()); }
    void walkedTo(const QString &layer) override { focus_.chooseLayer(layer.toInt()); }
    void contextMenuEvent(QContextMenuEvent *event) override;
    void paintContent(QPainter &painter) override;
    bool press(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void drag(const QPointF &at, Qt::KeyboardModifiers modifiers) override;
    void release() override;
    void cancel() override;
    void hover(const QPointF &at) override;
    void resizeEvent(QResizeEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    struct Label {
        int layer = -1;
        QRectF box; ///< widget pixels
        QString text;
        double at_px = 0; ///< height of the layer's middle
    };
    struct Dimension {
        int gap = -1; ///< -1: to the plate above
        QPointF low, high;
        QString text;
        Severity severity = Severity::pass;
        QRectF box;
    };
    static constexpr int kLabelFont_px = 11;
    void lookAgain();
    bool narrow() const { return width() < 480; }
    bool tight() const { return width() < 340; } ///< no room for the screw beside the column; its card tells it
    double heightPixels(double base_mm) const { return toPixels(0, column_.up * base_mm * tall_).y(); }
    /// Room that labels (left) and ruler and screw (right) take beside the column, px.
    double leftRoom() const;
    double rightRoom() const;
    double wantedTall() const;
    std::vector<Label> labels() const;
    std::vector<Dimension> dimensions() const;
    int layerAt(const QPointF &at) const;
    int targetFor(double y_px) const;
    void paintLayers(QPainter &painter, const std::vector<Label> &labels);
    void paintDimensions(QPainter &painter, const std::vector<Dimension> &dimensions);
    void paintRuler(QPainter &painter);
    struct DrawnScrew {
        double x = 0;                ///< pixels
        double dir = 1;              ///< along the base's z from the head
        double head = 0, length = 0; ///< mm
        HeadStyle style = HeadStyle::cap;
        HeadSize size;
        double radius = 0; ///< pixels
    };
    void paintScrew(QPainter &painter);
    /// Of a length of it, mm from the head, so many pixels to each side.
    QRectF boxOf(const DrawnScrew &screw, double from_mm, double to_mm, double half) const;
    void paintScrewShape(QPainter &painter, const ScrewReport &report, const DrawnScrew &screw);
    void paintScrewWords(QPainter &painter, const ScrewReport &report, const DrawnScrew &screw);

    StackFocus &focus_;
    ColumnView view_;
    Column column_;
    double tall_ = 1;
    int held_ = -1, hovered_ = -1, target_ = -1;
    Build startBuild_;
    std::vector<double> startMiddles_px_;
    QPointF grip_;
    bool moved_ = false;
};

} // namespace waxis::stackbench
