// One drawing of the Place bench: mouse and keys become edits of the document.
#pragma once

#include "app/drawing/build_scene.h"

#include "app/stages/place/height_ladder.h"
#include "app/stages/place/snapping.h"
#include "core/placing/faces.h"

#include <QGraphicsView>
#include <QPointer>

class QRubberBand;

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

    /// Nudges, turns and pins the selected part; false for a key that means nothing here. A letter with Ctrl, Alt or
    /// Meta means nothing here: those are the window's.
    bool handleKey(QKeyEvent *event);
    /// What the keys and the menus do with the chosen part.
    void turnChosen(double quarterTurns);
    void overturnChosen();
    void pinChosen();
    void removeChosen();

    /// While something is dragged over plates: the ladder of heights, and the rung to go to.
    const HeightLadder &ladder() const { return *ladder_; }
    void stepRung(int up);

    /// Plan: the line along which the lower view is cut, as its offset from the middle; none: not shown.
    void setSectionLine(std::optional<double> at_mm, bool acrossCraft);

signals:
    void zoomed(double pixelsPerMm, const QPointF &centre); ///< by wheel or panning
    void fitWanted();
    void zoomWanted(); ///< to what is chosen
    void largerLowerWanted();
    void overlayWanted(int key);              ///< a digit switches an overlay
    void placeWanted(const Vec3 &at_mm);      ///< compare this place for a GPS; the height is open in plan
    void sectionMoved(double at_mm);          ///< the line along which the lower view is cut was dragged
    void contextWanted(const QPoint &global); ///< the menu for what is chosen
    void partSeated(const QString &part);     ///< dropped from the library onto a place that has others like it

protected:
    void drawBackground(QPainter *painter, const QRectF &rect) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool focusNextPrevChild(bool next) override;
    void keyReleaseEvent(QKeyEvent *event) override;
    void leaveEvent(QEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void dragEnterEvent(QDragEnterEvent *event) override;
    void dragMoveEvent(QDragMoveEvent *event) override;
    void dragLeaveEvent(QDragLeaveEvent *event) override;
    void dropEvent(QDropEvent *event) override;
    void contextMenuEvent(QContextMenuEvent *event) override;
    /// While a drag from the library is over the drawing: its wheel and keys.
    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    /// The start build with a part of the dragged type at a place of the viewport, snapped.
    EditResult withNewPart(const QPoint &at, bool snapping, Snap *where = nullptr) const;
    const PartType *typeNamed(const std::string &id) const;
    void beginDrag();
    /// The faces under a point of the plan; none in elevations, where the height is dragged.
    void findFaces(const QPoint &at, const PartType &type, const Pose &wanted);
    void showLadder(const QPoint &at, const PartType &type);
    void endLadder();
    void showSeats(const Part *part, const PartType &type);
    void beginPlateDrag();
    void dragTo(const QPoint &at, bool snapping);
    void endDrag(bool keep);
    void dragPlateTo(const QPoint &at, bool snapping);
    void endBand();
    bool overSectionLine(const QPoint &at) const;
    /// What is under the pointer: a part, else a frame member.
    QString thingUnder(const QPoint &at) const;
    void beginMeasure();
    void measureTo(const QPoint &at);
    void endMeasure();
    void nudge(const Vec3 &shift_mm);
    void turn(const Vec3 &axis, double angle_deg, const QString &name);

    drawing::BuildScene &scene_;
    app::Document &document_;
    const theme::Theme &theme_;
    enum class Mode { idle, pressed, dragging, plateDragging, panning, banding, sectioning } mode_ = Mode::idle;
    QPoint pressAt_, lastPan_;
    QString pressedPart_;
    QString pressedMember_; ///< plate, arm or standoff under an otherwise empty place
    bool wasSelected_ = false;
    QRubberBand *band_ = nullptr;
    std::optional<double> sectionLine_;
    bool sectionAcross_ = false;
    bool measuring_ = false;
    QString measureFrom_;
    QPointF measurePoint_;
    Build startBuild_;
    Pose startPose_;
    QPainterPath startOutline_;
    std::string newType_; ///< being dragged in from the library
    HeightLadder *ladder_ = nullptr;
    std::vector<Face> faces_;        ///< under the pointer, lowest first
    int rung_ = -1;                  ///< of `faces_`
    std::optional<Face> chosenFace_; ///< by wheel or key; none: as it comes
    QPoint dragAt_;
    bool dragSnaps_ = true;
};

} // namespace waxis::place
