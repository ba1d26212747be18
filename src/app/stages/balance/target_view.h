// The plumb target: where the centre of gravity hangs in plan, in every load case, and how high.
#pragma once

#include "app/drawing/magnifier.h"
#include "app/stages/balance/study_runner.h"
#include "app/theme/theme.h"

#include <QWidget>

namespace waxis {
struct DoubtEllipse;
}

namespace waxis::balance {

class TargetView : public drawing::CloserWidget {
    Q_OBJECT

public:
    TargetView(app::Document &document, const theme::Theme &theme, const StudyRunner &runner,
               QWidget *parent = nullptr);

    /// Where the centre of gravity would go by a slide, in plan from the thrust centre; none: nothing is proposed.
    void propose(std::optional<Vec2> after_mm, const QString &words);
    /// Draw the drawn balances as dots.
    void showCloud(bool shown);
    /// Pixel of an offset in plan, for tests and tips.
    QPointF toPixels(const Vec2 &offset_mm) const;
    /// Where the names of the plan stand, as last drawn; for tests.
    const std::vector<QRectF> &labelBoxes() const { return labelBoxes_; }
    /// The balance of the chosen load case, with its doubt, fills half of the plan.
    void zoomToChosen() override;

    QSize minimumSizeHint() const override { return {300, 230}; }
    QSize sizeHint() const override { return {480, 300}; }

protected:
    void paintEvent(QPaintEvent *) override;
    QRectF closerRoom() const override { return plan(); }
    bool takesPress(QMouseEvent *event) override;
    bool focusNextPrevChild(bool next) override; ///< from load case to load case
    bool event(QEvent *event) override;

private:
    struct Point {
        int loadCase = 0;
        bool folded = false; ///< the same with its arms folded
        Vec3 offset_mm = Vec3::Zero();
        QString name;
    };
    std::vector<Point> points() const;
    QRectF plan() const;
    /// What the plan shows: pixels per mm, and which place (y down) stands where.
    struct Look {
        double scale = 1;
        QPointF middle_mm, middle_px;
    };
    Look look() const;
    double pixelsPerMm() const;
    void paintPlan(QPainter &painter);
    double paintGrid(QPainter &painter) const; ///< the finest that does not close up; mm between its lines
    void paintRing(QPainter &painter) const;
    void paintCloud(QPainter &painter) const;
    void paintDoubt(QPainter &painter, const DoubtEllipse &ellipse) const;
    /// The balance of each load case, and where a slide would take it, with their names.
    void paintPlaces(QPainter &painter, const DoubtEllipse &ellipse);
    void paintLegend(QPainter &painter, double step_mm) const;
    void paintHeight(QPainter &painter) const;
    QString tipAt(const QPointF &at) const;

    app::Document &document_;
    const theme::Theme &theme_;
    const StudyRunner &runner_;
    std::optional<Vec2> after_mm_;
    QString afterWords_;
    bool cloud_ = false;
    std::vector<QRectF> labelBoxes_;
};

} // namespace waxis::balance
