#include "app/stages/balance/bar_list.h"

#include "app/theme/metrics.h"
#include "app/widgets/tips.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>

namespace waxis::balance {

namespace {
constexpr int kRow_px = 18;
}

BarList::BarList(const theme::Theme &theme, const QString &accessibleName, QWidget *parent)
    : QWidget(parent), theme_(theme) {
    setAccessibleName(accessibleName);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    setMouseTracking(true);
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

void BarList::show(std::vector<Bar> bars, std::optional<double> mark) {
    const bool other = bars.size() != bars_.size();
    bars_ = std::move(bars);
    mark_ = mark;
    QStringList spoken;
    for (const auto &bar : bars_) spoken << bar.name + QStringLiteral(" ") + bar.figures;
    setAccessibleDescription(spoken.join(QStringLiteral(", ")));
    if (other) updateGeometry();
    update();
}

QSize BarList::sizeHint() const { return {260, int(std::max<std::size_t>(1, bars_.size())) * kRow_px + 2}; }

int BarList::rowAt(const QPointF &at) const {
    const int row = int(at.y()) / kRow_px;
    return row >= 0 && row < int(bars_.size()) ? row : -1;
}

void BarList::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    const QFont words = theme_.text(theme::kSmallPixels), figures = theme_.numbers(theme::kSmallPixels);
    int nameWidth = 40, figureWidth = 20;
    double most = mark_.value_or(0);
    for (const auto &bar : bars_) {
        nameWidth = std::max(nameWidth, QFontMetrics(words).horizontalAdvance(bar.name) + 3);
        figureWidth = std::max(figureWidth, QFontMetrics(figures).horizontalAdvance(bar.figures));
        most = std::max({most, bar.length, bar.limit.value_or(0)});
    }
    nameWidth = std::min(nameWidth, width() * 45 / 100);
    const double left = nameWidth + 10, right = width() - figureWidth - 8;
    if (!(most > 0) || right <= left) return;
    const double scale = (right - left) / most;
    for (std::size_t i = 0; i < bars_.size(); ++i) {
        const Bar &bar = bars_[i];
        const double y = double(i) * kRow_px;
        painter.setFont(words);
        painter.setPen(c.softChalk);
        painter.drawText(QRectF(0, y, nameWidth, kRow_px), Qt::AlignVCenter | Qt::AlignLeft,
                         QFontMetrics(words).elidedText(bar.name, Qt::ElideRight, nameWidth));
        if (bar.limit) {
            painter.setPen(QPen(c.matGridStrong, 1));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(QRectF(left, y + 4.5, *bar.limit * scale, kRow_px - 9));
        }
        painter.setPen(Qt::NoPen);
        painter.setBrush(bar.color);
        painter.drawRect(QRectF(left, y + 4, std::max(0.0, bar.length) * scale, kRow_px - 8));
        painter.setFont(figures);
        painter.setPen(c.chalk);
        painter.drawText(QRectF(right, y, width() - right, kRow_px), Qt::AlignVCenter | Qt::AlignRight, bar.figures);
    }
    if (mark_) {
        painter.setPen(QPen(c.thrustAxis, 1.5));
        painter.drawLine(QPointF(left + *mark_ * scale, 0), QPointF(left + *mark_ * scale, double(height())));
    }
}

void BarList::mousePressEvent(QMouseEvent *event) {
    if (const int row = rowAt(event->position()); row >= 0 && !bars_[std::size_t(row)].id.isEmpty())
        emit chosen(bars_[std::size_t(row)].id);
}

bool BarList::event(QEvent *event) {
    return theme::showTip(event, this,
                          [this](const QPointF &at) {
                              const int row = rowAt(at);
                              return row < 0 ? QString() : bars_[std::size_t(row)].tip;
                          }) ||
           QWidget::event(event);
}

} // namespace waxis::balance
