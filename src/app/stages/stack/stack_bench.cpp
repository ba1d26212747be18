#include "app/stages/stack/stack_bench.h"

#include "app/stages/stack/closing_card.h"
#include "app/stages/stack/gap_card.h"
#include "app/stages/stack/layer_strip.h"
#include "app/widgets/bench_bar.h"
#include "app/widgets/typed_number.h"
#include "core/edits/furnish_stack.h"
#include "core/edits/group_edits.h"
#include "core/edits/hung_on.h"
#include "core/edits/stack_edits.h"
#include "core/stack/report.h"

#include <QActionGroup>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLineEdit>
#include <QMenu>
#include <QScrollArea>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::stackbench {

StackBench::StackBench(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : app::Bench(parent), document_(document), theme_(theme), focus_(document) {
    canvas_ = new StackCanvas(focus_, theme);
    canvas_->setObjectName("stack-canvas");
    auto *strip = new LayerStrip(focus_, *canvas_, theme);
    auto *left = new QVBoxLayout;
    left->setContentsMargins(0, 0, 0, 0);
    left->setSpacing(0);
    left->addWidget(canvas_, 1);
    left->addWidget(strip);
    auto *inner = new QWidget;
    inner->setObjectName("cards");
    auto *column = new QVBoxLayout(inner);
    column->setContentsMargins(4, 8, 8, 8);
    column->setSpacing(8);
    column->addWidget(screws_ = new ScrewCard(focus_, theme));
    column->addWidget(whatIf_ = new WhatIfCard(focus_, theme));
    column->addWidget(new GapCard(focus_, theme));
    column->addWidget(new ClosingCard(focus_, theme));
    column->addWidget(new MotorScrewCard(focus_, theme));
    column->addWidget(new HardwareCard(focus_, theme));
    column->addStretch(1);
    cards_ = new QScrollArea;
    cards_->setObjectName("stack-cards");
    cards_->setWidget(inner);
    cards_->setWidgetResizable(true);
    cards_->setFrameShape(QFrame::NoFrame);
    cards_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    cards_->setFixedWidth(282);
    theme_.dress(*cards_, theme::Ground::mat);
    auto *row = new QHBoxLayout;
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addLayout(left, 1);
    row->addWidget(cards_);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(makeBar());
    all->addLayout(row, 1);
    connect(&focus_, &StackFocus::changed, this, &StackBench::makeTabs);
    makeTabs();
}

QWidget *StackBench::makeBar() {
    auto *bar = theme::makeBenchBar(theme_, this);
    auto *line = static_cast<QHBoxLayout *>(bar->layout());
    tabs_ = new QHBoxLayout;
    tabs_->setSpacing(4);
    line->addLayout(tabs_);
    auto button = [&](const QString &text, const QString &tip, const QString &name) {
        auto *tool = new QToolButton;
        tool->setText(text);
        tool->setToolTip(tip);
        tool->setObjectName(name);
        tool->setFocusPolicy(Qt::TabFocus);
        line->addWidget(tool);
        return tool;
    };
    auto withMenu = [&](QToolButton *tool, auto fill) {
        auto *menu = new QMenu(tool);
        connect(menu, &QMenu::aboutToShow, this, [menu, fill] {
            menu->clear();
            fill(*menu);
        });
        tool->setMenu(menu);
        tool->setPopupMode(QToolButton::InstantPopup);
    };
    withMenu(button(tr("+ stack"), tr("A stack on another hole pattern or adapter plate"), "new-stack"),
             [this](QMenu &menu) { fillNewMenu(menu); });
    line->addStretch(1);
    furnish_ = button(
        tr("Fit it out"),
        tr("Puts in what the column lacks: the lowest spacers or dampers that leave air, nuts, screws that reach"),
        "furnish-stack");
    connect(furnish_, &QToolButton::clicked, this, [this] {
        if (const Stack *stack = focus_.stack())
            document_.edit(tr("Fit out %1").arg(QString::fromStdString(stack->name)),
                           furnishStack(document_.build(), stack->id, document_.analysis().practice));
    });
    withMenu(button(tr("+ layer"), tr("Lay something on the chosen layer"), "add-layer"),
             [this](QMenu &menu) { fillAddMenu(menu, focus_); });
    withMenu(
        button(tr("Held by"), tr("Screws, where their heads are and what they turn into; ties, strap"), "stack-base"),
        [this](QMenu &menu) { fillBaseMenu(menu); });
    withMenu(button(tr("Cut"), tr("Where the column is cut open, and from where it is seen"), "stack-cut"),
             [this](QMenu &menu) {
                 auto *where = new QActionGroup(&menu), *from = new QActionGroup(&menu);
                 auto choice = [&](QActionGroup *group, const QString &text, bool on, auto change) {
                     auto *action = menu.addAction(text);
                     action->setCheckable(true);
                     action->setChecked(on);
                     group->addAction(action);
                     connect(action, &QAction::triggered, this, [this, change] {
                         ColumnView view = canvas_->view();
                         change(view);
                         canvas_->setView(view);
                     });
                 };
                 const ColumnView now = canvas_->view();
                 choice(where, tr("Through the screws"), now.cut == CutAt::screws,
                        [](ColumnView &v) { v.cut = CutAt::screws; });
                 choice(where, tr("Through the middle"), now.cut == CutAt::middle,
                        [](ColumnView &v) { v.cut = CutAt::middle; });
                 choice(where, tr("Through the closest place"), now.cut == CutAt::closest,
                        [](ColumnView &v) { v.cut = CutAt::closest; });
                 menu.addSeparator();
                 choice(from, tr("Seen from the right, nose to the right"), now.view == drawing::View::side,
                        [](ColumnView &v) { v.view = drawing::View::side; });
                 choice(from, tr("Seen from ahead"), now.view == drawing::View::front,
                        [](ColumnView &v) { v.view = drawing::View::front; });
             });
    return bar;
}

void StackBench::makeTabs() {
    const auto &stacks = document_.build().stacks;
    while (tabButtons_.size() > stacks.size()) {
        delete tabButtons_.back();
        tabButtons_.pop_back();
    }
    while (tabButtons_.size() < stacks.size()) {
        auto *tab = new QToolButton;
        tab->setCheckable(true);
        tab->setObjectName("stack-tab");
        tab->setFocusPolicy(Qt::TabFocus);
        const std::size_t index = tabButtons_.size();
        connect(tab, &QToolButton::clicked, this, [this, index] {
            const auto &list = document_.build().stacks;
            if (index < list.size()) focus_.chooseStack(list[index].id);
        });
        tabs_->addWidget(tab);
        tabButtons_.push_back(tab);
    }
    furnish_->setVisible(focus_.stack() && lacksHardware(document_.build(), focus_.stack()->id));
    for (std::size_t i = 0; i < stacks.size(); ++i) {
        const Stack &stack = stacks[i];
        tabButtons_[i]->setText(QString::fromStdString(stack.name.empty() ? stack.id : stack.name));
        tabButtons_[i]->setToolTip(tr("on %1").arg(QString::fromStdString(displayName(document_.build(), stack.on))));
        tabButtons_[i]->setChecked(focus_.stack() == &stack);
    }
}

void StackBench::fillNewMenu(QMenu &menu) {
    const Build &build = document_.build();
    auto taken = [&](const std::string &id) {
        return std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == id; });
    };
    auto make = [this](const std::string &on, const std::string &name) {
        std::string id;
        auto made = gatherStack(document_.build(), on, name, &id);
        if (!made) made = addStack(document_.build(), on, name, &id);
        if (document_.edit(tr("New stack"), made)) focus_.chooseStack(id);
    };
    for (const auto &site : build.frame->sites)
        if (site.pattern && !taken(site.id)) {
            const std::string name = site.name.empty() ? site.id : site.name;
            menu.addAction(tr("On %1").arg(QString::fromStdString(name)), this,
                           [make, id = site.id, name] { make(id, name); });
        }
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || !type->carries || taken(part.id)) continue;
        menu.addAction(tr("On %1").arg(QString::fromStdString(part.name)), this,
                       [make, id = part.id, name = part.name] { make(id, name); });
    }
    // Under a plate that carries a pattern above.
    for (const auto &site : build.frame->sites) {
        const bool upright = (site.X_FrameSite.rotation * Vec3::UnitZ()).z() > 0.99;
        if (!site.pattern || !upright || site.on.empty()) continue;
        menu.addAction(tr("Hanging under %1").arg(QString::fromStdString(site.name.empty() ? site.id : site.name)),
                       this, [this, id = site.id] {
                           std::string made;
                           if (document_.edit(tr("New stack"), addHangingStack(document_.build(), id, &made)))
                               focus_.chooseStack(made);
                       });
    }
    if (menu.isEmpty()) menu.addAction(tr("Every hole pattern carries a stack already"))->setEnabled(false);
}

