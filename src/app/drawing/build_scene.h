// The build on the mat in one view. Items follow the document; the scene decides nothing by itself.
#pragma once

#include "app/document/document.h"
#include "app/drawing/overlays.h"
#include "app/drawing/part_item.h"
#include "app/drawing/pictures.h"

#include <QGraphicsScene>
#include <QSet>
#include <map>

namespace waxis::drawing {

/// It follows while a view of it is visible, and catches up when one is shown: hidden benches cost no edit.
class BuildScene : public QGraphicsScene {
    Q_OBJECT

public:
    BuildScene(View view, app::Document &document, const theme::Theme &theme, QObject *parent = nullptr);

    /// The view shows this scene from now on.
    void showIn(QGraphicsView &view);

    View view() const { return view_; }
    void setView(View view);
    const Overlays &overlays() const { return overlays_; }
    /// Things that are not drawn, by their ids: the eye of the list of all things.
    void setHidden(const QSet<QString> &ids);
    const QSet<QString> &hidden() const { return hidden_; }
    /// Parts that are drawn, in the build's order.
    QStringList drawnParts() const;
    void setOverlays(const Overlays &overlays);

    /// Everything that is drawn, without the lines that run to the edge.
    QRectF contentRect();
    /// Parts under a point, nearest to the viewer first.
    QStringList partsAt(const QPointF &scenePoint) const;
    PartItem *item(const QString &part) const;
    /// Arms, plates and standoffs under a point, nearest to the viewer first.
    QStringList frameAt(const QPointF &scenePoint) const;
    /// Outline of a part or frame member as it is drawn; empty for anything else.
    QPainterPath silhouetteOf(const QString &id) const;

    /// Elevations: where they are cut (mm along the line of sight: y from the side, x from the front); what stands
    /// nearer is taken away. None: whole.
    void setSection(std::optional<double> at_mm);
    std::optional<double> section() const { return section_; }
    /// Pictures of the bench's own, by name: ghosts, measures, the section line.
    void setExtra(const std::string &name, std::vector<Picture> pictures);
    const std::vector<Picture> &pictures() const;

    /// Chooses which labels fit without touching each other.
    void layOutLabels(double pixelsPerMm);

    /// While dragging: where the part stood, where the pointer would put it, and lines it snapped to.
    struct DragMarks {
        QPainterPath from, raw;
        std::vector<QLineF> guides;
        QString text;
    };
    void showDrag(const DragMarks &marks);
    void clearDrag();

    bool eventFilter(QObject *watched, QEvent *event) override;

private:
    void follow();
    void catchUp();
    void rebuildFrame();
    void update();
    void updateMarks();
    void updatePictures();
    /// Moves the pictures' tags off marks, labels and each other; gives back what they cover.
    std::vector<QRectF> layOutTags(std::vector<Picture> &pictures) const;
    /// Wholly nearer to the viewer than the cut; or cut by it.
    enum class Cut { behind, through, before };
    Cut cutOf(const Shape &shape, const Pose &pose) const;
    Cut cutOf(const Pose &pose, const PartType &type) const;

    View view_;
    app::Document &document_;
    const theme::Theme &theme_;
    Overlays overlays_;
    QSet<QString> hidden_;
    SharedValue<Frame> drawnFrame_;
    Practice drawnPractice_; ///< it sets how thick the propeller zones are
    std::map<std::string, PartItem *> parts_;
    struct FrameItem {
        std::string id;
        QGraphicsPathItem *item;
        bool disc;
    };
    std::vector<FrameItem> frameItems_;
    class AxisItem *axis_ = nullptr;
    class MarkLayer *marks_ = nullptr;
    class PictureLayer *layer_ = nullptr;
    class PictureLayer *cuts_ = nullptr;
    std::optional<double> section_, drawnSection_;
    std::map<std::string, std::vector<Picture>> extra_;
    DragMarks drag_;
    double pixelsPerMm_ = 1;
    bool stale_ = false;              ///< the build moved on while no view was visible
    std::vector<QRectF> tags_;        ///< what the pictures' tags cover
    std::vector<QPointF> markPoints_; ///< where labels must not stand
};

} // namespace waxis::drawing
