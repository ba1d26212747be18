#include "app/shell/axis_bar.h"

#include "app/theme/metrics.h"
#include "app/widgets/texts.h"
#include "core/balance/case_balance.h"
#include "core/power/power_report.h"

#include <QKeyEvent>
#include <QPainter>
#include <cmath>

namespace waxis::app {

namespace {

QString signedWords(double value, const QString &high, const QString &low) {
    const QString number = QString::fromStdString(oneDecimal(std::abs(value)));
    return number == "0.0" ? number : number + " " + (value > 0 ? high : low);
}

} // namespace

AxisBar::AxisBar(Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setFixedHeight(theme::kAxisBarHeight);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setAccessibleName(tr("Axis bar"));
    setToolTip(tr("Weight and balance of the active load case; a click opens Balance"));
    auto follow = [this] {
        rememberHover();
        setAccessibleDescription(spokenText());
        update();
    };
    connect(&document_, &Document::changed, this, follow);
    connect(&document_, &Document::judged, this, follow);
    connect(&document_, &Document::opened, this, [this] { case_ = -1; });
    connect(&document_, &Document::loadCaseChanged, this, follow);
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

std::optional<double> AxisBar::hover_min() const {
    const auto &hovers = document_.analysis().derived.power->hover;
    const auto now = std::size_t(document_.loadCase());
    if (now >= hovers.size() || hovers[now].pack.empty()) return std::nullopt;
    return (hovers[now].least_min + hovers[now].most_min) / 2;
}

/// Where the mouse is down the state before it is what counts, and stays so.
void AxisBar::rememberHover() {
    if (case_ != document_.loadCase()) {
        case_ = document_.loadCase();
        hover_ = hover_min();
        hoverBefore_.reset();
    }
    if (document_.isPreviewing()) return;
    constexpr double kSame_min = 1e-6;
    const auto now = hover_min();
    if (now && hover_ && std::abs(*now - *hover_) < kSame_min) return;
    hoverBefore_ = hover_;
    hover_ = now;
}

/// "16.0 min, −12 s": what the last edit, or the one under the mouse, costs or gains.
QString AxisBar::hoverText() const {
    const auto now = hover_min();
    if (!now) return {};
    QString text = tr("hover %1 min").arg(*now, 0, 'f', 1);
    const auto before = document_.isPreviewing() ? hover_ : hoverBefore_;
    if (!before) return text;
    const double seconds = (*now - *before) * 60;
    if (std::abs(seconds) < 0.5) return text;
    return text + tr(", %1%2 s")
                      .arg(seconds < 0 ? QStringLiteral("−") : QStringLiteral("+"))
                      .arg(std::abs(seconds), 0, 'f', 0);
}

QString AxisBar::spokenText() const {
    const auto *balance = document_.balance();
    if (!balance || !balance->mass.cg_mm) return tr("nothing weighed yet");
    QString text = tr("%1 g").arg(balance->mass.mass_g, 0, 'f', 1);
    if (balance->offset_mm) {
        const Vec3 &d = *balance->offset_mm;
        text +=
            tr("; %1; %2; %3")
                .arg(signedWords(d.x(), tr("mm fore"), tr("mm aft")), signedWords(d.y(), tr("mm left"), tr("mm right")),
                     signedWords(d.z(), tr("mm above"), tr("mm below")));
    }
    if (const QString hover = hoverText(); !hover.isEmpty()) text += tr("; %1").arg(hover);
    const auto &n = document_.analysis().counts;
    return text + tr("; %1 stop, %2 watch, %3 note, %4 unknown").arg(n.stop).arg(n.watch).arg(n.note).arg(n.unknown);
}

void AxisBar::paintScale(QPainter &painter, const QRect &box, const Scale &scale) const {
    const auto &c = theme_.colors();
    painter.setFont(theme_.text(10, true));
    painter.setPen(c.muted);
    painter.drawText(QRect(box.left(), box.top(), box.width(), 16), Qt::AlignLeft | Qt::AlignVCenter, scale.title);
    const int y = box.top() + 27;
    const double perMm = box.width() / (2 * scale.reach);
    const double middle = box.left() + box.width() / 2.0;
    QColor band = c.thrustAxis;
    band.setAlphaF(0.45f);
    if (scale.judged) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(band);
        painter.drawRect(QRectF(middle - scale.tolerance * perMm, y - 4, 2 * scale.tolerance * perMm, 8));
    }
    painter.setPen(QPen(c.muted, 1));
    painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y));
    for (int i = -2; i <= 2; ++i) {
        const double x = middle + i * box.width() / 4.0;
        painter.drawLine(QPointF(x, y - 4), QPointF(x, y + 4));
    }
    const double x = std::clamp(middle + scale.value * perMm, double(box.left()), double(box.right()));
    painter.setPen(Qt::NoPen);
    painter.setBrush(c.plumb);
    painter.drawPolygon(QPolygonF{QPointF(x - 5, y - 12), QPointF(x + 5, y - 12), QPointF(x, y - 1)});
    painter.setFont(theme_.text(theme::kSmallPixels));
    painter.setPen(c.muted);
    const QRect words(box.left(), y + 5, box.width(), 16);
    painter.drawText(words, Qt::AlignLeft | Qt::AlignVCenter, scale.low);
    painter.drawText(words, Qt::AlignRight | Qt::AlignVCenter, scale.high);
    const bool outside = scale.judged && std::abs(scale.value) > scale.tolerance;
    painter.setPen(outside ? c.stop : c.ink);
    painter.setFont(theme_.numbers(12, true));
    painter.drawText(words, Qt::AlignCenter,
                     tr("%1 mm").arg(QString::fromStdString(oneDecimal(std::abs(scale.value)))));
}

