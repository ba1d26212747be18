#include "app/stages/stack/closing_card.h"

#include "core/rules/wording.h"
#include "core/stack/report.h"

#include <QLabel>
#include <QPainter>
#include <QPainterPath>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::stackbench {

ClosingCurve::ClosingCurve(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), focus_(focus), theme_(theme) {
    setMinimumHeight(78);
    setAccessibleName(tr("Distribution of the room left"));
}

void ClosingCurve::paintEvent(QPaintEvent *) {
    const StackReport *report = focus_.report();
    if (!report || report->plateAbove.empty()) return;
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    const ClosingSums &sums = report->closing;
    const double sigma = std::max(sums.likely_mm / 2, 0.02);
    // From nothing to the far side of the curve; the nought is always in sight.
    const double low = std::min(-0.6, sums.worst_mm - 0.3), high = std::max(0.6, sums.best_mm + 0.3);
    const double base = height() - 18.0, left = 4, right = width() - 4.0;
    auto x = [&](double mm) { return left + (mm - low) / (high - low) * (right - left); };
    QPainterPath path(QPointF(x(low), base));
    for (double px = left; px <= right; px += 1) {
        const double mm = low + (px - left) / (right - left) * (high - low), t = (mm - sums.nominal_mm) / sigma;
        path.lineTo(px, base - (base - 8) * std::exp(-t * t / 2));
    }
    path.lineTo(x(high), base);
    QColor fill = c.thrustAxis;
    fill.setAlphaF(0.25f);
    painter.setPen(QPen(c.thrustAxis, 1.5));
    painter.setBrush(fill);
    painter.drawPath(path);
    // What does not close, filled.
    if (sums.worst_mm < 0) {
        painter.save();
        painter.setClipRect(QRectF(0, 0, x(0), base));
        QColor red = theme::severityOnMat(Severity::stop);
        red.setAlphaF(0.6f);
        painter.setBrush(red);
        painter.setPen(Qt::NoPen);
        painter.drawPath(path);
        painter.restore();
    }
    painter.setPen(QPen(c.softChalk, 1));
    painter.drawLine(QPointF(left, base), QPointF(right, base));
    painter.setPen(QPen(theme::severityOnMat(Severity::stop), 1.5));
    painter.drawLine(QPointF(x(0), 6), QPointF(x(0), base));
    painter.setPen(QPen(c.chalk, 1, Qt::DotLine));
    for (double mm : {sums.worst_mm, sums.best_mm}) painter.drawLine(QPointF(x(mm), base - 16), QPointF(x(mm), base));
    painter.setFont(theme_.numbers(10));
    painter.setPen(c.softChalk);
    const QString middle = tr("%1 ± %2").arg(number(sums.nominal_mm), number(sums.likely_mm));
    const QFontMetricsF metrics(painter.font());
    const double w = metrics.horizontalAdvance(middle);
    const double at = std::clamp(x(sums.nominal_mm) - w / 2, left, right - w);
    painter.drawText(QPointF(at, height() - 4.0), middle);
    if (std::abs(x(0) - (at + w / 2)) > w / 2 + 12)
        painter.drawText(QPointF(std::max(left, x(0) - 3), height() - 4.0), "0");
}

ClosingCard::ClosingCard(StackFocus &focus, const theme::Theme &theme, QWidget *parent)
    : theme::Card(theme, tr("Does it close?"), parent), focus_(focus) {
    curve_ = new ClosingCurve(focus, theme);
    body().addWidget(curve_);
    words_ = addNote();
    connect(&focus_, &StackFocus::changed, this, &ClosingCard::refresh);
    refresh();
}

void ClosingCard::refresh() {
    const StackReport *report = focus_.report();
    setVisible(report && !report->plateAbove.empty());
    if (!report || report->plateAbove.empty()) return;
    const Build &build = focus_.document().build();
    const ClosingSums &sums = report->closing;
    setTitle(tr("Does it close under %1?")
                 .arg(QString::fromStdString(withinSentence(displayName(build, report->plateAbove)))));
    QString text = tr("%1 is closest (%2). ")
                       .arg(QString::fromStdString(displayName(build, report->closestOwner)),
                            QString::fromStdString(report->closest.lower.what));
    text += tr("Worst case %1 mm; closes in %2 % of cases.")
                .arg(number(sums.worst_mm))
                .arg(100 * sums.probability, 0, 'f', sums.probability > 0.9995 || sums.probability < 0.0005 ? 0 : 1);
    if (sums.dominant >= 0) {
        const Contribution &most = report->contributions[std::size_t(sums.dominant)];
        text += '\n' + tr("Most of the doubt: %1 (%2 %)")
                           .arg(QString::fromStdString(withinSentence(most.name)))
                           .arg(100 * sums.dominantShare, 0, 'f', 0);
    }
    words_->setText(text);
    curve_->update();
}

} // namespace waxis::stackbench
