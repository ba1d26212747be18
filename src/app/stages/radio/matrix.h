// Who disturbs whom: senders and sources of noise against listeners, one cell each.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>
#include <optional>

namespace waxis::radio {

class Matrix : public QWidget {
    Q_OBJECT

public:
    Matrix(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    QSize sizeHint() const override;
    /// Where the cell of two ids of the report is; null when it is not shown.
    QRectF cellOf(const QString &from, const QString &to) const;
    /// What the cell says, line by line: distance, coupling or field, margin.
    QStringList textOf(const QString &from, const QString &to) const;

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

signals:
    void cellChosen(const QRect &cell); ///< for scrolling there

private:
    void layOut();
    QString tipAt(const QPointF &point) const;
    QStringList linesOf(std::size_t row, std::size_t column) const;
    struct Index {
        std::size_t row = 0, column = 0; ///< of rows_ and columns_
    };
    std::optional<Index> at(const QPointF &point) const;
    QRectF rectOf(const Index &index) const;
    void paintColumnNames(QPainter &painter) const;
    void paintRowName(QPainter &painter, std::size_t row) const; ///< of rows_
    void paintCell(QPainter &painter, const Index &index) const;
    void choose(const Index &index);

    app::Document &document_;
    const theme::Theme &theme_;
    std::vector<std::size_t> rows_, columns_; ///< of the report: those aboard now that have something to say
    double cellWidth_ = 100;
};

} // namespace waxis::radio
