// The three-dimensional view: orbit, pan, zoom, pick. Drawn anew only when something changed. Make one only where
// whyNoSolidView() is empty.
#pragma once

#include "app/drawing/solid_scene.h"

#include <QOpenGLBuffer>
#include <QOpenGLFunctions_3_3_Core>
#include <QOpenGLVertexArrayObject>
#include <QOpenGLWidget>
#include <memory>

class QOpenGLShaderProgram;

namespace waxis::drawing {

class SolidView : public QOpenGLWidget, protected QOpenGLFunctions_3_3_Core {
    Q_OBJECT

public:
    SolidView(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    ~SolidView() override;

    const Orbit &orbit() const { return orbit_; }
    void setOrbit(const Orbit &orbit);
    const SolidLooks &looks() const { return looks_; }
    void setLooks(const SolidLooks &looks);
    const std::optional<CutAway> &cut() const { return cut_; }
    void setCut(const std::optional<CutAway> &cut);
    /// Looked at only: nothing is dragged or turned in it.
    void setHandsOff(bool off) { handsOff_ = off; }
    /// The whole craft in the picture.
    void fit();
    /// What is fresh in the middle, with as much again round it; the whole craft where nothing is.
    void closeUp();
    /// What is chosen in the middle and large.
    void zoomToChosen();
    /// What stands at a point of the widget; empty: nothing.
    QString thingAt(const QPointF &pixels) const;
    /// Where a point of space appears, in widget pixels.
    QPointF toPixels(const Vec3 &point_mm) const;

protected:
    void initializeGL() override;
    void paintGL() override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool focusNextPrevChild(bool next) override; ///< from part to part
    void showEvent(QShowEvent *event) override;
    void resizeGL(int width, int height) override;

private:
    void remake();
    /// The chosen part, when the press at a point takes hold of it; null lets the picture turn.
    const Part *heldAt(const QPointF &pixels) const;
    /// How far the pointer went since the press, in the plane of the part that faces the viewer, mm.
    Vec3 draggedBy(const QPointF &pixels) const;
    bool turnChosen(int key);
    void release();
    QMatrix4x4 projection() const;
    QMatrix4x4 camera() const;

    app::Document &document_;
    const theme::Theme &theme_;
    Orbit orbit_;
    SolidLooks looks_;
    std::optional<CutAway> cut_;
    SolidScene scene_;
    bool handsOff_ = false;
    bool stale_ = true, uploaded_ = false, fitted_ = false, turned_ = false; ///< by hand since it was fitted
    std::unique_ptr<QOpenGLShaderProgram> program_;
    QOpenGLBuffer corners_{QOpenGLBuffer::VertexBuffer};
    QOpenGLVertexArrayObject layout_;
    QPointF pressAt_, lastAt_;
    std::string held_; ///< part that is being dragged
    bool moved_ = false;
    Build start_; ///< before the drag
};

} // namespace waxis::drawing
