#include "app/stages/stack/stack_canvas.h"

#include "core/stack/report.h"

#include <QFontMetricsF>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace waxis::stackbench {

void StackCanvas::paintContent(QPainter &painter) {
    const auto &c = theme().colors();
    if (!focus_.report()) {
        painter.setPen(c.softChalk);
        painter.setFont(theme().text(13));
        painter.drawText(QRectF(rect()).adjusted(40, 40, -40, -40), Qt::AlignCenter | Qt::TextWordWrap,
                         tr("No stack yet. \"+ stack\" above makes one of what stands on a hole pattern, or an empty "
                            "one to lay boards into."));
        return;
    }
    const double end = heightPixels(column_.high_mm), start = heightPixels(column_.low_mm);
    const QRectF band(toPixels(-column_.halfWidth_mm, 0).x(), std::min(end, start) - 1,
                      2 * column_.halfWidth_mm * pixelsPerMm(), std::abs(end - start) + 2);
    painter.save();
    painter.setClipRect(band);
    painter.translate(toPixels(0, 0));
    painter.scale(pixelsPerMm(), pixelsPerMm() * tall_);
    const QColor ink = theme::palette(theme::Mode::light).ink;
    for (const auto &shape : column_.shapes) {
        QPen pen(shape.cut ? ink : c.matBar, shape.cut ? 1.3 : 0.8);
        pen.setCosmetic(true);
        painter.setPen(pen);
        painter.setBrush(shape.fill);
        painter.drawPath(shape.path);
    }
    painter.restore();
    const auto texts = labels();
    paintLayers(painter, texts);
    paintRuler(painter);
    paintScrew(painter);
    paintDimensions(painter, dimensions());
    if (tall_ > 1.05) {
        painter.setFont(theme().text(kLabelFont_px));
        painter.setPen(c.softChalk);
        painter.drawText(QRectF(rect()).adjusted(8, 6, -8, -6), Qt::AlignTop | Qt::AlignRight,
                         tr("heights drawn × %1").arg(number(tall_)));
    }
}

void StackCanvas::paintLayers(QPainter &painter, const std::vector<Label> &list) {
    const auto &c = theme().colors();
    const StackReport &report = *focus_.report();
    const Stack &stack = *focus_.stack();
    const double left = toPixels(-column_.halfWidth_mm, 0).x(), right = toPixels(column_.halfWidth_mm, 0).x();
    for (const auto &label : list) {
        const LayerSpan &span = report.chain.spans[std::size_t(label.layer)];
        const LayerReport &own = report.layers[std::size_t(label.layer)];
        const double a = heightPixels(span.from_mm), b = heightPixels(span.to_mm);
        const bool chosen = label.layer == focus_.layer();
        const bool lit = std::any_of(stack.layers[std::size_t(label.layer)].parts.begin(),
                                     stack.layers[std::size_t(label.layer)].parts.end(), [&](const std::string &id) {
                                         return focus_.document().highlighted().contains(QString::fromStdString(id));
                                     });
        if (chosen || lit || label.layer == hovered_ || label.layer == held_) {
            QColor veil = c.thrustAxis;
            veil.setAlphaF(chosen ? 0.14f : 0.08f);
            painter.setBrush(veil);
            painter.setPen(QPen(chosen ? c.chalk : c.thrustAxis, 1, lit ? Qt::SolidLine : Qt::DashLine));
            painter.drawRect(QRectF(left, std::min(a, b), right - left, std::max(2.0, std::abs(a - b))));
        }
        const double y = label.box.center().y();
        painter.setPen(QPen(chosen ? c.chalk : c.matFaint, 1));
        painter.drawLine(QPointF(label.box.right() + 2, y), QPointF(left - 4, label.at_px));
        painter.drawLine(QPointF(left - 4, label.at_px), QPointF(left, label.at_px));
        painter.setFont(theme().text(kLabelFont_px, chosen));
        painter.setPen(!own.held ? theme::severityOnMat(Severity::stop) : chosen ? c.chalk : c.softChalk);
        const QString text = QFontMetricsF(painter.font()).elidedText(label.text, Qt::ElideMiddle, label.box.width());
        painter.drawText(label.box, Qt::AlignVCenter | Qt::AlignRight, text);
    }
}

void StackCanvas::paintDimensions(QPainter &painter, const std::vector<Dimension> &list) {
    const auto &c = theme().colors();
    painter.setFont(theme().numbers(11));
    for (const auto &d : list) {
        const QColor ink = d.severity == Severity::pass ? c.chalk : theme::severityOnMat(d.severity);
        const bool chosen = d.gap >= 0 && d.gap == focus_.gap();
        painter.setPen(QPen(ink, chosen ? 2 : 1.2));
        painter.drawLine(d.low, d.high);
        for (const QPointF &end : {d.low, d.high}) painter.drawLine(end - QPointF(5, 0), end + QPointF(5, 0));
        drawing::paintTag(painter, d.box.center(), d.text, ink, c);
    }
}

