// Named bars on the mat: thrusts, grams, inertia.
#pragma once

#include "app/theme/theme.h"

#include <QWidget>
#include <optional>
#include <vector>

namespace waxis::balance {

struct Bar {
    QString name, figures;       ///< figures: what the bar is worth, with its unit
    double length = 0;           ///< in the list's own unit
    std::optional<double> limit; ///< how long it could be: drawn as a hollow rest
    QColor color;
    QString id; ///< what a click chooses; empty: nothing
    QString tip;
};

class BarList : public QWidget {
    Q_OBJECT

public:
    BarList(const theme::Theme &theme, const QString &accessibleName, QWidget *parent = nullptr);
    /// `mark`: a line across all bars, as the mean; same unit as the lengths.
    void show(std::vector<Bar> bars, std::optional<double> mark = {});
    const std::vector<Bar> &bars() const { return bars_; }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {180, sizeHint().height()}; }

signals:
    void chosen(const QString &id);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    bool event(QEvent *event) override;

private:
    int rowAt(const QPointF &at) const;
    const theme::Theme &theme_;
    std::vector<Bar> bars_;
    std::optional<double> mark_;
};

} // namespace waxis::balance
