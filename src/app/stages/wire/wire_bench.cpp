#include "app/stages/wire/wire_bench.h"

#include "app/drawing/wires.h"
#include "app/widgets/bench_bar.h"
#include "core/edits/usual_wires.h"
#include "core/edits/wire_edits.h"
#include "core/links/link_report.h"
#include "core/pins/signal.h"

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
    : app::Bench(parent), document_(document), theme_(theme) {
    rails_ = new RailPanel(document_, theme_);
    map_ = new WireMap(document_, theme_);
    table_ = new WireTable(document_, theme_);
    pins_ = new PinsPage(document_, theme_);
    cuts_ = new CutPage(document_, theme_);
    joints_ = new JointsPage(document_, theme_);
    connect(cuts_, &CutPage::said, this, &WireBench::said);

    auto *bar = theme::makeBenchBar(theme_, this);
    auto *line = static_cast<QHBoxLayout *>(bar->layout());
    tabs_ = theme::addPageTabs(*bar,
                               {{tr("Routes"), "page-routes"},
                                {tr("Pins"), "page-pins"},
                                {tr("Cut list"), "page-cut"},
                                {tr("Joints"), "page-joints"}},
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
    auto *join = new QToolButton;
    join->setText(tr("Join what fits"));
    join->setObjectName("join-fits");
    join->setToolTip(tr("Joins at once what every craft of this kind has: power, motors, camera, radios, GPS"));
    connect(join, &QToolButton::clicked, this, &WireBench::joinAll);
    line->addWidget(join);
    auto *pick = new QToolButton;
    pick->setText(tr("Join…"));
    pick->setObjectName("join-ports");
    pick->setToolTip(tr("A free port, and the ports that fit it"));
    auto *ports = new QMenu(pick);
    connect(ports, &QMenu::aboutToShow, this, [this, ports] { fillJoinMenu(*ports); });
    pick->setMenu(ports);
    pick->setPopupMode(QToolButton::InstantPopup);
    line->addWidget(pick);
    auto *hint = new QLabel(tr("or drag from ring to ring; T ties"));
    hint->setFont(theme_.text(11));
    line->addSpacing(8);
    line->addWidget(hint);
    line->addStretch(1);
    routesOnly_ = {view, join, pick, hint};
    bar_ = bar;
    hints_ = {hint};
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
        hints_.push_back(label);
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
    pages_->addWidget(joints_);
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
    showHints();
}

void WireBench::showHints() {
    // Buttons keep their words; what only explains is left out where it has no room.
    const bool routes = pages_->currentIndex() == int(Page::routes);
    if (!routes) return;
    for (QWidget *hint : hints_) hint->show();
    for (QWidget *hint : hints_) {
        bar_->layout()->invalidate();
        if (bar_->layout()->minimumSize().width() <= width()) return;
        hint->hide();
    }
}

void WireBench::resizeEvent(QResizeEvent *event) {
    QWidget::resizeEvent(event);
    showHints();
}

void WireBench::joinAll() {
    std::vector<std::string> joined;
    const Build next = joinWhatFits(document_.build(), &joined);
    if (joined.empty()) {
        emit said(tr("Nothing that is free belongs together. A port that stays is listed under Join…"), false);
        return;
    }
    if (!document_.edit(tr("Join what fits"), EditResult(next))) return;
    document_.select({}); // the wires are looked at now, and the ledger begins with the worst of them
    QStringList names;
    for (const auto &name : joined) names << QString::fromStdString(name);
    emit said(tr("Joined %1: %2.").arg(joined.size()).arg(names.join(QStringLiteral("; "))), false);
}

void WireBench::fillJoinMenu(QMenu &menu) {
    menu.clear();
    const Build &build = document_.build();
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type) continue;
        for (const auto &port : type->ports) {
            const WireEnd from{part.id, port.id};
            const bool used = std::any_of(build.wires.begin(), build.wires.end(),
                                          [&](const Wire &w) { return w.from == from || w.to == from; });
            if (!takesWires(port) || used) continue;
            auto *fitting =
                menu.addMenu(tr("%1: %2").arg(QString::fromStdString(part.name), QString::fromStdString(port.id)));
            connect(fitting, &QMenu::aboutToShow, this, [this, fitting, from] {
                fitting->clear();
                const Build &now = document_.build();
                for (const auto &other : now.parts) {
                    if (other.id == from.part) continue;
                    const auto to = proposePort(now, from, other.id);
                    if (!to || proposeCores(now, from, *to).empty()) continue;
                    fitting->addAction(
                        tr("%1: %2").arg(QString::fromStdString(other.name), QString::fromStdString(to->port)), this,
                        [this, from, to = *to] {
                            const auto joined = connectPorts(document_.build(), from, to);
                            if (document_.edit(tr("Join two ports"), joined))
                                document_.select(QString::fromStdString(document_.build().wires.back().id));
                        });
                }
                if (fitting->isEmpty()) fitting->addAction(tr("nothing that fits is free"))->setEnabled(false);
            });
        }
    }
    if (menu.isEmpty()) menu.addAction(tr("no port is free"))->setEnabled(false);
}

bool WireBench::reveal(const QStringList &ids, RuleId) {
    const Build &build = document_.build();
    for (const auto &id : ids)
        if (findWire(build, id.toStdString()) || findPart(build, id.toStdString())) {
            document_.select(id);
            return true;
        }
    return false;
}

} // namespace waxis::wire