void StackCanvas::paintRuler(QPainter &painter) {
    const StackReport &report = *focus_.report();
    const auto &c = theme().colors();
    const double x = toPixels(column_.halfWidth_mm, 0).x() + 14;
    const bool plate = !report.plateAbove.empty();
    const double top = plate ? report.plateAbove_mm : std::max(report.chain.top_mm, 5.0);
    const double used = plate ? top - report.closest.gap_mm : report.chain.top_mm;
    constexpr double kWide = 9;
    auto bar = [&](double from, double to) {
        const double a = heightPixels(from), b = heightPixels(to);
        return QRectF(x, std::min(a, b), kWide, std::abs(a - b));
    };
    painter.setPen(QPen(c.softChalk, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(bar(0, top));
    QColor fill = used > top ? theme::severityOnMat(Severity::stop) : c.thrustAxis;
    fill.setAlphaF(0.55f);
    painter.fillRect(bar(0, used), fill);
    painter.setFont(theme().numbers(9));
    for (int mm = 0; mm <= int(std::floor(std::max(top, used) + 1e-6)); ++mm) {
        const bool strong = mm % 5 == 0;
        const double y = heightPixels(mm);
        painter.setPen(QPen(c.softChalk, 1));
        painter.drawLine(QPointF(x + kWide, y), QPointF(x + kWide + (strong ? 6 : 3), y));
        if (strong) painter.drawText(QRectF(x + kWide + 8, y - 7, 24, 14), Qt::AlignVCenter, QString::number(mm));
    }
    if (!plate) return;
    // Likely and worst case round the tallest point.
    const double likely = report.closing.likely_mm, worst = report.closing.nominal_mm - report.closing.worst_mm;
    QColor band = c.chalk;
    band.setAlphaF(0.35f);
    painter.fillRect(bar(used - likely, used + likely).adjusted(-4, 0, 4, 0), band);
    painter.setPen(QPen(c.chalk, 1, Qt::DotLine));
    for (double h : {used - worst, used + worst}) {
        const double y = heightPixels(h);
        painter.drawLine(QPointF(x - 5, y), QPointF(x + kWide + 5, y));
    }
}

void StackCanvas::paintScrew(QPainter &painter) {
    const StackReport &report = *focus_.report();
    const ScrewReport &screw = report.screw;
    if (!screw.wanted || !screw.task.thread || tight()) return;
    const bool outside = focus_.stack()->headsOutside;
    DrawnScrew drawn;
    drawn.x = toPixels(column_.halfWidth_mm, 0).x() + 64;
    drawn.dir = outside ? -1 : 1;
    drawn.head = outside ? report.chain.top_mm : report.chain.bottom_mm;
    drawn.length = screw.placed ? screw.placed->length_mm : screw.choice.best_mm.value_or(0);
    if (drawn.length <= 0) return;
    drawn.style = screw.placed ? screw.placed->head : HeadStyle::cap;
    drawn.size = headOf(*screw.task.thread, drawn.style)
                     .value_or(HeadSize{screw.task.thread->capHead_mm, screw.task.thread->nominal_mm});
    drawn.radius = screw.task.thread->nominal_mm / 2 * pixelsPerMm();
    paintScrewShape(painter, screw, drawn);
    paintScrewWords(painter, screw, drawn);
}

QRectF StackCanvas::boxOf(const DrawnScrew &drawn, double from, double to, double half) const {
    const double a = heightPixels(drawn.head + drawn.dir * from), b = heightPixels(drawn.head + drawn.dir * to);
    return QRectF(drawn.x - half, std::min(a, b), 2 * half, std::abs(a - b));
}

/// It and its nut; dashed, what is missing of its length.
void StackCanvas::paintScrewShape(QPainter &painter, const ScrewReport &screw, const DrawnScrew &drawn) {
    const auto &c = theme().colors();
    const double mm = pixelsPerMm();
    const double least = screw.choice.least_mm, grip = screw.task.grip_mm,
                 end = screw.task.nut ? screw.task.nut_mm : screw.task.depth_mm;
    QColor metal = theme::familyColor(Family::structure).lighter(150);
    painter.setPen(QPen(c.matBar, 1));
    painter.setBrush(metal);
    if (drawn.style == HeadStyle::countersunk)
        painter.drawPolygon(
            QPolygonF{QPointF(drawn.x - drawn.size.diameter_mm / 2 * mm, heightPixels(drawn.head)),
                      QPointF(drawn.x + drawn.size.diameter_mm / 2 * mm, heightPixels(drawn.head)),
                      QPointF(drawn.x + drawn.radius, heightPixels(drawn.head + drawn.dir * drawn.size.height_mm)),
                      QPointF(drawn.x - drawn.radius, heightPixels(drawn.head + drawn.dir * drawn.size.height_mm))});
    else
        painter.drawRoundedRect(boxOf(drawn, -drawn.size.height_mm, 0, drawn.size.diameter_mm / 2 * mm), 2, 2);
    QColor nut = theme::familyColor(Family::structure);
    painter.setBrush(nut);
    if (screw.task.nut && !screw.endMissing)
        painter.drawRect(boxOf(drawn, grip, grip + end, screw.task.thread->nutFlats_mm / 2 * mm));
    painter.setBrush(metal);
    const QRectF shaft = boxOf(drawn, 0, drawn.length, drawn.radius);
    painter.drawRect(shaft);
    painter.setPen(QPen(c.matFaint, 1));
    const double pitch = std::max(3.0, screw.task.thread->pitch_mm * mm * 2);
    for (double y = shaft.top() + pitch; y < shaft.bottom(); y += pitch)
        painter.drawLine(QPointF(shaft.left(), y), QPointF(shaft.right(), y - 1.5));
    if (drawn.length < least - 1e-6) { // what is missing
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme::severityOnMat(Severity::stop), 1.3, Qt::DashLine));
        painter.drawRect(boxOf(drawn, drawn.length, least, drawn.radius));
    }
}

