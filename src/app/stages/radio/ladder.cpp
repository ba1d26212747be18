#include "app/stages/radio/ladder.h"

#include "app/drawing/magnifier.h"
#include "app/drawing/walk.h"
#include "app/theme/metrics.h"
#include "app/widgets/tips.h"
#include "core/radio/bands.h"
#include "core/radio/decibel.h"
#include "core/radio/radio_report.h"
#include "core/rules/wording.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

namespace waxis::radio {

namespace {

constexpr double kLeft = 176, kRight = 12, kTop = 26, kLane = 30;

/// "2 437" in the way of tables: thousands apart.
QString megahertz(double value) {
    QString text = QString::number(value, 'f', std::abs(value - std::round(value)) < 0.05 ? 0 : 1);
    const auto point = text.indexOf(QLatin1Char('.'));
    for (auto at = (point < 0 ? text.size() : point) - 3; at > 0; at -= 3) text.insert(at, QChar(0x2009));
    return text;
}

QString nameOf(const Build &build, const std::string &id) { return QString::fromStdString(displayName(build, id)); }

} // namespace

Ladder::Ladder(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : QWidget(parent), document_(document), theme_(theme) {
    setObjectName("ladder");
    setAccessibleName(tr("Frequency ladder: who sends and hears where"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    auto renew = [this] {
        layOut();
        updateGeometry();
        update();
    };
    connect(&document_, &app::Document::opened, this, [this] { closer_MHz_.reset(); });
    connect(&document_, &app::Document::changed, this, renew);
    connect(&document_, &app::Document::judged, this, renew);
    connect(&document_, &app::Document::loadCaseChanged, this, renew);
    connect(&document_, &app::Document::selectionChanged, this, [this] { update(); });
    connect(&document_, &app::Document::highlightChanged, this, [this] { update(); });
    connect(&theme_, &theme::Theme::changed, this, [this] { update(); });
    layOut();
}

QSize Ladder::sizeHint() const {
    return {640, int(kTop + kLane * double(std::max<std::size_t>(2, lanes_.size())) + 8)};
}

double Ladder::xOf(double f_MHz) const {
    const double share = std::log(f_MHz / low_MHz_) / std::log(high_MHz_ / low_MHz_);
    return kLeft + share * (width() - kLeft - kRight);
}

double Ladder::frequencyAt(double x) const {
    return low_MHz_ * std::pow(high_MHz_ / low_MHz_, (x - kLeft) / (width() - kLeft - kRight));
}

void Ladder::look(double low, double high) {
    constexpr double kLeast_MHz = 10, kMost_MHz = 100000, kNarrowest = 1.0005;
    low = std::clamp(low, kLeast_MHz, kMost_MHz / kNarrowest);
    closer_MHz_ = std::pair(low, std::clamp(high, low * kNarrowest, kMost_MHz));
    layOut();
    update();
}

void Ladder::fit() {
    closer_MHz_.reset();
    layOut();
    update();
}

void Ladder::zoomToChosen() {
    double low = 1e9, high = 0;
    for (const auto &spot : spots_)
        if (!spot.pair.from.isEmpty() && spot.pair == document_.radioPair()) {
            const double f = frequencyAt(spot.rect.center().x());
            low = std::min(low, f * 0.98);
            high = std::max(high, f * 1.02);
        }
    if (high == 0)
        for (const auto &radio : document_.analysis().derived.radio->radios)
            if (document_.selection().contains(QString::fromStdString(radio.part))) {
                low = std::min(low, radio.low_MHz);
                high = std::max(high, radio.high_MHz);
            }
    if (high == 0) return;
    const double half = std::max(std::sqrt(high / low), 1.001); // as much again on either side
    look(low / half, high * half);
}

std::vector<double> Ladder::ticks() const {
    constexpr double kWide = 3, kApart_px = 64;
    if (high_MHz_ / low_MHz_ >= kWide)
        return {10,   20,   50,   100,  200,  300,  400,  500,   600,   800,   1000,
                1500, 2000, 3000, 4000, 5000, 6000, 7000, 10000, 20000, 50000, 100000};
    // Close up the scale is nearly even: round steps of 1, 2 or 5.
    const double wanted = (high_MHz_ - low_MHz_) * kApart_px / std::max(1.0, width() - kLeft - kRight);
    const double ten = std::pow(10, std::floor(std::log10(wanted)));
    const double step = wanted <= 2 * ten ? 2 * ten : wanted <= 5 * ten ? 5 * ten : 10 * ten;
    std::vector<double> list;
    for (double f = std::ceil(low_MHz_ / step) * step; f <= high_MHz_; f += step) list.push_back(f);
    return list;
}

const Ladder::Lane *Ladder::laneOf(int radio, bool sends) const {
    for (const auto &lane : lanes_)
        if (lane.sends == sends && std::find(lane.radios.begin(), lane.radios.end(), radio) != lane.radios.end())
            return &lane;
    return nullptr;
}

void Ladder::layOut() {
    lanes_.clear();
    spots_.clear();
    const RadioReport &report = *document_.analysis().derived.radio;
    layLanes(report);
    for (std::size_t i = 0; i < lanes_.size(); ++i) lanes_[i].top = kTop + kLane * double(i);
    for (const auto &lane : lanes_)
        for (const int r : lane.radios) {
            const RadioUse &radio = report.radios[std::size_t(r)];
            const double x0 = xOf(radio.low_MHz), x1 = std::max(x0 + 3, xOf(radio.high_MHz));
            Spot spot;
            spot.rect = QRectF(x0, lane.top + 4, x1 - x0, kLane - 8);
            spot.tip =
                lane.sends
                    ? tr("%1 sends at %2 to %3 MHz").arg(lane.name, megahertz(radio.low_MHz), megahertz(radio.high_MHz))
                    : tr("%1 at %2 to %3 MHz").arg(lane.name, megahertz(radio.low_MHz), megahertz(radio.high_MHz));
            spots_.push_back(std::move(spot));
        }
    layProducts(report);
}

void Ladder::layLanes(const RadioReport &report) {
    const Build &build = document_.build();
    const auto aboard = [&](const RadioUse &radio) {
        const Part *part = findPart(build, radio.part);
        return part && document_.isSwitchedOnNow(*part);
    };
    double low = 800, high = 3000;
    for (std::size_t r = 0; r < report.radios.size(); ++r) {
        const RadioUse &radio = report.radios[r];
        if (!aboard(radio)) continue;
        low = std::min(low, radio.low_MHz);
        high = std::max(high, radio.high_MHz);
        if (!radio.sends()) continue;
        Lane lane;
        lane.part = radio.part;
        lane.radios = {int(r)};
        lane.name = nameOf(build, radio.part);
        lane.numbers =
            tr("%1%2, %3 mW")
                .arg(radio.hops ? tr("%1–%2").arg(megahertz(radio.low_MHz), megahertz(radio.high_MHz))
                                : megahertz(radio.centre_MHz),
                     radio.channel.empty() ? QString() : tr(" (%1)").arg(QString::fromStdString(radio.channel)))
                .arg(milliwatts(*radio.power_dBm), 0, 'f', 0);
        lanes_.push_back(std::move(lane));
    }
    for (std::size_t r = 0; r < report.radios.size(); ++r) {
        const RadioUse &radio = report.radios[r];
        if (!radio.listens || !aboard(radio)) continue;
        const QString words = radio.kind == PartKind::gps
                                  ? QString::fromStdString(satelliteWords(radio.low_MHz, radio.high_MHz))
                                  : tr("%1–%2").arg(megahertz(radio.low_MHz), megahertz(radio.high_MHz));
        const auto at =
            std::find_if(lanes_.begin(), lanes_.end(), [&](const Lane &l) { return !l.sends && l.part == radio.part; });
        if (at != lanes_.end()) {
            at->radios.push_back(int(r));
            at->numbers += QStringLiteral(" ") + words;
            continue;
        }
        Lane lane;
        lane.sends = false;
        lane.part = radio.part;
        lane.radios = {int(r)};
        lane.name = tr("hears: %1").arg(QString::fromStdString(withinSentence(displayName(build, radio.part))));
        lane.numbers = words;
        lanes_.push_back(std::move(lane));
    }
    low_MHz_ = closer_MHz_ ? closer_MHz_->first : low * 0.9;
    high_MHz_ = closer_MHz_ ? closer_MHz_->second : high * 1.2;
}

void Ladder::layProducts(const RadioReport &report) {
    const Build &build = document_.build();
    const auto id = [&](int radio) { return QString::fromStdString(report.radios[std::size_t(radio)].id()); };
    for (const auto &h : report.harmonics) {
        const Lane *lane = laneOf(h.listener, false);
        if (!lane || !laneOf(h.sender, true)) continue;
        const double x = xOf((h.low_MHz + h.high_MHz) / 2);
        spots_.push_back(
            {QRectF(x - 9, lane->top + kLane / 2 - 9, 18, 18),
             tr("%1 × %2 lands at %3 to %4 MHz in the band of %5: %6 dB of noise")
                 .arg(h.order)
                 .arg(megahertz(report.radios[std::size_t(h.sender)].centre_MHz), megahertz(h.low_MHz),
                      megahertz(h.high_MHz), nameOf(document_.build(), report.radios[std::size_t(h.listener)].part))
                 .arg(h.rise_dB, 0, 'f', 1),
             {id(h.sender), id(h.listener)},
             h.rise_dB,
             -1});
    }
    for (std::size_t m = 0; m < report.mixes.size(); ++m) {
        const auto &mix = report.mixes[m];
        const Lane *lane = laneOf(mix.listener, false);
        if (!lane || !laneOf(mix.first, true) || !laneOf(mix.second, true)) continue;
        const double x = xOf((mix.low_MHz + mix.high_MHz) / 2);
        const auto &radios = report.radios;
        spots_.push_back(
            {QRectF(x - 9, lane->top + kLane / 2 - 9, 18, 18),
             tr("%1%2 %3 %4 = %5 to %6 MHz, in the band of %7: %8 dB of noise. They mix in the output stage of %9.")
                 .arg(mix.p == 2 ? QStringLiteral("2 × ") : QString(),
                      megahertz(radios[std::size_t(mix.first)].centre_MHz),
                      mix.q < 0 ? QStringLiteral("−") : QStringLiteral("+"),
                      megahertz(radios[std::size_t(mix.second)].centre_MHz), megahertz(mix.low_MHz),
                      megahertz(mix.high_MHz), nameOf(build, radios[std::size_t(mix.listener)].part))
                 .arg(mix.rise_dB, 0, 'f', 1)
                 .arg(nameOf(build, radios[std::size_t(mix.at)].part)),
             {id(mix.at), id(mix.listener)},
             mix.rise_dB,
             int(m)});
    }
}

void Ladder::resizeEvent(QResizeEvent *) { layOut(); }

QPointF Ladder::ringOfMix(std::size_t mix) const {
    for (const auto &spot : spots_)
        if (spot.mix == int(mix)) return spot.rect.center();
    return {};
}

QString Ladder::tipAt(const QPointF &at) const {
    for (auto spot = spots_.rbegin(); spot != spots_.rend(); ++spot) // products lie over bands
        if (spot->rect.adjusted(-2, -2, 2, 2).contains(at)) return spot->tip;
    return {};
}

void Ladder::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto &c = theme_.colors();
    painter.fillRect(rect(), c.mat);
    paintScale(painter);
    if (lanes_.empty()) {
        painter.setFont(theme_.text(theme::kTextPixels));
        painter.drawText(rect().adjusted(12, 0, -12, 0), Qt::AlignVCenter,
                         tr("No radio is aboard yet: put a receiver, a transmitter or a GPS on the mat in Place."));
        return;
    }
    const RadioReport &report = *document_.analysis().derived.radio;
    const QRectF scale(kLeft, 0, width() - kLeft, height());
    for (const auto &lane : lanes_) {
        paintName(painter, lane);
        painter.setClipRect(scale);
        for (const int r : lane.radios) paintBand(painter, lane, report.radios[std::size_t(r)]);
        painter.setClipping(false);
    }
    painter.setClipRect(scale);
    paintProducts(painter);
    painter.setClipping(false);
    if (hasFocus()) {
        painter.setPen(QPen(c.softChalk, 1, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(rect().adjusted(1, 1, -2, -2));
    }
}

void Ladder::paintScale(QPainter &painter) const {
    const auto &c = theme_.colors();
    painter.setFont(theme_.numbers(theme::kSmallPixels));
    painter.setPen(c.softChalk);
    painter.drawText(QRectF(12, 4, 80, 18), Qt::AlignVCenter, tr("MHz"));
    double lastLabel = 0;
    for (const double f : ticks()) {
        if (f < low_MHz_ || f > high_MHz_) continue;
        const double x = std::round(xOf(f)) + 0.5;
        painter.setPen(c.matGridStrong);
        painter.drawLine(QPointF(x, kTop), QPointF(x, height() - 4));
        if (x - lastLabel < 34) continue;
        lastLabel = x;
        painter.setPen(c.softChalk);
        painter.drawText(QRectF(x - 30, 4, 60, 18), Qt::AlignCenter, megahertz(f));
    }
}

void Ladder::paintName(QPainter &painter, const Lane &lane) const {
    const auto &c = theme_.colors();
    const double bottom = lane.top + kLane;
    painter.setPen(c.matGrid.lighter(115));
    painter.drawLine(QPointF(0, bottom + 0.5), QPointF(width(), bottom + 0.5));
    const bool lit = document_.selection().contains(QString::fromStdString(lane.part)) ||
                     document_.highlighted().contains(QString::fromStdString(lane.part));
    painter.setFont(theme_.text(12, true));
    painter.setPen(lit ? QColor(Qt::white) : c.chalk);
    const QFontMetrics metrics(painter.font());
    painter.drawText(QRectF(12, lane.top + 1, kLeft - 20, 15), Qt::AlignVCenter,
                     metrics.elidedText(lane.name, Qt::ElideRight, int(kLeft) - 20));
    painter.setFont(theme_.numbers(10));
    painter.setPen(c.softChalk);
    painter.drawText(QRectF(12, lane.top + 15, kLeft - 20, 13), Qt::AlignVCenter, lane.numbers);
}

void Ladder::paintBand(QPainter &painter, const Lane &lane, const RadioUse &radio) const {
    const auto &c = theme_.colors();
    const QColor fill = theme::familyColor(lane.sends ? Family::radio : Family::sensing);
    const double x0 = xOf(radio.low_MHz), x1 = std::max(x0 + 3, xOf(radio.high_MHz));
    painter.setPen(Qt::NoPen);
    painter.setBrush(fill);
    painter.drawRect(QRectF(x0, lane.top + 4, x1 - x0, kLane - 8));
    if (!lane.sends) return;
    double last = x1;
    painter.setFont(theme_.text(10));
    for (int n = 2; n <= 7; ++n) {
        if (n * radio.low_MHz > high_MHz_) break;
        const double a = xOf(n * radio.low_MHz),
                     b = std::max(a + 2, std::min(xOf(n * radio.high_MHz), width() - kRight + 4.0));
        painter.setPen(Qt::NoPen);
        QColor faint = fill;
        faint.setAlpha(150);
        painter.setBrush(faint);
        painter.drawRect(QRectF(a, lane.top + kLane - 14, b - a, 10));
        if (b - last < 22) continue;
        last = b + 18;
        painter.setPen(c.softChalk);
        painter.drawText(QRectF(b + 2, lane.top + 3, 20, 14), Qt::AlignVCenter, QStringLiteral("×%1").arg(n));
    }
}

void Ladder::paintProducts(QPainter &painter) const {
    const Spot *told = nullptr;
    for (const auto &spot : spots_) {
        if (spot.pair.from.isEmpty()) continue;
        if (spot.pair == document_.radioPair()) {
            told = &spot;
            break;
        }
        if (!told || spot.rise_dB > told->rise_dB) told = &spot;
    }
    const Practice &practice = document_.analysis().practice;
    for (const auto &spot : spots_) {
        if (spot.pair.from.isEmpty()) continue;
        const Severity severity = spot.rise_dB > practice[Limit::desenseStop]    ? Severity::stop
                                  : spot.rise_dB > practice[Limit::desenseWatch] ? Severity::watch
                                                                                 : Severity::note;
        const QColor color = theme::severityOnMat(severity);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(color, &spot == told ? 2 : 1.4));
        painter.drawEllipse(spot.rect.center(), 7, 7);
        if (&spot == told) paintWords(painter, spot, color);
    }
}

void Ladder::paintWords(QPainter &painter, const Spot &spot, const QColor &color) const {
    painter.setPen(QPen(color, 1.4, Qt::DashLine));
    painter.drawLine(QPointF(spot.rect.center().x(), kTop + 4),
                     QPointF(spot.rect.center().x(), spot.rect.center().y() - 8));
    QString words = spot.tip.section(QLatin1Char(','), 0, 0);
    if (spot.mix < 0) words = spot.tip.section(QStringLiteral(" in the band"), 0, 0);
    words += tr(" MHz: +%1 dB").arg(spot.rise_dB, 0, 'f', 1).mid(words.endsWith(QStringLiteral("MHz")) ? 4 : 0);
    painter.setFont(theme_.numbers(theme::kSmallPixels));
    const QFontMetrics metrics(painter.font());
    const double w = metrics.horizontalAdvance(words) + 12;
    const double x = spot.rect.right() + 4 + w < width() ? spot.rect.right() + 4 : spot.rect.left() - 4 - w;
    QRectF box(x, spot.rect.center().y() - 9, w, 18);
    QColor behind = theme_.colors().mat;
    behind.setAlpha(225);
    painter.fillRect(box, behind);
    painter.setPen(color);
    painter.drawText(box, Qt::AlignCenter, words);
}

void Ladder::mousePressEvent(QMouseEvent *event) {
    const bool onScale = event->position().x() >= kLeft;
    for (auto spot = spots_.rbegin(); onScale && spot != spots_.rend(); ++spot)
        if (!spot->pair.from.isEmpty() && spot->rect.adjusted(-2, -2, 2, 2).contains(event->position())) {
            document_.lookAtPair(spot->pair);
            return;
        }
    for (const auto &lane : lanes_)
        if (event->position().y() >= lane.top && event->position().y() < lane.top + kLane)
            document_.select(QString::fromStdString(lane.part));
    if (onScale && event->button() != Qt::RightButton) panningAt_px_ = event->position().x();
}

void Ladder::mouseMoveEvent(QMouseEvent *event) {
    if (!panningAt_px_) return;
    const double by = frequencyAt(*panningAt_px_) / frequencyAt(event->position().x());
    panningAt_px_ = event->position().x();
    if (by != 1) look(low_MHz_ * by, high_MHz_ * by);
}

void Ladder::mouseReleaseEvent(QMouseEvent *) { panningAt_px_.reset(); }

void Ladder::wheelEvent(QWheelEvent *event) {
    const double f = frequencyAt(std::max(kLeft, event->position().x()));
    const double by = drawing::wheelFactor(event->angleDelta().y());
    look(f * std::pow(low_MHz_ / f, 1 / by), f * std::pow(high_MHz_ / f, 1 / by));
    event->accept();
}

std::vector<app::Document::RadioPair> Ladder::products() const {
    std::vector<app::Document::RadioPair> pairs;
    for (const auto &spot : spots_)
        if (!spot.pair.from.isEmpty()) pairs.push_back(spot.pair);
    return pairs;
}

bool Ladder::focusNextPrevChild(bool next) {
    QStringList keys;
    for (const auto &pair : products()) keys << pair.from + QLatin1Char('\n') + pair.to;
    keys.removeDuplicates();
    const auto now = document_.radioPair();
    const auto to = drawing::walkTo(keys, now.from + QLatin1Char('\n') + now.to, next);
    if (!to) return QWidget::focusNextPrevChild(next);
    document_.lookAtPair({to->section(QLatin1Char('\n'), 0, 0), to->section(QLatin1Char('\n'), 1)});
    return true;
}

void Ladder::keyPressEvent(QKeyEvent *event) {
    const bool plain = !(event->modifiers() & ~Qt::KeypadModifier);
    if (plain && event->key() == Qt::Key_0) return fit();
    if (plain && event->key() == Qt::Key_Z) return zoomToChosen();
    // Up and down go through the products.
    const bool down = event->key() == Qt::Key_Down || event->key() == Qt::Key_Right;
    if (!down && event->key() != Qt::Key_Up && event->key() != Qt::Key_Left) return QWidget::keyPressEvent(event);
    const auto pairs = products();
    if (pairs.empty()) return;
    const auto at = std::find(pairs.begin(), pairs.end(), document_.radioPair());
    const auto now = at == pairs.end() ? std::ptrdiff_t(down ? -1 : 0) : at - pairs.begin();
    const auto count = std::ptrdiff_t(pairs.size());
    document_.lookAtPair(pairs[std::size_t((now + (down ? 1 : -1) + count) % count)]);
}

bool Ladder::event(QEvent *event) {
    if (theme::showTip(event, this, [this](const QPointF &at) { return tipAt(at); })) return true;
    return QWidget::event(event);
}

} // namespace waxis::radio
