// Tries of a trial as dots, a row for each way: quartiles, median, what was not reached.
#pragma once

#include "app/theme/theme.h"
#include "core/build/log.h"
#include "core/log/trial_report.h"

#include <QWidget>

namespace waxis::logbench {

class TrialDots : public QWidget {
    Q_OBJECT

public:
    explicit TrialDots(const theme::Theme &theme, QWidget *parent = nullptr);
    /// `expected`: by way, what the model says; none: nothing. The chosen way is marked.
    void show(const Trial &trial, const TrialReport &report, const std::string &chosen);
    void clear();
    QSize sizeHint() const override;

signals:
    void chose(const QString &setup);

protected:
    void paintEvent(QPaintEvent *event) override;
    void mousePressEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    QRectF rowBox(int row) const;

    const theme::Theme &theme_;
    Trial trial_;
    TrialReport report_;
    std::string chosen_;
};

} // namespace waxis::logbench
