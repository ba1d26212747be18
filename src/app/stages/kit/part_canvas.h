// A part type drawn live: plan above, side below, to scale.
#pragma once

#include "app/drawing/mat.h"
#include "app/drawing/projection.h"
#include "core/catalog/part_type.h"

namespace waxis::kit {

class PartCanvas : public drawing::MatCanvas {
    Q_OBJECT

public:
    explicit PartCanvas(const theme::Theme &theme, QWidget *parent = nullptr);
    /// `chosenBody` and `chosenPort` are lit; -1 for none.
    void show(const PartType &type, int chosenBody = -1, int chosenPort = -1);

signals:
    void walked(int body, int port); ///< Tab: what is lit now, -1 for none

protected:
    QRectF content() const override;
    void paintContent(QPainter &painter) override;
    QRectF chosenBox() const override; ///< of what is lit, in the plan
    QStringList walkable() const override;
    QString walkedAt() const override;
    void walkedTo(const QString &key) override;

private:
    void paintView(QPainter &painter, drawing::View view, double lift_mm);
    QPointF pixelsOf(drawing::View view, double lift_mm, const Vec3 &p) const;
    void paintSolids(QPainter &painter, drawing::View view, double lift_mm) const;
    void paintHoles(QPainter &painter, double lift_mm) const; ///< and the printed arrow: of the plan
    void paintPorts(QPainter &painter, drawing::View view, double lift_mm) const;
    double planLift() const; ///< how far the plan stands above the side view, mm
    PartType type_;
    int body_ = -1, port_ = -1;
};

} // namespace waxis::kit
