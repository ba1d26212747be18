// One drawing of the Place bench: mouse and keys become edits of the document.
#pragma once

#include "app/drawing/build_scene.h"

#include <QGraphicsView>

namespace waxis::place {

class PlaceView : public QGraphicsView {
    Q_OBJECT

public:
    PlaceView(drawing::BuildScene &scene, app::Document &document, const theme::Theme &theme,
              QWidget *parent = nullptr);

    drawing::BuildScene &buildScene() { return scene_; }
    double pixelsPerMm() const { return transform().m11(); }
    /// Same scale in both directions; the point stays in the middle.
    void look(double pixelsPerMm, const QPointF &centre);
    QPointF centre() const;

    /// Nudges, turns and pins the selected part; false for a key that means nothing here.
    bool handleKey(QKeyEvent *event);

signals:
    void zoomed(double pixelsPerMm, const QPointF &centre); ///< by wheel or panning
    void fitWanted();

protected:
    void drawBackground(QPainter *painter, const QRectF &rect) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void dragEnterEvent(QDragEnterEvent *event) override;
    void dragMoveEvent(QDragMoveEvent *event) override;
    void dragLeaveEvent(QDragLeaveEvent *event) override;
    void dropEvent(QDropEvent *event) override;

private:
    /// The start build with a part of the dragged type at a place of the viewport, snapped.
    EditResult withNewPart(const QPoint &at, bool snapping) const;
    void beginDrag(const QPoint &at);
    void dragTo(const QPoint &at, bool snapping);
    void endDrag(bool keep);
    void nudge(const Vec3 &shift_mm);
    void turn(const Vec3 &axis, double angle_deg, const QString &name);

    drawing::BuildScene &scene_;
    app::Document &document_;
    const theme::Theme &theme_;
    enum class Mode { idle, pressed, dragging, panning } mode_ = Mode::idle;
    QPoint pressAt_, lastPan_;
    QString pressedPart_;
    bool wasSelected_ = false;
    Build startBuild_;
    Pose startPose_;
    QPainterPath startOutline_;
    std::string newType_; ///< being dragged in from the library
};

} // namespace waxis::place
