#include "app/shell/lesson.h"

#include "core/edits/furnish_stack.h"
#include "core/placing/usual_hold.h"
#include "core/rules/rule.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <algorithm>

namespace waxis::app {

namespace {

QString say(const char *text) { return LessonStrip::tr(text); }

int countOf(const Build &build, auto &&is) {
    return int(std::count_if(build.parts.begin(), build.parts.end(), [&](const Part &part) {
        const PartType *type = typeOf(build, part);
        return type && is(*type);
    }));
}

auto has(PartKind kind, int pieces = 1) {
    return [kind, pieces](const Build &build, const Analysis &, Stage) {
        return countOf(build, [&](const PartType &t) { return t.kind == kind; }) >= pieces;
    };
}

int stops(const Analysis &analysis, std::optional<Stage> stage = {}) {
    return int(std::count_if(analysis.findings.begin(), analysis.findings.end(), [&](const Finding &f) {
        return f.severity == Severity::stop && !f.accepted() && (!stage || ruleOf(f.rule).stage == *stage);
    }));
}

} // namespace

std::vector<LessonStep> firstBuildSteps() {
    return {
        {say("A 5-inch frame lies on the mat. Look at its gaps, then press F3 to place parts."),
         [](const Build &, const Analysis &, Stage stage) { return stage == Stage::place; }},
        {say("The parts lie beside the mat (Ctrl+L). Type “motor 2207” and press Enter: all four mounts are seated."),
         has(PartKind::motor, 4)},
        {say("Type “prop 5 three” and press Enter: a propeller on every motor, in the hand that it wants."),
         has(PartKind::propeller, 4)},
        {say("Type “nut m5 flanged” and press Enter: what holds the propellers."),
         [](const Build &build, const Analysis &, Stage) {
             return countOf(build, [](const PartType &t) { return isPropellerNut(t); }) >= 4;
         }},
        {say("Type “four-in-one 55 A” and press Enter: the speed controller on the middle pattern."),
         has(PartKind::fourInOneEsc)},
        {say("Type “C7 controller” and press Enter: it goes on top, the two are a stack now."),
         has(PartKind::flightController)},
        {say("Press F4 and then “Fit it out”: dampers, spacers, nuts and the screws that reach."),
         [](const Build &build, const Analysis &, Stage) {
             return !build.stacks.empty() && !lacksHardware(build, build.stacks.front().id);
         }},
        {say("Back to F3. Type “4S 1300” and press Enter: the pack under its strap."), has(PartKind::battery)},
        {say("Type “60 A plug” and press Enter, then “cap 1000 35” and Enter: plug and capacitor at the tail."),
         [](const Build &build, const Analysis &analysis, Stage stage) {
             return has(PartKind::powerPlug)(build, analysis, stage) &&
                    has(PartKind::capacitor)(build, analysis, stage);
         }},
        {say("Type “14 mm camera” and press Enter: it hangs between two cheeks in the cage."),
         has(PartKind::flightCamera)},
        {say("Type “vtx 400 mW” and press Enter: the video transmitter."), has(PartKind::videoTransmitter)},
        {say("Type “868 tiny” and press Enter: the control receiver."), has(PartKind::receiver)},
        {say("Type “868 whip” and Enter, then “5.8 stub” and Enter: an antenna for each radio. Never power a "
             "transmitter without its antenna."),
         has(PartKind::antenna, 2)},
        {say("Press F5 and then “Join what fits”: plus, minus, motors, camera and radios are wired."),
         [](const Build &build, const Analysis &, Stage) { return build.wires.size() >= 8; }},
        {say("Work through the stops that are left: each says why, and offers what mends it."),
         [](const Build &, const Analysis &analysis, Stage) { return stops(analysis) == 0; }},
        {say("Keep the build with Ctrl+S. Propellers off on the bench; first power through a current limit."),
         [](const Build &, const Analysis &, Stage) { return false; }},
    };
}

LessonStrip::LessonStrip(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("lesson");
    setAccessibleName(tr("Lesson"));
    words_ = new QLabel;
    words_->setWordWrap(true);
    words_->setTextFormat(Qt::RichText);
    next_ = new QPushButton(tr("Next"));
    next_->setObjectName("lesson-next");
    next_->setToolTip(tr("Goes on without this step"));
    leave_ = new QPushButton(tr("Leave it"));
    leave_->setObjectName("lesson-leave");
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(16, 6, 12, 6);
    row->setSpacing(8);
    row->addWidget(words_, 1);
    row->addWidget(next_);
    row->addWidget(leave_);
    hide();
    connect(leave_, &QPushButton::clicked, this, [this] {
        hide();
        steps_.clear();
        emit left();
    });
    connect(next_, &QPushButton::clicked, this, [this] {
        step_ = std::min(step_ + 1, steps());
        look();
    });
    connect(&document_, &Document::changed, this, [this] {
        if (!document_.isPreviewing()) look();
    });
    connect(&document_, &Document::judged, this, &LessonStrip::look);
    connect(&theme_, &theme::Theme::changed, this, &LessonStrip::look);
}

void LessonStrip::begin(const QString &title, std::vector<LessonStep> steps) {
    title_ = title;
    steps_ = std::move(steps);
    step_ = 0;
    show();
    look();
}

void LessonStrip::setStage(Stage stage) {
    stage_ = stage;
    look();
}

QString LessonStrip::text() const {
    return step_ < steps() ? steps_[std::size_t(step_)].says : tr("Done. The next build is your own.");
}

void LessonStrip::look() {
    if (steps_.empty()) return;
    while (step_ < steps() && steps_[std::size_t(step_)].done(document_.build(), document_.analysis(), stage_)) ++step_;
    const auto &c = theme_.colors();
    words_->setText(
        QStringLiteral("<span style='color:%1'><b>%2</b></span>&nbsp;&nbsp;<span style='color:%3'>%4</span>")
            .arg(c.thrustAxis.name(), tr("%1 %2 of %3").arg(title_).arg(std::min(step_ + 1, steps())).arg(steps()),
                 c.chalk.name(), text().toHtmlEscaped()));
    next_->setVisible(step_ < steps());
    setAccessibleDescription(text());
}

void LessonStrip::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.fillRect(rect(), theme_.colors().matGridStrong);
}

} // namespace waxis::app
