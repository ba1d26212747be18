#include "app/stages/place/solid_pane.h"

#include "app/drawing/gl_guard.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QSlider>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::place {

SolidPane::SolidPane(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    auto *layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    message_ = new QLabel;
    message_->setObjectName("no-solid");
    message_->setAlignment(Qt::AlignCenter);
    message_->setWordWrap(true);
    message_->hide();
    layout->addWidget(message_);
    theme_.dress(*this, theme::Ground::mat);
}

QWidget *SolidPane::makeTools() {
    auto *tools = new QWidget;
    auto *row = new QHBoxLayout(tools);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(8);
    auto chip = [&](const QString &text, const QString &name, const QString &tip, bool on) {
        auto *button = new QToolButton;
        button->setText(text);
        button->setObjectName(name);
        button->setToolTip(tip);
        button->setAccessibleName(text);
        button->setCheckable(true);
        button->setChecked(on);
        row->addWidget(button);
        return button;
    };
    plates_ = chip(tr("Ghost frame"), "ghost-frame", tr("Plates and arms let light through"), false);
    discs_ = chip(tr("Discs"), "solid-discs", tr("Propeller discs"), true);
    cut_ = chip(tr("Cut"), "solid-cut", tr("Takes away everything to one side of a plane"), false);
    axis_ = new QToolButton;
    axis_->setObjectName("solid-cut-axis");
    axis_->setToolTip(tr("Which way the plane stands"));
    row->addWidget(axis_);
    at_ = new QSlider(Qt::Horizontal);
    at_->setObjectName("solid-cut-at");
    at_->setAccessibleName(tr("Where the plane cuts, mm"));
    at_->setFixedWidth(120);
    at_->setRange(-200, 200);
    row->addWidget(at_);
    auto looks = [this] {
        if (view_) view_->setLooks({plates_->isChecked(), discs_->isChecked()});
    };
    connect(plates_, &QToolButton::toggled, this, looks);
    connect(discs_, &QToolButton::toggled, this, looks);
    connect(cut_, &QToolButton::toggled, this, &SolidPane::applyCut);
    connect(at_, &QSlider::valueChanged, this, &SolidPane::applyCut);
    connect(axis_, &QToolButton::clicked, this, [this] {
        cutAxis_ = (cutAxis_ + 1) % 3;
        applyCut();
    });
    applyCut();
    return tools;
}

void SolidPane::applyCut() {
    const QString words[] = {tr("across"), tr("lengthways"), tr("level")};
    axis_->setText(words[cutAxis_]);
    axis_->setEnabled(cut_->isChecked());
    at_->setEnabled(cut_->isChecked());
    at_->setToolTip(tr("%1 mm").arg(at_->value()));
    if (view_)
        view_->setCut(cut_->isChecked() ? std::optional(drawing::CutAway{cutAxis_, double(at_->value())})
                                        : std::nullopt);
}

void SolidPane::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    if (view_ || !message_->text().isEmpty()) return;
    if (const QString &why = drawing::whyNoSolidView(); !why.isEmpty()) {
        message_->setText(
            tr("No three-dimensional view here: %1.\nEverything else works; Side and Front show the same craft.")
                .arg(why));
        message_->show();
        return;
    }
    view_ = new drawing::SolidView(document_, theme_);
    layout()->addWidget(view_);
    view_->setLooks({plates_->isChecked(), discs_->isChecked()});
    applyCut();
}

} // namespace waxis::place
