#include "app/stages/place/height_ladder.h"

#include "app/theme/metrics.h"

#include <QPainter>

namespace waxis::place {

namespace {
constexpr int kRow = 19, kEdge = 10, kMark = 14;
}

HeightLadder::HeightLadder(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    setObjectName("height-ladder");
    setAttribute(Qt::WA_TransparentForMouseEvents);
    hide();
}

void HeightLadder::show(const QString &title, const QStringList &rungs, int rung, const QPoint &beside) {
    title_ = title;
    rungs_ = rungs;
    rung_ = rung;
    if (rungs.isEmpty()) {
        hide();
        return;
    }
    const QFontMetrics words(theme_.text(theme::kSmallPixels + 1, true));
    int wide = words.horizontalAdvance(title);
    for (const auto &text : rungs) wide = std::max(wide, words.horizontalAdvance(text) + kMark);
    resize(wide + 2 * kEdge, int(rungs.size() + 2) * kRow + kEdge);
    // Beside the pointer, away from the edges of the drawing.
    constexpr int kAway = 28;
    QPoint at = beside + QPoint(kAway, kAway);
    if (parentWidget()) {
        const QRect room = parentWidget()->rect().adjusted(4, 4, -4, -4);
        if (at.x() + width() > room.right()) at.setX(beside.x() - kAway - width());
        if (at.y() + height() > room.bottom()) at.setY(room.bottom() - height());
        at.setX(std::max(at.x(), room.left()));
        at.setY(std::max(at.y(), room.top()));
    }
    move(at);
    setAccessibleName(tr("%1: %2").arg(title, rungs.value(rung)));
    QWidget::show();
    raise();
    update();
}

void HeightLadder::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    painter.setPen(c.matGridStrong);
    painter.setBrush(c.matBar);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), theme::kCorner, theme::kCorner);
    int y = kEdge / 2;
    const auto row = [&] {
        const QRect line(kEdge, y, width() - 2 * kEdge, kRow);
        y += kRow;
        return line;
    };
    painter.setPen(c.softChalk);
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.drawText(row(), Qt::AlignVCenter, title_);
    for (qsizetype i = 0; i < rungs_.size(); ++i) {
        const QRect line = row();
        const bool chosen = i == rung_;
        const QPointF dot(line.left() + 4, line.center().y() + 0.5);
        painter.setPen(QPen(chosen ? c.thrustAxis : c.softChalk, 1.2));
        painter.setBrush(chosen ? QBrush(c.thrustAxis) : QBrush(Qt::NoBrush));
        painter.drawEllipse(dot, 3.5, 3.5);
        painter.setPen(chosen ? c.chalk : c.softChalk);
        painter.setFont(theme_.text(theme::kSmallPixels + 1, chosen));
        painter.drawText(line.adjusted(kMark, 0, 0, 0), Qt::AlignVCenter, rungs_[i]);
    }
    painter.setPen(c.softChalk);
    painter.setFont(theme_.text(theme::kSmallPixels - 1));
    painter.drawText(row(), Qt::AlignVCenter, tr("wheel or PgUp, PgDn"));
}

} // namespace waxis::place