static StackBase baseOf(const Stack &stack) {
    return {stack.name, stack.through, stack.headsOutside, stack.end, stack.threadDepth_mm, stack.cut_mm, stack.sag_mm};
}

void StackBench::fillBaseMenu(QMenu &menu) {
    const Stack *stack = focus_.stack();
    if (!stack) {
        menu.addAction(tr("No stack yet"))->setEnabled(false);
        return;
    }
    addHolds(menu, *stack);
    menu.addSeparator();
    addEnds(menu, *stack);
    menu.addSeparator();
    addPlates(menu, *stack);
    menu.addAction(tr("Depth of the thread at their end…"), this, &StackBench::askDepth);
    menu.addAction(tr("Cut off the ends of the screws…"), this, &StackBench::askCut)
        ->setEnabled(!stack->screws.empty());
    menu.addAction(tr("How far it sinks on its dampers…"), this, &StackBench::askSag);
    menu.addAction(tr("Rename…"), this, &StackBench::askName);
    menu.addAction(tr("Take the stack apart"), this, [this] {
        if (const Stack *now = focus_.stack())
            focus_.edit(tr("Take a stack apart"), removeStack(document_.build(), now->id), -1);
    });
}

void StackBench::setBase(const StackBase &next) {
    if (const Stack *now = focus_.stack())
        focus_.edit(tr("Screws otherwise"), setStackBase(document_.build(), now->id, next));
}

