#include "app/stages/place/legend.h"

#include "app/drawing/pictures.h"
#include "app/theme/metrics.h"

#include <QPainter>
#include <QPainterPath>

namespace waxis::place {

using drawing::Swatch;

namespace {

constexpr int kRow_px = 17, kSwatch_px = 26, kMargin_px = 6;

void paintSwatch(QPainter &painter, Swatch swatch, const QRectF &box, const theme::Palette &c) {
    const QPointF m = box.center();
    auto pen = [&](const QColor &color, Qt::PenStyle style = Qt::SolidLine) {
        painter.setPen(QPen(color, 1.3, style));
    };
    painter.setBrush(Qt::NoBrush);
    auto veil = [](QColor color, float alpha) {
        color.setAlphaF(alpha);
        return color;
    };
    switch (swatch) {
    case Swatch::dashedRing:
        pen(c.softChalk, Qt::DashLine);
        painter.drawEllipse(m, 6, 6);
        break;
    case Swatch::findings:
        theme::drawSeverityMark(painter, m - QPointF(6, 0), 4.5, Severity::stop, theme::severityOnMat(Severity::stop));
        theme::drawSeverityMark(painter, m + QPointF(6, 0), 4.5, Severity::watch,
                                theme::severityOnMat(Severity::watch));
        break;
    case Swatch::dot:
        painter.setPen(Qt::NoPen);
        painter.setBrush(veil(c.plumb, 0.55f));
        painter.drawEllipse(m, 5, 5);
        break;
    case Swatch::arrow:
        pen(c.chalk);
        painter.drawPath(drawing::arrowPath(m - QPointF(8, 0), m + QPointF(8, 0), 5));
        break;
    case Swatch::cone:
        pen(theme::familyColor(Family::imaging));
        painter.setBrush(veil(theme::familyColor(Family::imaging), 0.25f));
        painter.drawPolygon(QPolygonF{m - QPointF(8, 0), m + QPointF(8, -6), m + QPointF(8, 6)});
        break;
    case Swatch::rose:
        pen(theme::familyColor(Family::sensing));
        painter.setBrush(veil(theme::familyColor(Family::sensing), 0.25f));
        painter.drawPie(QRectF(m - QPointF(7, 7), QSizeF(14, 14)), 30 * 16, 300 * 16);
        break;
    case Swatch::corridor:
        pen(c.softChalk, Qt::DotLine);
        painter.setBrush(veil(c.softChalk, 0.2f));
        painter.drawRect(QRectF(m - QPointF(8, 4), QSizeF(16, 8)));
        break;
    case Swatch::strands:
        for (const auto &[family, y] :
             {std::pair{Family::power, -3.0}, std::pair{Family::sensing, 0.0}, std::pair{Family::radio, 3.0}}) {
            pen(theme::familyColor(family));
            painter.drawLine(m + QPointF(-9, y), m + QPointF(9, y));
        }
        break;
    case Swatch::dashDot:
        pen(c.chalk, Qt::DashDotLine);
        painter.drawLine(m - QPointF(11, 0), m + QPointF(11, 0));
        break;
    }
}

} // namespace

Legend::Legend(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    setAttribute(Qt::WA_TransparentForMouseEvents);
    setObjectName("legend");
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

QStringList Legend::lines() const {
    QStringList lines;
    for (const auto &overlay : drawing::kOverlays)
        if (overlays_.*overlay.shown) lines << drawing::overlayText(overlay.brief);
    return lines;
}

void Legend::show(const drawing::Overlays &overlays) {
    overlays_ = overlays;
    const QStringList texts = lines();
    const QFontMetrics metrics(theme_.text(theme::kSmallPixels));
    int widest = 0;
    for (const auto &text : texts) widest = std::max(widest, metrics.horizontalAdvance(text));
    resize(widest + kSwatch_px + 16 + 2 * kMargin_px + 6, int(texts.size()) * kRow_px + 2 * kMargin_px);
    setVisible(!texts.isEmpty());
    setAccessibleName(texts.join("; "));
    update();
}

void Legend::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    QColor ground = c.matBar;
    ground.setAlphaF(0.82f);
    painter.setPen(Qt::NoPen);
    painter.setBrush(ground);
    painter.drawRoundedRect(rect(), theme::kCorner, theme::kCorner);
    int y = kMargin_px;
    for (const auto &overlay : drawing::kOverlays) {
        if (!(overlays_.*overlay.shown)) continue;
        painter.setFont(theme_.numbers(theme::kSmallPixels));
        painter.setPen(c.softChalk);
        painter.drawText(QRect(kMargin_px, y, 10, kRow_px), Qt::AlignCenter, QString::number(overlay.key));
        paintSwatch(painter, overlay.swatch, QRectF(kMargin_px + 12, y, kSwatch_px, kRow_px), c);
        painter.setFont(theme_.text(theme::kSmallPixels));
        painter.setPen(c.chalk);
        painter.drawText(QRect(kMargin_px + kSwatch_px + 16, y, width(), kRow_px), Qt::AlignVCenter | Qt::AlignLeft,
                         drawing::overlayText(overlay.brief));
        y += kRow_px;
    }
}

} // namespace waxis::place