/// Brackets at its right: what it goes through, the nut; what it is and what stands out beyond the last of them.
void StackCanvas::paintScrewWords(QPainter &painter, const ScrewReport &screw, const DrawnScrew &drawn) {
    const auto &c = theme().colors();
    const double mm = pixelsPerMm(), least = screw.choice.least_mm;
    const double grip = screw.task.grip_mm, end = screw.task.nut ? screw.task.nut_mm : screw.task.depth_mm;
    const bool bad = screw.now && screw.now->verdict != ScrewVerdict::good && screw.now->verdict != ScrewVerdict::long_;
    painter.setFont(theme().numbers(10));
    const double bx = drawn.x + std::max(drawn.size.diameter_mm / 2 * mm, drawn.radius) + 6;
    auto bracket = [&](double from, double to, const QString &text, const QColor &ink) {
        const double a = heightPixels(drawn.head + drawn.dir * from), b = heightPixels(drawn.head + drawn.dir * to);
        painter.setPen(QPen(ink, 1));
        painter.drawLine(QPointF(bx, a), QPointF(bx, b));
        painter.drawLine(QPointF(bx - 3, a), QPointF(bx + 1, a));
        painter.drawLine(QPointF(bx - 3, b), QPointF(bx + 1, b));
        painter.drawText(QRectF(bx + 5, (a + b) / 2 - 8, std::max(20.0, width() - bx - 6), 16), Qt::AlignVCenter, text);
    };
    bracket(0, grip, narrow() ? number(grip) : tr("grip %1").arg(number(grip)), c.softChalk);
    if (screw.task.nut && !screw.endMissing)
        bracket(grip, grip + end, narrow() ? number(end) : tr("nut %1").arg(number(end)), c.softChalk);
    const double past = drawn.length - grip - (screw.task.nut ? end : 0);
    const QColor ink = bad ? theme::severityOnMat(Severity::stop) : c.chalk;
    const double tip = heightPixels(drawn.head + drawn.dir * std::max(drawn.length, grip + (screw.task.nut ? end : 0)));
    const bool upwards = column_.up * drawn.dir > 0;
    const QString says = drawn.length < least - 1e-6 ? tr("%1 short").arg(number(least - drawn.length))
                         : screw.task.nut            ? tr("%1 past").arg(number(past))
                                                     : tr("%1 in").arg(number(past));
    const QString name =
        QStringLiteral("%1 × %2")
            .arg(QString::fromUtf8(screw.task.thread->name.data(), qsizetype(screw.task.thread->name.size())))
            .arg(drawn.length);
    const double y = upwards ? tip - 32 : tip + 6;
    const QFontMetricsF metrics(painter.font());
    const double wide = std::max(metrics.horizontalAdvance(name), metrics.horizontalAdvance(says)) + 2;
    const double left = std::min(bx - 22, width() - wide - 4); // all of it inside
    painter.setPen(c.chalk);
    painter.drawText(QRectF(left, y, wide, 13), Qt::AlignLeft | Qt::AlignVCenter, name);
    painter.setPen(ink);
    painter.drawText(QRectF(left, y + 13, wide, 13), Qt::AlignLeft | Qt::AlignVCenter, says);
}

} // namespace waxis::stackbench
