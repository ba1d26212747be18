// The routes on the drawing: ports are joined by dragging, points of a route are pinned, moved and freed.
#pragma once

#include "app/drawing/build_scene.h"

#include <QGraphicsView>
#include <optional>

namespace waxis::wire {

/// Pads, plugs, sockets and coax; nobody solders to a lens, a button or a card.
bool takesWires(const Port &port);

class WireMap : public QGraphicsView {
    Q_OBJECT

public:
    WireMap(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    drawing::BuildScene &buildScene() { return scene_; }
    drawing::View view() const { return scene_.view(); }
    void setView(drawing::View view);
    double pixelsPerMm() const { return transform().m11(); }
    void fit();
    void zoomToChosen();

    /// Where a port's dot is in the viewport; none when the part has no such port.
    std::optional<QPointF> portPixel(const WireEnd &end) const;
    QPointF pixel(const Vec3 &point_mm) const { return mapFromScene(drawing::project(view(), point_mm)); }

signals:
    void portChosen(const WireEnd &end);

protected:
    void drawBackground(QPainter *painter, const QRectF &rect) override;
    void drawForeground(QPainter *painter, const QRectF &rect) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void mouseDoubleClickEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool focusNextPrevChild(bool next) override;
    void resizeEvent(QResizeEvent *event) override;
    void showEvent(QShowEvent *event) override;
    bool viewportEvent(QEvent *event) override;

private:
    struct PortDot {
        WireEnd end;
        Vec3 at_mm;
        bool used = false;
    };
    struct Grip {
        enum class Kind { stop, bend, tie } kind = Kind::bend;
        int index = 0; ///< of the stop, or the point of the route
        std::string tie;
        Vec3 at_mm = Vec3::Zero();
    };
    void refresh();
    std::vector<PortDot> ports() const;
    std::optional<PortDot> portAt(const QPointF &pixel) const;
    std::vector<Grip> grips() const;
    std::optional<Grip> gripAt(const QPointF &pixel) const;
    /// Index of the wire nearest to a pixel, and the place on it.
    int wireAt(const QPointF &pixel, Vec3 *at_mm = nullptr) const;
    const Wire *chosenWire(int *index = nullptr) const;
    Vec3 movedTo(const Vec3 &start_mm, const QPointF &pixel) const;
    EditResult withGripAt(const Build &build, const Vec3 &at_mm) const;
    void connectTo(const QPointF &pixel);
    /// Rings, filled where a wire ends. Those of the chosen part, and all while a wire is drawn, at every zoom and with
    /// their names; those that would take the wire are lit.
    void paintPorts(QPainter &painter) const;
    void paintGrips(QPainter &painter) const;
    /// Where power runs beside signals for too long, and other places of wire findings that are lit or stop.
    void paintPlaces(QPainter &painter) const;
    void paintNewWire(QPainter &painter) const;

    app::Document &document_;
    const theme::Theme &theme_;
    drawing::BuildScene scene_;
    enum class Mode { idle, panning, joining, moving } mode_ = Mode::idle;
    QPointF pressAt_, now_;
    QPoint lastPan_;
    std::optional<PortDot> joinFrom_;
    Grip held_;
    Build startBuild_;
    std::vector<WireEnd> takers_; ///< ports that would take the wire that is drawn
    bool fitted_ = false, moved_ = false;
    bool ownView_ = false; ///< somebody zoomed or panned: resizing leaves it alone
};

} // namespace waxis::wire
