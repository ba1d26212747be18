#include "app/widgets/card.h"

#include "app/theme/look.h"

#include "app/theme/metrics.h"

#include <QFontMetrics>
#include <QLabel>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

namespace waxis::theme {

namespace {
constexpr int kMarkWidth = 18, kPad = 6;
}

Card::Card(const theme::Theme &theme, const QString &title, QWidget *parent) : QFrame(parent), theme_(theme) {
    setObjectName("card");
    body_ = new QVBoxLayout(this);
    body_->setContentsMargins(10, 8, 10, 8);
    body_->setSpacing(3);
    title_ = new QLabel(title);
    title_->setFont(theme.text(theme::kTextPixels, true));
    title_->setWordWrap(true);
    title_->setVisible(!title.isEmpty());
    body_->addWidget(title_);
    theme.dress(*this, Ground::card);
    setAutoFillBackground(false); // its corners are round
}

void Card::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    drawCard(painter, *this);
}

void Card::setTitle(const QString &title) { title_->setText(title); }

QLabel *Card::addNote() {
    auto *note = new QLabel;
    note->setObjectName("note");
    note->setForegroundRole(QPalette::PlaceholderText);
    note->setFont(theme_.text(theme::kSmallPixels));
    note->setWordWrap(true);
    body_->addWidget(note);
    return note;
}

ChoiceRow::ChoiceRow(const theme::Theme &theme, QWidget *parent) : QAbstractButton(parent), theme_(theme) {
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void ChoiceRow::show(const Look &look) {
    setVisible(true);
    if (look == look_) return;
    look_ = look;
    setAccessibleName(look.lead + ' ' + look.text + (look.act.isEmpty() ? QString() : ", " + look.act));
    setText(look.lead);
    setFixedHeight(heightFor(width()));
    update();
}

QRect ChoiceRow::textBox(int width) const {
    const int act = look_.act.isEmpty() ? 0 : QFontMetrics(theme_.text(11, true)).horizontalAdvance(look_.act) + 6;
    const int left = kPad + (look_.lead.isEmpty() ? 0 : lead_);
    const int right = kPad + act + (look_.mark ? kMarkWidth : 0);
    const QRect room(left, 3, std::max(20, width - left - right), 1000);
    return QFontMetrics(theme_.text(11)).boundingRect(room, Qt::TextWordWrap, look_.text);
}

QSize ChoiceRow::sizeHint() const { return {200, heightFor(width())}; }

void ChoiceRow::resizeEvent(QResizeEvent *) { setFixedHeight(heightFor(width())); }

int ChoiceRow::heightFor(int width) const { return std::max(22, textBox(width).height() + 6); }

void ChoiceRow::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    if (look_.chosen || underMouse()) {
        painter.setPen(Qt::NoPen);
        QColor ground = c.matGridStrong;
        if (!look_.chosen) ground.setAlphaF(0.5f);
        painter.setBrush(ground);
        painter.drawRoundedRect(rect(), 3, 3);
    }
    if (hasFocus()) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(c.thrustAxis, 1));
        painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 3, 3);
    }
    painter.setPen(c.chalk);
    painter.setFont(theme_.numbers(12));
    painter.drawText(QRect(kPad, 0, lead_, height()), Qt::AlignVCenter | Qt::AlignLeft, look_.lead);
    int right = width() - kPad;
    if (look_.mark) {
        theme::drawSeverityMark(painter, QPointF(right - 5, height() / 2.0), 5, *look_.mark,
                                theme::severityOnMat(*look_.mark));
        right -= kMarkWidth;
    }
    if (!look_.act.isEmpty()) {
        painter.setFont(theme_.text(11, true));
        painter.setPen(c.thrustAxis);
        painter.drawText(QRect(0, 0, right, height()), Qt::AlignVCenter | Qt::AlignRight, look_.act);
    }
    painter.setFont(theme_.text(11));
    painter.setPen(look_.chosen ? c.chalk : c.softChalk);
    QRect box = textBox(width());
    box.moveTop((height() - box.height()) / 2);
    painter.drawText(box, Qt::TextWordWrap | Qt::AlignVCenter, look_.text);
}

} // namespace waxis::theme