void StackBench::addHolds(QMenu &menu, const Stack &stack) {
    auto *holds = new QActionGroup(&menu);
    for (const auto &[text, hold] : {std::pair{tr("Screws"), StackHold::screws},
                                     {tr("Two ties"), StackHold::ties},
                                     {tr("A strap"), StackHold::strap}}) {
        auto *action = menu.addAction(text);
        action->setCheckable(true);
        action->setChecked(stack.hold == hold);
        holds->addAction(action);
        connect(action, &QAction::triggered, this, [this, hold = hold] {
            if (const Stack *now = focus_.stack())
                focus_.edit(tr("Held otherwise"), holdStack(document_.build(), now->id, hold), -1);
        });
    }
}

void StackBench::addEnds(QMenu &menu, const Stack &stack) {
    const StackBase base = baseOf(stack);
    auto choice = [&](const QString &text, bool on, StackBase next) {
        auto *action = menu.addAction(text);
        action->setCheckable(true);
        action->setChecked(on);
        connect(action, &QAction::triggered, this, [this, next] { setBase(next); });
    };
    StackBase next = base;
    next.headsOutside = false;
    if (next.end == ScrewEnd::frame) next.end = ScrewEnd::nut;
    choice(tr("Heads under the frame"), !base.headsOutside, next);
    next = base;
    next.headsOutside = true;
    choice(tr("Heads outside"), base.headsOutside, next);
    menu.addSeparator();
    next = base;
    next.end = ScrewEnd::nut;
    choice(tr("Into nuts"), base.end == ScrewEnd::nut, next);
    next.end = ScrewEnd::spacer;
    choice(tr("Into threaded standoffs"), base.end == ScrewEnd::spacer, next);
    next.end = ScrewEnd::frame;
    next.headsOutside = true;
    choice(tr("Into a thread in the frame"), base.end == ScrewEnd::frame, next);
}

