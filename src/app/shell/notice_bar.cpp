#include "app/shell/notice_bar.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTimer>

namespace waxis::app {

NoticeBar::NoticeBar(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme), label_(new QLabel) {
    label_->setWordWrap(true);
    label_->setTextFormat(Qt::PlainText);
    label_->setObjectName("notice");
    auto *row = new QHBoxLayout(this);
    row->setContentsMargins(36, 6, 12, 6);
    row->addWidget(label_, 1);
    buttons_ = new QHBoxLayout;
    row->addLayout(buttons_);
    hide();
}

QString NoticeBar::text() const { return isHidden() ? QString() : label_->text(); }

void NoticeBar::say(const QString &text, Severity severity, std::vector<NoticeChoice> choices, int seconds) {
    severity_ = severity;
    label_->setText(text);
    while (auto *item = buttons_->takeAt(0)) {
        item->widget()->deleteLater();
        delete item;
    }
    choices.push_back({tr("Close"), [] {}});
    for (auto &choice : choices) {
        auto *button = new QPushButton(choice.text);
        connect(button, &QPushButton::clicked, this, [this, run = choice.run] {
            hide();
            run();
        });
        buttons_->addWidget(button);
    }
    show();
    update();
    const int turn = ++turn_;
    if (seconds > 0)
        QTimer::singleShot(seconds * 1000, this, [this, turn] {
            if (turn == turn_) hide();
        });
}

void NoticeBar::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    const auto &c = theme_.colors();
    painter.fillRect(rect(), c.panel);
    theme::drawSeverityMark(painter, QPointF(20, height() / 2.0), 6, severity_, c.severity(severity_));
    painter.setPen(c.rule);
    painter.drawLine(rect().bottomLeft(), rect().bottomRight());
}

} // namespace waxis::app
