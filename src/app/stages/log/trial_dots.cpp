#include "app/stages/log/trial_dots.h"

#include "core/instructions/log_words.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

namespace waxis::logbench {

namespace {

constexpr int kNames_px = 200, kRow_px = 46, kAxis_px = 30, kMargin_px = 14;

/// A step of 1, 2 or 5 times a power of ten that gives some six marks.
double markStep(double most) {
    const double rough = most / 6, power = std::pow(10, std::floor(std::log10(rough)));
    for (const double step : {1.0, 2.0, 5.0})
        if (rough <= step * power) return step * power;
    return 10 * power;
}

QString words(const TrialSetup &setup) {
    QStringList said;
    for (const auto *text : {&setup.under, &setup.lead, &setup.shield, &setup.others, &setup.supply, &setup.start})
        if (!text->empty()) said << QString::fromStdString(*text);
    if (setup.fan) said << TrialDots::tr("on a fan");
    return said.join(QStringLiteral(" · "));
}

} // namespace

TrialDots::TrialDots(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    setObjectName("trial-dots");
    setAccessibleName(tr("Tries of the trial, a row for each way"));
    setFocusPolicy(Qt::StrongFocus);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    connect(&theme_, &theme::Theme::changed, this, qOverload<>(&QWidget::update));
}

void TrialDots::show(const Trial &trial, const TrialReport &report, const std::string &chosen) {
    trial_ = trial;
    report_ = report;
    chosen_ = chosen;
    QStringList said;
    for (std::size_t i = 0; i < report_.setups.size(); ++i) {
        const auto &setup = report_.setups[i];
        said << tr("%1: %2 tries, median %3")
                    .arg(QString::fromStdString(trial_.setups[i].name))
                    .arg(setup.values.size())
                    .arg(setup.median ? QString::fromStdString(trialValue(trial_, {*setup.median, true})) : tr("none"));
    }
    setAccessibleDescription(said.join(QStringLiteral("; ")));
    updateGeometry();
    update();
}

void TrialDots::clear() {
    trial_ = Trial();
    report_ = TrialReport();
    updateGeometry();
    update();
}

QSize TrialDots::sizeHint() const {
    const int rows = std::max(2, int(trial_.setups.size()));
    return {400, rows * kRow_px + kAxis_px + 8};
}

QRectF TrialDots::rowBox(int row) const { return {0, 4.0 + row * kRow_px, double(width()), double(kRow_px)}; }

void TrialDots::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QColor chalk = theme_.colors().chalk, soft = theme_.colors().softChalk,
                 dot = theme::familyColor(Family::sensing);
    if (trial_.setups.empty()) {
        painter.setPen(soft);
        painter.drawText(rect(), Qt::AlignCenter, tr("Two ways or more are compared: add them below."));
        return;
    }
    double most = 0;
    for (const auto &setup : report_.setups)
        for (const auto &value : setup.values) most = std::max(most, value.value);
    if (!(most > 0)) most = trial_.longest_s;
    const double step = markStep(most), end = std::ceil(most / step * 1.02) * step;
    const double left = kNames_px + kMargin_px, right = width() - kMargin_px - 14;
    const auto x = [&](double value) { return left + value / end * (right - left); };
    const double bottom = 4.0 + double(trial_.setups.size()) * kRow_px;
    painter.setFont(theme_.numbers(11));
    for (double at = 0; at <= end + step / 2; at += step) {
        painter.setPen(QPen(theme_.colors().matGridStrong, 1));
        painter.drawLine(QPointF(x(at), 4), QPointF(x(at), bottom));
        painter.setPen(soft);
        painter.drawText(QRectF(x(at) - 30, bottom + 2, 60, 14), Qt::AlignHCenter | Qt::AlignTop,
                         QString::fromStdString(threeDigits(at)));
    }
    painter.setFont(theme_.text(11));
    const QString unit = QString::fromUtf8(unitOf(trial_).data(), qsizetype(unitOf(trial_).size()));
    painter.drawText(QRectF(0, bottom + 2, kNames_px, 14), Qt::AlignLeft | Qt::AlignTop,
                     moreIsBetter(trial_) ? tr("%1, more is better").arg(unit) : tr("%1 · ▸ not reached").arg(unit));
    for (std::size_t i = 0; i < trial_.setups.size() && i < report_.setups.size(); ++i) {
        const QRectF box = rowBox(int(i));
        const SetupResult &result = report_.setups[i];
        const bool isChosen = trial_.setups[i].id == chosen_;
        if (isChosen) painter.fillRect(box.adjusted(0, 2, -2, -2), theme_.colors().matGrid);
        painter.setPen(chalk);
        painter.setFont(theme_.text(13, true));
        const QFontMetrics bold(painter.font());
        painter.drawText(
            QRectF(6, box.top() + 6, kNames_px - 10, 18), Qt::AlignLeft | Qt::AlignVCenter,
            bold.elidedText(QString::fromStdString(trial_.setups[i].name), Qt::ElideRight, kNames_px - 10));
        painter.setFont(theme_.text(11));
        painter.setPen(soft);
        const QString under = words(trial_.setups[i]);
        painter.drawText(QRectF(6, box.top() + 23, kNames_px - 10, 16), Qt::AlignLeft | Qt::AlignVCenter,
                         QFontMetrics(painter.font()).elidedText(under, Qt::ElideRight, kNames_px - 10));
        const double y = box.center().y();
        if (result.low && result.high) {
            painter.setPen(Qt::NoPen);
            QColor bar = dot;
            bar.setAlphaF(0.35f);
            painter.setBrush(bar);
            painter.drawRect(QRectF(QPointF(x(*result.low), y - 7), QPointF(x(*result.high), y + 7)).normalized());
        }
        if (result.median) {
            painter.setPen(QPen(chalk, 2));
            painter.drawLine(QPointF(x(*result.median), y - 10), QPointF(x(*result.median), y + 10));
        }
        painter.setPen(QPen(theme_.colors().mat, 1));
        painter.setBrush(dot);
        for (const auto &value : result.values) {
            painter.drawEllipse(QPointF(x(value.value), y), 4.5, 4.5);
            if (value.reached) continue;
            const double at = x(value.value) + 7;
            painter.setBrush(chalk);
            painter.drawPolygon(QPolygonF{QPointF(at, y - 4), QPointF(at + 6, y), QPointF(at, y + 4)});
            painter.setBrush(dot);
        }
        if (result.values.empty()) {
            painter.setPen(soft);
            painter.drawText(QRectF(left, y - 9, right - left, 18), Qt::AlignLeft | Qt::AlignVCenter,
                             tr("no tries yet"));
        }
    }
    if (hasFocus()) {
        painter.setPen(QPen(theme_.colors().thrustAxis, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(rect().adjusted(0, 0, -1, -1));
    }
}

void TrialDots::mousePressEvent(QMouseEvent *event) {
    for (std::size_t i = 0; i < trial_.setups.size(); ++i)
        if (rowBox(int(i)).contains(event->position())) emit chose(QString::fromStdString(trial_.setups[i].id));
    setFocus();
}

void TrialDots::keyPressEvent(QKeyEvent *event) {
    const int way = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (way == 0 || trial_.setups.empty()) return QWidget::keyPressEvent(event);
    int at = -1;
    for (std::size_t i = 0; i < trial_.setups.size(); ++i)
        if (trial_.setups[i].id == chosen_) at = int(i);
    at = std::clamp(at + way, 0, int(trial_.setups.size()) - 1);
    emit chose(QString::fromStdString(trial_.setups[std::size_t(at)].id));
}

} // namespace waxis::logbench