void AxisBar::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    painter.fillRect(rect(), c.panel);
    painter.setPen(hasFocus() ? c.link : c.rule);
    painter.drawLine(rect().topLeft(), rect().topRight());
    auto head = [&](int x, const QString &text) {
        painter.setFont(theme_.text(10, true));
        painter.setPen(c.muted);
        painter.drawText(QRect(x, 8, 200, 16), Qt::AlignLeft | Qt::AlignVCenter, text);
    };
    // Columns share the width in fixed proportions, so that nothing is pushed out at 1100 pixels.
    const double w = width();
    const int xWeight = 16, xThrust = int(w * 0.665), xCall = int(w * 0.765), xCount = int(w * 0.925);
    head(xWeight, tr("ALL-UP"));
    paintWeight(painter, xWeight);
    paintOffsets(painter);
    head(xThrust, tr("THRUST : WEIGHT"));
    const auto *balance = document_.balance();
    painter.setFont(theme_.numbers(theme::kBigNumberPixels, true));
    painter.setPen(balance && balance->thrustToWeight ? c.ink : c.muted);
    painter.drawText(QRect(xThrust, 24, 100, 26), Qt::AlignLeft | Qt::AlignVCenter,
                     balance && balance->thrustToWeight ? QString::number(*balance->thrustToWeight, 'f', 1)
                                                        : tr("unknown"));
    painter.setFont(theme_.numbers(theme::kSmallPixels));
    painter.setPen(c.muted);
    painter.drawText(QRect(xThrust, 49, xCall - xThrust - 6, 16), Qt::AlignLeft,
                     QFontMetrics(painter.font()).elidedText(hoverText(), Qt::ElideRight, xCall - xThrust - 6));
    head(xCall, tr("CLOSEST CALL"));
    if (const Finding *call = document_.analysis().closestCall())
        paintCall(painter, *call, QRect(xCall, 24, xCount - xCall - 8, 20));
    paintCounts(painter, xCount);
}

