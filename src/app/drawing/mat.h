// The cutting mat under every drawing, and drawings that are looked at like a map.
#pragma once

#include "app/theme/theme.h"

#include <QGraphicsView>
#include <QPainter>
#include <QStringList>
#include <QWidget>

namespace waxis::drawing {

/// Fills `rect` (scene coordinates, mm, y down) with the mat and its 10 mm grid. `scale`: pixels per mm.
void paintMat(QPainter &painter, const QRectF &rect, double scale, const theme::Palette &colors);

/// A label that can be read on any ground: text on a small patch of the mat.
void paintTag(QPainter &painter, const QPointF &at_px, const QString &text, const QColor &ink,
              const theme::Palette &colors);

/// A graphics view that is looked at like a map: no bars, no frame, nothing that scrolls by itself.
void prepareMapView(QGraphicsView &view);

/// A widget over a flat drawing in mm: wheel zooms at the pointer, dragging empty mat moves it, 0 fits, Z goes to what
/// is chosen, Tab from thing to thing.
class MatCanvas : public QWidget {
    Q_OBJECT

public:
    MatCanvas(const theme::Theme &theme, QWidget *parent = nullptr);

    double pixelsPerMm() const { return scale_; }
    /// Body or drawing coordinates (y up) to widget pixels and back.
    QPointF toPixels(double x_mm, double y_mm) const;
    QPointF toMm(const QPointF &pixels) const;
    void fit();
    /// Seen from the other side: what was up in the drawing is down.
    void setMirrored(bool mirrored);
    bool isMirrored() const { return up_ < 0; }
    /// What is chosen fills half of the drawing; without a choice nothing happens.
    void zoomToChosen();

protected:
    const theme::Theme &theme() const { return theme_; }
    /// What `fit` shows, mm, y up as drawn: left, bottom, width, height.
    virtual QRectF content() const = 0;
    virtual void paintContent(QPainter &painter) = 0;
    /// Where the chosen thing is, as `content`; empty for none.
    virtual QRectF chosenBox() const { return {}; }
    /// Things that Tab goes through in order, which of them is chosen, and choosing one.
    virtual QStringList walkable() const { return {}; }
    virtual QString walkedAt() const { return {}; }
    virtual void walkedTo(const QString &) {}
    /// True when the press takes hold of something; moves and the release then come here too.
    virtual bool press(const QPointF &, Qt::KeyboardModifiers) { return false; }
    virtual void drag(const QPointF &, Qt::KeyboardModifiers) {}
    virtual void release() {}
    virtual void cancel() {}
    virtual void hover(const QPointF &) {}

    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool focusNextPrevChild(bool next) override;
    void resizeEvent(QResizeEvent *event) override;
    void showEvent(QShowEvent *event) override;

private:
    const theme::Theme &theme_;
    double scale_ = 2;
    QPointF centre_; ///< mm, y up
    double up_ = 1;  ///< -1: y down
    QPointF last_;
    bool panning_ = false, holding_ = false, touched_ = false;
};

} // namespace waxis::drawing
