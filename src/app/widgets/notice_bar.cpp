#include "app/widgets/notice_bar.h"

#include <QEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTimer>
#include <algorithm>

namespace waxis::app {

NoticeBar::NoticeBar(const theme::Theme &theme, QWidget *over) : QWidget(over), theme_(theme), label_(new QLabel) {
    over->installEventFilter(this);
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
    place();
    show();
    raise();
    update();
    const int turn = ++turn_;
    if (seconds > 0)
        QTimer::singleShot(seconds * 1000, this, [this, turn] {
            if (turn == turn_) hide();
        });
}

void NoticeBar::place() {
    const QWidget *over = parentWidget();
    layout()->activate();
    const int height = std::max(layout()->sizeHint().height(), layout()->heightForWidth(over->width()));
    setGeometry(0, over->height() - height, over->width(), height);
}

bool NoticeBar::eventFilter(QObject *watched, QEvent *event) {
    if (watched == parentWidget() && event->type() == QEvent::Resize && !isHidden()) place();
    return QWidget::eventFilter(watched, event);
}

void NoticeBar::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    const auto &c = theme_.colors();
    painter.fillRect(rect(), c.panel);
    theme::drawSeverityMark(painter, QPointF(20, height() / 2.0), 6, severity_, c.severity(severity_));
    painter.setPen(c.rule);
    painter.drawLine(rect().topLeft(), rect().topRight());
}

} // namespace waxis::app
