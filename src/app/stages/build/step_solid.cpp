#include "app/stages/build/step_solid.h"

#include "app/drawing/gl_guard.h"
#include "app/stages/build/step_sight.h"

#include <QLabel>
#include <QVBoxLayout>

namespace waxis::assembly {

StepSolid::StepSolid(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("step-solid");
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    message_ = new QLabel;
    message_->setAlignment(Qt::AlignCenter);
    message_->setWordWrap(true);
    message_->hide();
    layout->addWidget(message_);
    theme_.dress(*this, theme::Ground::mat);
}

void StepSolid::show(const AssemblyPlan &plan, int at) {
    looks_ = {};
    looks_.discs = false;
    if (at >= 0 && at < int(plan.steps.size())) {
        const Step &step = plan.steps[std::size_t(at)];
        const StepSight sight = sightOf(document_.build(), plan, std::size_t(at));
        looks_.hidden = sight.hidden;
        looks_.fresh = sight.fresh;
        if (step.kind == OperationKind::fit && !step.base) looks_.way = drawing::WayIn{step.from};
    }
    apply();
}

void StepSolid::apply() {
    if (!view_ || !isVisible()) return;
    view_->setLooks(looks_);
    view_->closeUp();
}

void StepSolid::fit() {
    if (view_) view_->fit();
}

void StepSolid::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    if (!view_ && message_->text().isEmpty()) {
        if (const QString &why = drawing::whyNoSolidView(); !why.isEmpty()) {
            message_->setText(tr("No three-dimensional view here: %1.\nPlan and side show the same step.").arg(why));
            message_->show();
        } else {
            view_ = new drawing::SolidView(document_, theme_);
            view_->setObjectName("step-solid-view");
            view_->setHandsOff(true);
            layout()->addWidget(view_);
        }
    }
    apply();
}

} // namespace waxis::assembly
