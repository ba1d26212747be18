// The magnetic field over the craft on the plan: where a compass could go. A click puts a ghost compass there.
#pragma once

#include "app/document/background.h"
#include "app/drawing/build_scene.h"
#include "core/magnetics/field_map.h"

#include <QGraphicsView>

namespace waxis {
struct CompassReport;
}

namespace waxis::radio {

/// Which part of the field is shown.
enum class FieldPart { full, hover, magnets };

class CompassMap : public QGraphicsView {
    Q_OBJECT

public:
    CompassMap(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    void setPart(FieldPart part);
    void setHeight(double z_mm);
    double height_mm() const { return z_mm_; }
    /// A compass that is only thought of.
    void setGhost(std::optional<Vec3> at_mm);
    const std::optional<Vec3> &ghost() const { return ghost_; }
    /// What the ghost would feel.
    std::optional<CompassReport> ghostReport() const;
    QPointF pixel(const Vec3 &at_mm) const { return mapFromScene(drawing::project(drawing::View::plan, at_mm)); }
    void fit();
    /// What is thought of, else the compass, in the middle, close up.
    void zoomToChosen();
    double pixelsPerMm() const { return transform().m11(); }
    bool isSettled() const { return working_.isSettled(); }

signals:
    void ghostChanged();

protected:
    void drawForeground(QPainter *painter, const QRectF &rect) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void showEvent(QShowEvent *event) override;
    void drawBackground(QPainter *painter, const QRectF &rect) override;

private:
    bool focusNextPrevChild(bool next) override; ///< the ghost goes to each compass and each place compared
    std::vector<Vec3> places() const;
    void refresh();
    app::Background<FieldMap>::Work prepare();
    void paintMap();
    double level_uT(double x, double y) const; ///< of the part shown, between grid points
    void drawCompass(QPainter &painter, const Vec3 &at_mm, const QString &words, const QColor &color) const;

    app::Document &document_;
    const theme::Theme &theme_;
    drawing::BuildScene scene_;
    FieldPart part_ = FieldPart::full;
    double z_mm_ = 0;
    bool heightChosen_ = false;
    std::optional<Vec3> ghost_;
    FieldMap map_;
    QImage picture_;
    bool fitted_ = false, dragging_ = false, panning_ = false;
    QPoint lastPan_;
    app::Background<FieldMap> working_;
};

} // namespace waxis::radio
