// The Wire stage: rails, routes and the table of wires; pins; the cut list.
#pragma once

#include "app/stages/bench.h"
#include "app/stages/wire/cut_page.h"
#include "app/stages/wire/joints_page.h"
#include "app/stages/wire/pins_page.h"
#include "app/stages/wire/rail_panel.h"
#include "app/stages/wire/wire_map.h"
#include "app/stages/wire/wire_table.h"

class QMenu;
class QStackedWidget;
class QToolButton;

namespace waxis::wire {

enum class Page { routes, pins, cut, joints };

class WireBench : public app::Bench {
    Q_OBJECT

public:
    WireBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    RailPanel &rails() { return *rails_; }
    WireMap &map() { return *map_; }
    WireTable &table() { return *table_; }
    PinsPage &pins() { return *pins_; }
    CutPage &cuts() { return *cuts_; }
    void showPage(Page page);
    /// Chooses the first of the things that is a wire, else a part with ports; false for none.
    void fit() override { map().fit(); }
    void zoomToChosen() override { map().zoomToChosen(); }
    bool reveal(const QStringList &ids, RuleId rule) override;

protected:
    void resizeEvent(QResizeEvent *event) override;

private:
    void joinAll();
    void showHints();
    void fillJoinMenu(QMenu &menu);

    app::Document &document_;
    const theme::Theme &theme_;
    RailPanel *rails_ = nullptr;
    WireMap *map_ = nullptr;
    WireTable *table_ = nullptr;
    PinsPage *pins_ = nullptr;
    CutPage *cuts_ = nullptr;
    JointsPage *joints_ = nullptr;
    QStackedWidget *pages_ = nullptr;
    std::vector<QToolButton *> tabs_;
    std::vector<QWidget *> routesOnly_; ///< what belongs to the drawing alone
    QWidget *bar_ = nullptr;
    std::vector<QWidget *> hints_; ///< of those what gives way when the bar is short, the first first
};

} // namespace waxis::wire