void StackBench::addPlates(QMenu &menu, const Stack &stack) {
    const StackReport *report = focus_.report();
    if (!report || carrierOf(document_.build(), stack).empty()) return;
    auto *through = menu.addMenu(tr("Through the frame down to"));
    const double face = report->chain.X_FrameBase.position_mm.z();
    const bool up = (report->chain.X_FrameBase.rotation * Vec3::UnitZ()).z() > 0;
    for (const auto &plate : document_.build().frame->plates) {
        const bool beneath = up ? plate.z_mm + plate.thickness_mm <= face + 0.01 : plate.z_mm >= face - 0.01;
        if (!beneath) continue;
        auto *action = through->addAction(QString::fromStdString(plate.name.empty() ? plate.id : plate.name));
        action->setCheckable(true);
        action->setChecked(throughOf(document_.build(), stack) == plate.id);
        StackBase to = baseOf(stack);
        to.through = plate.id;
        connect(action, &QAction::triggered, this, [this, to] { setBase(to); });
    }
}

std::optional<Measured> StackBench::askMeasured(const QString &title, const QString &question, const Measured &now) {
    bool ok = false;
    const QString text = QInputDialog::getText(this, title, question, QLineEdit::Normal,
                                               app::writtenWithDoubt(now, QStringLiteral("mm")), &ok)
                             .trimmed();
    if (!ok) return std::nullopt;
    if (text.isEmpty()) return Measured{};
    const auto typed = app::typedWithDoubt(text, Measure::length);
    if (!typed) {
        emit document_.refused(app::notUnderstood(text, Measure::length));
        return std::nullopt;
    }
    return typed->value > 0 ? measuredValue(typed->value, typed->doubt) : Measured{};
}

void StackBench::askDepth() {
    const Stack *now = focus_.stack();
    if (!now) return;
    const auto depth = askMeasured(tr("Depth of the thread"),
                                   tr("How deep the screws may turn in, as 6 or 6 ± 0.5 mm; empty: right through"),
                                   now->threadDepth_mm);
    if (!depth) return;
    StackBase deep = baseOf(*now);
    deep.threadDepth_mm = *depth;
    setBase(deep);
}

void StackBench::askCut() {
    const Stack *now = focus_.stack();
    if (!now) return;
    bool ok = false;
    const double cut =
        QInputDialog::getDouble(this, tr("Cut the screws"),
                                tr("Off the ends of the screws, mm; 0: as sold. Clamp them in a nut, file the burr."),
                                now->cut_mm, 0, 50, 1, &ok);
    if (!ok) return;
    StackBase next = baseOf(*now);
    next.cut_mm = cut;
    setBase(next);
}

void StackBench::askSag() {
    const Stack *now = focus_.stack();
    if (!now) return;
    const auto sag = askMeasured(tr("Sag on the dampers"),
                                 tr("How far the boards sink under their weight, measured against free dampers,\n"
                                    "as 0.3 or 0.3 ± 0.1 mm; empty: not measured"),
                                 now->sag_mm);
    if (!sag) return;
    StackBase next = baseOf(*now);
    next.sag_mm = *sag;
    setBase(next);
}

void StackBench::askName() {
    const Stack *now = focus_.stack();
    if (!now) return;
    bool ok = false;
    const QString name = QInputDialog::getText(this, tr("Name of the stack"), tr("Name"), QLineEdit::Normal,
                                               QString::fromStdString(now->name), &ok);
    StackBase renamed = baseOf(*now);
    renamed.name = name.toStdString();
    if (ok) focus_.edit(tr("Rename a stack"), setStackBase(document_.build(), now->id, renamed));
}

void StackBench::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    focus_.setAwake(true);
    canvas_->setFocus(); // the keys of the column work at once
}

void StackBench::hideEvent(QHideEvent *event) {
    focus_.setAwake(false);
    QWidget::hideEvent(event);
}

bool StackBench::reveal(const QStringList &ids, RuleId) {
    for (const auto &id : ids)
        if (focus_.reveal(id.toStdString())) return true;
    return false;
}

} // namespace waxis::stackbench
