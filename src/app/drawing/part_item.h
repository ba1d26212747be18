// One part on the mat, drawn to scale from its solids with the features that matter on the bench.
#pragma once

#include "app/drawing/projection.h"
#include "app/theme/theme.h"
#include "core/build/build.h"

#include <QGraphicsItem>
#include <optional>

namespace waxis::drawing {

class PartItem : public QGraphicsItem {
public:
    PartItem(View view, const theme::Theme &theme) : view_(view), theme_(theme) {
        setCacheMode(DeviceCoordinateCache); // moves far more often than it changes
    }

    /// Takes over pose and looks; cheap when only the position changed.
    void show(const Build &build, const Part &part, const PartType &type);
    void setMarks(bool selected, bool highlighted, bool aboard);
    /// The label's middle in scene coordinates; none: no room for it.
    void showLabelAt(const std::optional<QPointF> &middle);

    const QString &id() const { return id_; }
    /// Where the label may stand in scene coordinates at a scale in pixels per mm, best place first; none when it does
    /// not fit on the part.
    std::vector<QRectF> labelPlaces(double pixelsPerMm) const;
    /// What the label covers now, in scene coordinates; null when it is not shown.
    QRectF shownLabel(double pixelsPerMm) const;
    /// Straps, pads, and packs that are drawn thin let labels beneath them be read.
    bool covers() const { return covers_; }
    QPainterPath silhouette() const { return silhouette_.translated(pos()); }
    QString label() const { return label_; }

    QRectF boundingRect() const override;
    QPainterPath shape() const override { return silhouette_; }
    void paint(QPainter *painter, const QStyleOptionGraphicsItem *option, QWidget *widget) override;

private:
    struct Piece {
        QPainterPath path;
        double nearness = 0;
        SolidRole role = SolidRole::body;
        bool bare = false;
    };
    QSizeF labelSize_mm(double pixelsPerMm) const;
    void rebuild(const Pose &pose, const PartType &type);

    View view_;
    const theme::Theme &theme_;
    QString id_, label_;
    Family family_ = Family::structure;
    Quat turn_ = Quat::Identity();
    PartType type_;
    std::vector<Piece> pieces_;          ///< around the part's own origin
    std::vector<QPainterPath> features_; ///< holes, arrow, lens axis
    std::vector<QPointF> ports_;
    QPainterPath silhouette_;
    QRectF body_;
    std::optional<QPointF> labelAt_; ///< around the part's own origin
    bool covers_ = true;
    bool selected_ = false, highlighted_ = false, aboard_ = true, pinned_ = false;
};

/// A word short enough to stand on the part.
QString shortLabel(const Part &part, const PartType &type);

} // namespace waxis::drawing
