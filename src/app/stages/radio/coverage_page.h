// Where each radio hears and is heard: both halves of the sphere round the craft, seen from above.
#pragma once

#include "app/document/document.h"
#include "app/drawing/magnifier.h"
#include "app/theme/theme.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace waxis {
struct RadioCoverage;
}

namespace waxis::radio {

/// Two discs of equal-area directions: above and below, nose to the right.
class CoverageGlobe : public drawing::CloserWidget {
    Q_OBJECT

public:
    CoverageGlobe(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    /// `radio` is an id of the report; `antenna` -1: the better one in each direction.
    void show(const std::string &radio, int antenna);
    QString tipAt(const QPointF &at) const;
    /// The weakest sector in the middle.
    void zoomToChosen() override;

signals:
    void walked(bool next, bool *taken); ///< Tab: the next antenna; `taken` stays false at either end

protected:
    void paintEvent(QPaintEvent *) override;
    bool focusNextPrevChild(bool next) override;
    bool event(QEvent *event) override;

private:
    struct Disc {
        QPointF centre;
        double radius = 0;
    };
    Disc disc(bool upper) const;
    QPointF place(const Disc &disc, const Vec3 &direction) const;
    const RadioCoverage *coverage() const;
    void paintSky(QPainter &painter, const RadioCoverage &shown, bool upper, double peak_dBi) const;
    void paintRim(QPainter &painter, const RadioCoverage &shown, bool upper) const; ///< names, heights, the weakest
    void paintLegend(QPainter &painter, double peak_dBi) const;
    std::pair<double, int> levelOf(const RadioCoverage &coverage, std::size_t direction) const; ///< and who hides it

    app::Document &document_;
    const theme::Theme &theme_;
    std::string radio_;
    int antenna_ = -1;
};

class CoveragePage : public QWidget {
    Q_OBJECT

public:
    CoveragePage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    QString facts() const;
    CoverageGlobe &globe() { return *globe_; }

private:
    void refresh();
    bool walk(bool next);
    app::Document &document_;
    const theme::Theme &theme_;
    CoverageGlobe *globe_ = nullptr;
    QComboBox *which_ = nullptr;
    QLabel *facts_ = nullptr;
};

} // namespace waxis::radio
