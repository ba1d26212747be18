// Rails as bars filled by their loads against the limit; a block dragged onto another rail feeds that load from there.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/power/power_report.h"

#include <QWidget>

namespace waxis::wire {

class RailPanel : public QWidget {
    Q_OBJECT

public:
    RailPanel(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    QSize sizeHint() const override;
    /// Where a load's block lies, for tests and tool tips; null when it draws on no rail that is shown.
    QRectF blockOf(const std::string &load) const;
    QRectF rowOf(const std::string &rail) const;
    /// The worst that the rules say of a rail, so that bar and ledger never differ; pass for nothing.
    Severity verdictOn(const std::string &rail) const;

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

private:
    struct Block {
        std::string load;
        QRectF rect;
        double typical_A = 0, peak_A = 0;
        QColor color;
    };
    struct Row {
        std::string rail; ///< part:output
        QString name, range;
        QRectF bar;
        double limit_A = 0, typical_A = 0, peak_A = 0;
        double limitX = 0; ///< where the limit stands
        std::vector<Block> blocks;
    };
    void layOut();
    void paintHead(QPainter &painter) const;
    void paintNames(QPainter &painter, const Row &row) const;
    /// `wouldTake`: what is dragged is over it.
    void paintBar(QPainter &painter, const Row &row, bool wouldTake) const;
    void paintNumbers(QPainter &painter, const Row &row) const;
    void paintDragged(QPainter &painter) const;
    RailTap tapFor(const std::string &rail) const;
    const Block *blockAt(const QPointF &at) const;
    const Row *rowAt(const QPointF &at) const;
    QString tipFor(const QPointF &at) const;

    app::Document &document_;
    const theme::Theme &theme_;
    std::vector<Row> rows_;
    std::string dragged_, over_;
    QPointF pressAt_, dragAt_;
    bool dragging_ = false;
};

} // namespace waxis::wire
