// The main screen: plan over elevation on one x axis, with the plumb line through both.
#pragma once

#include "app/drawing/build_scene.h"
#include "app/stages/bench.h"
#include "core/placing/perch.h"

#include <QWidget>

class QButtonGroup;
class QLabel;
class QSplitter;
class QStackedWidget;
class QToolButton;

namespace waxis::place {

class Legend;
class LensView;
class LibraryDrawer;
class OutlinePanel;
class PlaceView;
class SkyPanel;
class SolidPane;

/// What the lower view shows.
enum class Lower { side, front, solid, lens, sky };

class PlaceBench : public app::Bench {
    Q_OBJECT

public:
    PlaceBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    PlaceView &plan() { return *plan_; }
    PlaceView &elevation() { return *elevation_; }
    LibraryDrawer &library() { return *library_; }
    SolidPane &solid() { return *solid_; }
    LensView &lens() { return *lens_; }
    SkyPanel &sky() { return *sky_; }
    Legend &legend() { return *legend_; }
    void showLower(Lower which);
    Lower lower() const { return lowerShown_; }
    /// Gives the lower view most of the bench, or the plan again.
    void enlargeLower(bool large);
    /// Switches an overlay by its key.
    void toggleOverlay(int key);
    /// Where the elevations are cut, mm: to the left (side), forward (front).
    void setSectionAt(double at_mm);
    void showLibrary(bool shown);
    void fit() override;
    void zoomToChosen() override;
    /// The list of all things beside the mat, in the place of the part drawer.
    void showOutline(bool shown);
    OutlinePanel &outline() { return *outline_; }
    void setOverlays(const drawing::Overlays &overlays);
    const drawing::Overlays &overlays() const { return planScene_.overlays(); }
    /// Brings things into sight and lights them up.
    bool reveal(const QStringList &ids, RuleId rule) override;

protected:
    bool eventFilter(QObject *watched, QEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;
    void showEvent(QShowEvent *event) override;

    /// Seats a library type at the places, chooses what came in, and says what was done.
    void seat(const QString &type, const std::vector<Perch> &places);
    void showOfferedSeats();

private:
    QWidget *makeChipBar();
    QWidget *makeElevationBar();
    void drawPlaces();
    void applySection();
    void placeLegend();
    /// Chips have their words where all fit side by side, else their digits.
    void nameChips();
    void alignFrom(PlaceView *source, double scale, const QPointF &centre);

    app::Document &document_;
    const theme::Theme &theme_;
    drawing::BuildScene planScene_, elevationScene_;
    PlaceView *plan_ = nullptr;
    PlaceView *elevation_ = nullptr;
    QSplitter *splitter_ = nullptr;
    QStackedWidget *stack_ = nullptr;
    SolidPane *solid_ = nullptr;
    LensView *lens_ = nullptr;
    SkyPanel *sky_ = nullptr;
    Legend *legend_ = nullptr;
    QWidget *solidTools_ = nullptr;
    QButtonGroup *tabs_ = nullptr;
    QToolButton *larger_ = nullptr;
    Lower lowerShown_ = Lower::side;
    double sectionAside_mm_ = 0, sectionFore_mm_ = 0;
    LibraryDrawer *library_ = nullptr;
    OutlinePanel *outline_ = nullptr;
    QToolButton *libraryChip_ = nullptr;
    QLabel *nose_ = nullptr;
    std::vector<QToolButton *> overlayChips_; ///< in the order of kOverlays
    bool fitted_ = false;
    bool ownView_ = false; ///< somebody zoomed or panned: resizing leaves it alone
};

} // namespace waxis::place