void AxisBar::paintWeight(QPainter &painter, int xWeight) const {
    const auto &c = theme_.colors();
    const auto *balance = document_.balance();
    if (balance && balance->mass.cg_mm) {
        painter.setFont(theme_.numbers(theme::kBigNumberPixels, true));
        painter.setPen(c.ink);
        const QString grams = tr("%1 g").arg(balance->mass.mass_g, 0, 'f', 0);
        painter.drawText(QRect(xWeight, 24, 130, 26), Qt::AlignLeft | Qt::AlignVCenter, grams);
        const int after = xWeight + QFontMetrics(painter.font()).horizontalAdvance(grams) + 6;
        painter.setFont(theme_.numbers(theme::kSmallPixels));
        painter.setPen(c.muted);
        painter.drawText(QRect(after, 24, 60, 26), Qt::AlignLeft | Qt::AlignVCenter,
                         tr("± %1").arg(balance->tolerance_g, 0, 'f', 0));
        if (!balance->notWeighed.empty()) {
            const int count = int(balance->notWeighed.size());
            QString text = tr("%n not weighed", nullptr, count);
            if (count == 1) { // one is named, as far as there is room
                const QFontMetrics metrics(painter.font());
                const QString name = QString::fromStdString(displayName(document_.build(), balance->notWeighed[0]));
                text = tr("%1 not weighed");
                const int room = 150 - metrics.horizontalAdvance(text.arg(QString()));
                text = text.arg(metrics.elidedText(name, Qt::ElideRight, room));
            }
            painter.drawText(QRect(xWeight, 49, 150, 16), Qt::AlignLeft, text);
        }
    } else {
        painter.setFont(theme_.text(12));
        painter.setPen(c.muted);
        painter.drawText(QRect(xWeight, 24, 120, 36), Qt::AlignLeft | Qt::TextWordWrap, tr("nothing weighed yet"));
    }
}

void AxisBar::paintOffsets(QPainter &painter) const {
    const auto *balance = document_.balance();
    if (!balance || !balance->offset_mm) return;
    const double w = width();
    const int xFore = int(w * 0.135), xSide = int(w * 0.325), xHeight = int(w * 0.495);
    const double limit = document_.analysis().derived.cgTolerance_mm;
    const Vec3 &d = *balance->offset_mm;
    const double reach = std::max(3 * limit, 15.0);
    paintScale(painter, QRect(xFore, 8, int(w * 0.17), 60),
               {tr("FORE – AFT"), tr("aft"), tr("fore"), d.x(), limit, reach, true});
    // On the drawing left is up; on a scale it reads from left to right.
    paintScale(painter, QRect(xSide, 8, int(w * 0.15), 60),
               {tr("LEFT – RIGHT"), tr("left"), tr("right"), -d.y(), limit, reach, true});
    paintScale(painter, QRect(xHeight, 8, int(w * 0.15), 60),
               {tr("HEIGHT TO DISC"), tr("below"), tr("above"), d.z(), 0, 40, false});
}

void AxisBar::paintCall(QPainter &painter, const Finding &call, const QRect &box) const {
    const auto &c = theme_.colors();
    painter.setFont(theme_.text(12, true));
    painter.setPen(call.margin < 0 ? c.severity(call.severity) : c.ink);
    QStringList names;
    for (const auto &subject : call.subjects) names << QString::fromStdString(displayName(document_.build(), subject));
    if (names.isEmpty()) names << tr("centre of gravity");
    painter.drawText(box, Qt::AlignLeft | Qt::AlignVCenter,
                     QFontMetrics(painter.font()).elidedText(names.first(), Qt::ElideRight, box.width()));
    painter.setFont(theme_.numbers(theme::kSmallPixels));
    painter.setPen(c.muted);
    painter.drawText(box.translated(0, 20), Qt::AlignLeft | Qt::AlignVCenter,
                     tr("%1 mm").arg(QString::fromStdString(oneDecimal(call.margin))));
}

void AxisBar::paintCounts(QPainter &painter, int xCount) const {
    const auto &c = theme_.colors();
    const auto &n = document_.analysis().counts;
    const std::pair<Severity, int> counts[] = {
        {Severity::stop, n.stop}, {Severity::watch, n.watch}, {Severity::note, n.note}, {Severity::unknown, n.unknown}};
    painter.setFont(theme_.numbers(13));
    for (int i = 0; i < 4; ++i) {
        const QPoint at(xCount + (i % 2) * 40, 24 + (i / 2) * 24);
        theme::drawSeverityMark(painter, at + QPointF(5, 5), 5, counts[i].first, c.severity(counts[i].first));
        painter.setPen(c.ink);
        painter.drawText(QRect(at.x() + 14, at.y() - 5, 26, 20), Qt::AlignLeft | Qt::AlignVCenter,
                         QString::number(counts[i].second));
    }
}

void AxisBar::mouseReleaseEvent(QMouseEvent *) { emit clicked(); }

void AxisBar::keyPressEvent(QKeyEvent *event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space)
        emit clicked();
    else
        QWidget::keyPressEvent(event);
}

} // namespace waxis::app
