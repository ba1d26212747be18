#include "app/stages/build/steps_page.h"

#include "core/base/by_id.h"
#include "core/edits/assembly_edits.h"
#include "core/instructions/step_words.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QSplitter>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::assembly {

namespace {

QString words(const Sentence &sentence) { return QString::fromStdString(sentence.text()); }

std::string now() { return QDateTime::currentDateTime().toString(Qt::ISODate).toStdString(); }

bool isAbout(const Step &step, const std::string &id) {
    return std::find(step.things.begin(), step.things.end(), id) != step.things.end() ||
           std::any_of(step.joints.begin(), step.joints.end(), [&](const JointEnd &joint) { return joint.wire == id; });
}

QToolButton *button(const QString &text, const char *name, const QString &tip) {
    auto *made = new QToolButton;
    made->setText(text);
    made->setObjectName(name);
    made->setToolTip(tip);
    return made;
}

} // namespace

StepsPage::StepsPage(app::Document &document, const theme::Theme &theme, PlanSource &source, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme), source_(source) {
    list_ = new StepList(document, theme, source);
    drawing_ = new StepDrawing(document, theme);
    inSpace_ = new StepSolid(document, theme);
    drawings_ = new QStackedWidget;
    drawings_->addWidget(drawing_);
    drawings_->addWidget(inSpace_);
    auto label = [&](const char *name, int pixels, bool strong) {
        auto *made = new QLabel;
        made->setObjectName(name);
        made->setWordWrap(true);
        made->setFont(theme_.text(pixels, strong));
        made->setTextInteractionFlags(Qt::TextSelectableByMouse);
        return made;
    };
    title_ = label("step-title", 16, true);
    title_->setForegroundRole(QPalette::ButtonText);
    takes_ = label("step-takes", 12, false);
    why_ = label("step-why", 12, false);
    caution_ = label("step-caution", 12, true);
    progress_ = label("build-progress", 11, false);
    tick_ = button(tr("Done"), "step-tick", tr("Ticks the step, with date and time, and goes on (Space)"));
    checks_ = button(tr("Checks…"), "step-checks", tr("What is measured here, and what should be found"));
    plan_ = button(tr("Plan"), "step-plan", tr("Drawn from above"));
    side_ = button(tr("Side"), "step-side", tr("Drawn from the right-hand side"));
    solid_ = button(tr("Solid"), "step-solid-switch", tr("In three dimensions: drag turns it, the wheel zooms"));
    for (QToolButton *view : {plan_, side_, solid_}) {
        view->setCheckable(true);
        view->setAutoExclusive(true);
    }
    own_ = new QLineEdit;
    own_->setObjectName("own-step");
    own_->setPlaceholderText(tr("a step of your own, after this one"));
    own_->setAccessibleName(tr("A step of your own"));
    addOwn_ = button(tr("Add"), "own-step-add", tr("Adds the step that is typed, after the chosen one"));
    removeOwn_ = button(tr("Remove"), "own-step-remove", tr("Takes the chosen step of your own out"));
    ownText_ = new QLineEdit;
    ownText_->setObjectName("own-step-text");
    ownText_->setAccessibleName(tr("What this step of your own says"));
    again_ = button(tr("Begin again"), "untick-all", tr("Unticks every step"));
    planOrder_ = button(tr("Plan's order"), "plan-order", tr("Drops every order that you dragged"));

    // A drop that a reason speaks against.
    against_ = new QWidget;
    against_->setObjectName("order-refused");
    reason_ = label("order-reason", 12, false);
    note_ = new QLineEdit;
    note_->setObjectName("order-note");
    note_->setPlaceholderText(tr("why all the same"));
    note_->setAccessibleName(tr("Why all the same"));
    auto *anyway =
        button(tr("All the same"), "order-anyway", tr("Puts it there against the reason; a note stays (SEQ-8)"));
    auto *leave = button(tr("Leave it"), "order-leave", tr("The order stays as it is"));
    auto *refused = new QVBoxLayout(against_);
    refused->setContentsMargins(0, 0, 0, 0);
    refused->addWidget(reason_);
    auto *answer = new QHBoxLayout;
    answer->addWidget(note_, 1);
    answer->addWidget(anyway);
    answer->addWidget(leave);
    refused->addLayout(answer);
    against_->hide();

    auto *views = new QHBoxLayout;
    views->setContentsMargins(10, 6, 10, 0);
    views->addWidget(title_, 1);
    views->addWidget(plan_, 0, Qt::AlignTop);
    views->addWidget(side_, 0, Qt::AlignTop);
    views->addWidget(solid_, 0, Qt::AlignTop);
    auto *foot = new QVBoxLayout;
    foot->setContentsMargins(10, 4, 10, 8);
    foot->setSpacing(4);
    foot->addWidget(against_);
    foot->addWidget(ownText_);
    foot->addWidget(takes_);
    foot->addWidget(why_);
    foot->addWidget(caution_);
    auto *acts = new QHBoxLayout;
    acts->addWidget(tick_);
    acts->addWidget(checks_);
    acts->addWidget(own_, 1);
    acts->addWidget(addOwn_);
    acts->addWidget(removeOwn_);
    acts->addWidget(planOrder_);
    acts->addWidget(again_);
    foot->addLayout(acts);
    auto *right = new QWidget;
    auto *column = new QVBoxLayout(right);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addLayout(views);
    column->addWidget(drawings_, 1);
    column->addLayout(foot);
    auto *left = new QWidget;
    auto *strip = new QVBoxLayout(left);
    strip->setContentsMargins(0, 0, 0, 0);
    strip->setSpacing(0);
    progress_->setContentsMargins(10, 6, 6, 4);
    strip->addWidget(progress_);
    strip->addWidget(list_, 1);
    auto *split = new QSplitter(Qt::Horizontal);
    split->setChildrenCollapsible(false);
    split->setHandleWidth(4);
    split->addWidget(left);
    split->addWidget(right);
    split->setStretchFactor(0, 0);
    split->setStretchFactor(1, 1);
    split->setSizes({280, 580});
    auto *all = new QHBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->addWidget(split);

    connect(list_, &StepList::stepChosen, this, &StepsPage::show);
    connect(list_, &StepList::picked, this, [this](int at) {
        const Step &step = source_.plan().steps[std::size_t(at)];
        if (!step.things.empty())
            document_.select(QString::fromStdString(step.things.front()));
        else if (!step.joints.empty())
            document_.select(QString::fromStdString(step.joints.front().wire));
    });
    connect(&document_, &app::Document::selectionChanged, this, [this] {
        const auto &steps = source_.plan().steps;
        const std::string id = document_.selected().toStdString();
        const int at = source_.stepOf(id), now = list_->step();
        const bool here = now >= 0 && now < int(steps.size()) && isAbout(steps[std::size_t(now)], id);
        if (isVisible() && at >= 0 && !here) list_->choose(at);
    });
    connect(list_, &StepList::tickWanted, this, &StepsPage::tick);
    connect(list_, &StepList::orderWanted, this, &StepsPage::order);
    connect(tick_, &QToolButton::clicked, this, [this] { tick(list_->step()); });
    connect(checks_, &QToolButton::clicked, this, [this] {
        const auto &steps = source_.plan().steps;
        if (const int at = list_->step(); at >= 0) emit checksWanted(steps[std::size_t(at)].gate);
    });
    const auto flat = [this](drawing::View view) {
        drawings_->setCurrentWidget(drawing_);
        drawing_->setView(view);
    };
    connect(plan_, &QToolButton::clicked, this, [flat] { flat(drawing::View::plan); });
    connect(side_, &QToolButton::clicked, this, [flat] { flat(drawing::View::side); });
    connect(solid_, &QToolButton::clicked, this, [this] { drawings_->setCurrentWidget(inSpace_); });
    connect(drawing_, &StepDrawing::viewChanged, this, [this] {
        if (drawings_->currentWidget() == drawing_)
            (drawing_->view() == drawing::View::plan ? plan_ : side_)->setChecked(true);
    });
    const auto add = [this] {
        const int at = list_->step();
        const auto &steps = source_.plan().steps;
        const std::string after = at >= 0 ? steps[std::size_t(at)].does.back().step : std::string();
        if (document_.edit(tr("Add a step"), addOwnStep(document_.build(), own_->text().toStdString(), after)))
            own_->clear();
    };
    connect(addOwn_, &QToolButton::clicked, this, add);
    connect(own_, &QLineEdit::returnPressed, this, add);
    connect(removeOwn_, &QToolButton::clicked, this, [this] {
        const int at = list_->step();
        if (at >= 0)
            document_.edit(tr("Remove a step"),
                           removeOwnStep(document_.build(), source_.plan().steps[std::size_t(at)].id));
    });
    connect(ownText_, &QLineEdit::editingFinished, this, [this] {
        const int at = list_->step();
        const auto &steps = source_.plan().steps;
        const OwnStep *own =
            at >= 0 && at < int(steps.size()) ? byId(document_.build().ownSteps, steps[std::size_t(at)].id) : nullptr;
        const std::string text = ownText_->text().trimmed().toStdString();
        if (own && text != own->text)
            document_.edit(tr("Change a step"), changeOwnStep(document_.build(), own->id, text));
    });
    connect(again_, &QToolButton::clicked, this,
            [this] { document_.edit(tr("Untick every step"), untickAll(document_.build())); });
    connect(planOrder_, &QToolButton::clicked, this,
            [this] { document_.edit(tr("Plan's order"), dropOwnOrder(document_.build())); });
    connect(anyway, &QToolButton::clicked, this, [this] {
        const std::string why = note_->text().trimmed().toStdString();
        if (why.empty()) {
            emit said(tr("Say why: it stands in the findings afterwards."), true);
            note_->setFocus();
            return;
        }
        against_->hide();
        document_.edit(tr("Another order"), wantOrder(document_.build(), wishes(wantedStep_, wantedBefore_, why)));
    });
    connect(leave, &QToolButton::clicked, against_, &QWidget::hide);
    show(list_->step());
}

