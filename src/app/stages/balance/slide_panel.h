// A part on its line: where it is, where it may go, where the balance wants it.
#pragma once

#include "app/document/document.h"
#include "app/widgets/card.h"
#include "core/remedies/slide.h"

class QComboBox;
class QLabel;
class QToolButton;

namespace waxis::balance {

/// The line itself: dragged, it slides the part; arrow keys nudge.
class SlideLine : public QWidget {
    Q_OBJECT

public:
    SlideLine(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    struct Shown {
        SlideSolution solution;
        QString unit; ///< words for the two ways: "fore", "aft", ...
        QString fore, aft, stopAft, stopFore;
        double half_mm = 20;              ///< half the part's length along the line
        double least_mm = 0, most_mm = 0; ///< the whole range, free or not
        QColor color;
    };
    void show(std::optional<Shown> shown);
    const std::optional<Shown> &shown() const { return shown_; }
    /// Where a travel stands on the line, in pixels.
    double xOf(double travel_mm) const;
    QSize minimumSizeHint() const override { return {240, 64}; }
    QSize sizeHint() const override { return {400, 64}; }

signals:
    void travelled(double travel_mm); ///< while the mouse is down
    void released();
    void cancelled();
    void nudged(double travel_mm);

protected:
    void paintEvent(QPaintEvent *) override;
    void mousePressEvent(QMouseEvent *event) override;
    void mouseMoveEvent(QMouseEvent *event) override;
    void mouseReleaseEvent(QMouseEvent *event) override;
    void keyPressEvent(QKeyEvent *event) override;

private:
    app::Document &document_;
    const theme::Theme &theme_;
    std::optional<Shown> shown_;
    double held_ = 0, travel_ = 0; ///< where it was taken hold of; how far it has gone
    bool holding_ = false;
};

class SlidePanel : public theme::Card {
    Q_OBJECT

public:
    SlidePanel(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    SlideLine &line() { return *line_; }
    const std::optional<SlideSolution> &solution() const { return solution_; }
    /// The part that is looked at; shown even when it has no line of its own (then it is asked fore and aft).
    std::string part() const;
    void lookAt(const std::string &part);
    /// What else the slide to balance would change, under the line.
    void setConsequence(const QString &words);
    void refresh();
    void fillParts(); ///< what may slide, the pack first: it is the heaviest and made to slide
    void showLine(const Part &part, const SlideRange &range, const FreeTravel &free);
    void tell(bool pinned); ///< what the solution brings, in words

signals:
    void proposed(); ///< solution() is another

protected:
    void showEvent(QShowEvent *event) override;

private:
    void slide(double travel_mm, const QString &name);

    app::Document &document_;
    QComboBox *which_ = nullptr;
    QLabel *facts_ = nullptr, *note_ = nullptr, *consequence_ = nullptr;
    QToolButton *solve_ = nullptr, *compromise_ = nullptr;
    SlideLine *line_ = nullptr;
    std::optional<SlideSolution> solution_;
    std::optional<Compromise> common_;
    Build before_; ///< while the mouse is down
};

/// Moves a part along a line as far: by its own slide where it has one, else freely.
EditResult travelAlong(const Build &build, const SlideSolution &solution, double travel_mm);

} // namespace waxis::balance
