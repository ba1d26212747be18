#include "app/stages/wire/wire_bench.h"

#include "app/drawing/wires.h"
#include "app/theme/bench_bar.h"

#include <QActionGroup>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QSplitter>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::wire {

WireBench::WireBench(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    rails_ = new RailPanel(document_, theme_);
    map_ = new WireMap(document_, theme_);
    table_ = new WireTable(document_, theme_);
    pins_ = new PinsPage(document_, theme_);
    cuts_ = new CutPage(document_, theme_);
    connect(cuts_, &CutPage::said, this, &WireBench::said);

    auto *bar = theme::makeBenchBar(theme_, this);
    auto *line = static_cast<QHBoxLayout *>(bar->layout());
    tabs_ = theme::addPageTabs(*bar,
                               {{tr("Routes"), "page-routes"}, {tr("Pins"), "page-pins"}, {tr("Cut list"), "page-cut"}},
                               [this](int page) { showPage(Page(page)); });
    auto *view = new QToolButton;
    view->setText(tr("Plan"));
    view->setObjectName("wire-view");
    view->setToolTip(tr("From where the routes are seen"));
    auto *menu = new QMenu(view);
    auto *group = new QActionGroup(menu);
    const std::array<std::pair<QString, drawing::View>, 3> views{{{tr("Plan"), drawing::View::plan},
                                                                  {tr("From the side"), drawing::View::side},
                                                                  {tr("From ahead"), drawing::View::front}}};
    for (const auto &[text, which] : views) {
        auto *action = menu->addAction(text);
        action->setCheckable(true);
        action->setChecked(which == drawing::View::plan);
        group->addAction(action);
        connect(action, &QAction::triggered, this, [this, view, text = text, which = which] {
            view->setText(text);
            map_->setView(which);
        });
    }
    view->setMenu(menu);
    view->setPopupMode(QToolButton::InstantPopup);
    line->addWidget(view);
    auto *hint = new QLabel(tr("drag from port to port; T ties a wire down"));
    hint->setFont(theme_.text(11));
    line->addSpacing(8);
    line->addWidget(hint);
    line->addStretch(1);
    routesOnly_ = {view, hint};
    const std::array<std::pair<QString, WireRole>, 4> legend{{{tr("power"), WireRole::power},
                                                              {tr("signal"), WireRole::signal},
                                                              {tr("video"), WireRole::video},
                                                              {tr("coax"), WireRole::coax}}};
    for (const auto &[text, role] : legend) {
        auto *label =
            new QLabel(QStringLiteral("<span style='color:%1'>━</span> %2").arg(drawing::wireColor(role).name(), text));
        label->setFont(theme_.text(11));
        line->addWidget(label);
        routesOnly_.push_back(label);
    }

    auto *lower = new QSplitter(Qt::Vertical);
    lower->setChildrenCollapsible(false);
    lower->setHandleWidth(1);
    map_->setMinimumHeight(140);
    table_->setMinimumHeight(90);
    lower->addWidget(map_);
    lower->addWidget(table_);
    lower->setStretchFactor(0, 3);
    lower->setStretchFactor(1, 2);
    lower->setSizes({300, 210});
    auto *routes = new QWidget;
    auto *column = new QVBoxLayout(routes);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(rails_);
    column->addWidget(lower, 1);
    rails_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    pages_ = new QStackedWidget;
    pages_->addWidget(routes);
    pages_->addWidget(pins_);
    pages_->addWidget(cuts_);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(bar);
    all->addWidget(pages_, 1);
    showPage(Page::routes);
}

void WireBench::showPage(Page page) {
    pages_->setCurrentIndex(int(page));
    for (QWidget *widget : routesOnly_) widget->setVisible(page == Page::routes);
    tabs_[std::size_t(page)]->setChecked(true);
}

bool WireBench::reveal(const QStringList &ids) {
    const Build &build = document_.build();
    for (const auto &id : ids)
        if (findWire(build, id.toStdString()) || findPart(build, id.toStdString())) {
            document_.select(id);
            return true;
        }
    return false;
}

} // namespace waxis::wire