void StepsPage::say(QLabel &label, const QString &text) {
    label.setText(text);
    label.setVisible(!text.isEmpty());
}

void StepsPage::show(int at) {
    const AssemblyPlan &plan = source_.plan();
    const Build &build = document_.build();
    double minutes = 0, done_min = 0;
    int done = 0;
    for (const auto &step : plan.steps) {
        minutes += step.minutes;
        if (stateOf(build, step) != StepState::done) continue;
        ++done;
        done_min += step.minutes;
    }
    QString progress = plan.steps.empty()
                           ? (source_.isStale() ? tr("Working out the order…") : tr("Nothing is to be built yet."))
                           : tr("%1 of %2 steps, %3 of %4 min")
                                 .arg(done)
                                 .arg(plan.steps.size())
                                 .arg(std::round(done_min))
                                 .arg(std::round(minutes));
    if (source_.isStale() && !plan.steps.empty()) progress += tr(" · working it out anew…");
    progress_->setText(progress);
    const bool there = at >= 0 && at < int(plan.steps.size());
    for (QToolButton *part : {tick_, plan_, side_, solid_}) part->setEnabled(there);
    planOrder_->setVisible(!build.ownOrder.empty());
    again_->setVisible(!build.stepsDone.empty());
    drawing_->show(plan, there ? at : -1);
    inSpace_->show(plan, there ? at : -1);
    const OwnStep *own = there ? byId(build.ownSteps, plan.steps[std::size_t(at)].id) : nullptr;
    ownText_->setVisible(own != nullptr);
    removeOwn_->setVisible(own != nullptr);
    if (own && !ownText_->hasFocus()) ownText_->setText(QString::fromStdString(own->text));
    if (!there) {
        say(*title_, {});
        say(*takes_, {});
        say(*why_, {});
        say(*caution_, {});
        checks_->hide();
        return;
    }
    const Step &step = plan.steps[std::size_t(at)];
    say(*title_, tr("%1. %2").arg(at + 1).arg(words(wordStep(build, step))));
    QStringList takes;
    constexpr int kMostLines = 6;
    for (const auto &line : wordTakes(build, document_.analysis().derived, step)) takes << words(line);
    if (takes.size() > kMostLines) {
        const auto more = takes.size() - kMostLines + 1;
        takes = takes.mid(0, kMostLines - 1);
        takes << tr("and %1 more").arg(more);
    }
    say(*takes_, takes.join('\n'));
    QStringList why;
    for (const auto &line : wordWhyHere(build, plan, std::size_t(at))) why << words(line);
    say(*why_, why.isEmpty() ? QString() : tr("Here %1").arg(why.join(QStringLiteral("; "))));
    say(*caution_, words(wordCaution(build, step)));
    checks_->setVisible(step.kind == OperationKind::check);
    tick_->setText(stateOf(build, step) == StepState::done ? tr("Not done") : tr("Done"));
}

