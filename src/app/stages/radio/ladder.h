// The frequency ladder: who sends and who hears where, multiples and products, on a logarithmic scale.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>

namespace waxis {
struct RadioReport;
struct RadioUse;
} // namespace waxis

namespace waxis::radio {

class Ladder : public QWidget {
    Q_OBJECT

public:
    Ladder(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    QSize sizeHint() const override;
    double xOf(double f_MHz) const;
    /// What the ladder says of the place under the mouse; empty for nothing.
    QString tipAt(const QPointF &at) const;
    /// Middle of the ring of a product, as drawn, for tests: `listener` and its place in the report's list.
    QPointF ringOfMix(std::size_t mix) const;
    /// What the scale shows, MHz.
    double lowest_MHz() const { return low_MHz_; }
    double highest_MHz() const { return high_MHz_; }
    /// All bands again.
    void fit();
    /// The pair that is looked at, else the chosen part's bands, fill half of the scale.
    void zoomToChosen();

protected:
    void paintEvent(QPaintEvent *) override;
    void resizeEvent(QResizeEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void wheelEvent(QWheelEvent *event) override;
    bool focusNextPrevChild(bool next) override;
    void keyPressEvent(QKeyEvent *event) override;
    bool event(QEvent *event) override;

private:
    struct Lane {
        bool sends = true;
        std::string part;
        std::vector<int> radios; ///< indices in the report; several bands of one listener share a lane
        QString name, numbers;
        double top = 0;
    };
    /// Something that can be clicked, and the pair that it belongs to.
    struct Spot {
        QRectF rect;
        QString tip;
        app::Document::RadioPair pair;
        double rise_dB = 0;
        int mix = -1;
    };
    void layOut();
    void layLanes(const RadioReport &report);
    void layProducts(const RadioReport &report);
    void paintScale(QPainter &painter) const;
    void paintName(QPainter &painter, const Lane &lane) const;
    /// With its harmonics, faint.
    void paintBand(QPainter &painter, const Lane &lane, const RadioUse &radio) const;
    /// A ring on the listener's lane each; the one that is looked at, else the worst, is told in words.
    void paintProducts(QPainter &painter) const;
    void paintWords(QPainter &painter, const Spot &product, const QColor &color) const;
    const Lane *laneOf(int radio, bool sends) const;
    double frequencyAt(double x) const;
    void look(double low_MHz, double high_MHz);
    std::vector<double> ticks() const;
    std::vector<app::Document::RadioPair> products() const; ///< what Tab and the arrows go through

    app::Document &document_;
    const theme::Theme &theme_;
    std::vector<Lane> lanes_;
    std::vector<Spot> spots_;
    double low_MHz_ = 400, high_MHz_ = 7000;
    std::optional<std::pair<double, double>> closer_MHz_; ///< when somebody looks closer than at all of it
    std::optional<double> panningAt_px_;
};

} // namespace waxis::radio
