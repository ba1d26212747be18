// The build on the mat in one view. Items follow the document; the scene decides nothing by itself.
#pragma once

#include "app/drawing/part_item.h"
#include "app/shell/document.h"

#include <QGraphicsScene>
#include <map>

namespace waxis::drawing {

struct Overlays {
    bool propellers = true;
    bool grams = false;
    bool marks = true;
    bool operator==(const Overlays &) const = default;
};

class BuildScene : public QGraphicsScene {
    Q_OBJECT

public:
    BuildScene(View view, app::Document &document, const theme::Theme &theme, QObject *parent = nullptr);

    View view() const { return view_; }
    void setView(View view);
    const Overlays &overlays() const { return overlays_; }
    void setOverlays(const Overlays &overlays);

    /// Everything that is drawn, without the lines that run to the edge.
    QRectF contentRect() const;
    /// Parts under a point, nearest to the viewer first.
    QStringList partsAt(const QPointF &scenePoint) const;
    PartItem *item(const QString &part) const;

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

private:
    void rebuildFrame();
    void update();
    void updateMarks();

    View view_;
    app::Document &document_;
    const theme::Theme &theme_;
    Overlays overlays_;
    SharedValue<Frame> drawnFrame_;
    Practice drawnPractice_; ///< it sets how thick the propeller zones are
    std::map<std::string, PartItem *> parts_;
    std::vector<QGraphicsItem *> frameItems_;
    class AxisItem *axis_ = nullptr;
    class MarkLayer *marks_ = nullptr;
    DragMarks drag_;
    std::vector<QPointF> markPoints_; ///< where labels must not stand
};

} // namespace waxis::drawing