void StepsPage::fit() {
    if (drawings_->currentWidget() == drawing_)
        drawing_->fit();
    else
        inSpace_->fit();
}

void StepsPage::tick(int at) {
    const auto &steps = source_.plan().steps;
    if (at < 0 || at >= int(steps.size())) return;
    const Step step = steps[std::size_t(at)];
    if (step.kind == OperationKind::takeDown) {
        // What came off is not done any more, and with that there is nothing left to take down.
        document_.edit(tr("Taken down"), untickSteps(document_.build(), step.off));
        return;
    }
    if (stateOf(document_.build(), step) == StepState::done) {
        std::vector<std::string> ids;
        for (const auto &does : step.does) ids.push_back(does.step);
        document_.edit(tr("Untick a step"), untickSteps(document_.build(), ids));
        return;
    }
    std::vector<StepTick> ticks = step.does;
    for (auto &does : ticks) does.at = now();
    if (!document_.edit(tr("Tick a step"), tickSteps(document_.build(), ticks))) return;
    const int next = std::min(at + 1, int(source_.plan().steps.size()) - 1);
    list_->choose(next);
    emit list_->picked(next);
}

std::vector<OwnOrder> StepsPage::wishes(int step, int before, const std::string &note) const {
    const auto &steps = source_.plan().steps;
    std::vector<OwnOrder> all;
    const Step &moved = steps[std::size_t(step)];
    if (before < step) { // up: each of it before the first of the other
        for (const auto &does : moved.does)
            all.push_back({does.step, steps[std::size_t(before)].does.front().step, note});
    } else { // down: after the last of the one that it follows then
        const Step &last = steps[std::size_t(before - 1)];
        for (const auto &does : moved.does) all.push_back({last.does.back().step, does.step, note});
    }
    return all;
}

void StepsPage::order(int step, int before) {
    const AssemblyPlan &plan = source_.plan();
    if (source_.isStale() || step < 0 || step >= int(plan.steps.size())) return;
    const Sentence against =
        before < step ? wordWhyNotBefore(document_.build(), plan, std::size_t(step), std::size_t(before))
                      : wordWhyNotBefore(document_.build(), plan, std::size_t(before - 1), std::size_t(step));
    if (against.pattern.empty()) {
        against_->hide();
        list_->choose(step);
        document_.edit(tr("Another order"), wantOrder(document_.build(), wishes(step, before, {})));
        return;
    }
    wantedStep_ = step;
    wantedBefore_ = before;
    reason_->setText(tr("It stays where it is: %1.").arg(words(against)));
    note_->clear();
    against_->show();
}

} // namespace waxis::assembly
