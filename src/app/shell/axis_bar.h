// Always at the bottom: all-up weight, where the plumb line stands in its tolerance, the closest call, the
// findings.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>
#include <optional>

namespace waxis::app {

class AxisBar : public QWidget {
    Q_OBJECT

public:
    AxisBar(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// What stands on the bar, for tests and for screen readers.
    QString spokenText() const;

signals:
    void clicked();

protected:
    void paintEvent(QPaintEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    struct Scale {
        QString title, low, high;
        double value = 0, tolerance = 0, reach = 0;
        bool judged = true;
    };
    void paintScale(QPainter &painter, const QRect &box, const Scale &scale) const;
    void paintWeight(QPainter &painter, int left) const;
    void paintOffsets(QPainter &painter) const;
    void paintCall(QPainter &painter, const Finding &call, const QRect &box) const;
    void paintCounts(QPainter &painter, int left) const;
    /// Minutes of hover in the active load case; none where it cannot be worked out.
    std::optional<double> hover_min() const;
    QString hoverText() const;
    void rememberHover();

    Document &document_;
    const theme::Theme &theme_;
    int case_ = -1;                             ///< that the two are of
    std::optional<double> hover_, hoverBefore_; ///< minutes as it is kept, and before the last edit that changed them
};

} // namespace waxis::app
