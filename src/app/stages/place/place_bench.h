// The main screen: plan over elevation on one x axis, with the plumb line through both.
#pragma once

#include "app/stages/place/library_drawer.h"
#include "app/stages/place/place_view.h"

#include <QWidget>

class QSplitter;
class QToolButton;

namespace waxis::place {

class PlaceBench : public QWidget {
    Q_OBJECT

public:
    PlaceBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    PlaceView &plan() { return *plan_; }
    PlaceView &elevation() { return *elevation_; }
    LibraryDrawer &library() { return *library_; }
    void showLibrary(bool shown);
    void fit();
    void setOverlays(const drawing::Overlays &overlays);
    const drawing::Overlays &overlays() const { return planScene_.overlays(); }
    /// Brings things into sight and lights them up.
    void reveal(const QStringList &ids);

protected:
    void resizeEvent(QResizeEvent *event) override;
    void showEvent(QShowEvent *event) override;

private:
    QWidget *makeChipBar();
    QWidget *makeElevationBar();
    void setElevation(drawing::View view);
    void alignFrom(PlaceView *source, double scale, const QPointF &centre);

    app::Document &document_;
    const theme::Theme &theme_;
    drawing::BuildScene planScene_, elevationScene_;
    PlaceView *plan_ = nullptr;
    PlaceView *elevation_ = nullptr;
    QSplitter *splitter_ = nullptr;
    LibraryDrawer *library_ = nullptr;
    QToolButton *libraryChip_ = nullptr;
    std::vector<QToolButton *> overlayChips_;
    std::vector<QToolButton *> elevationTabs_;
    bool fitted_ = false;
};

} // namespace waxis::place
