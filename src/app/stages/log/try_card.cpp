#include "app/stages/log/try_card.h"

#include "app/stages/log/session_column.h"
#include "app/widgets/typed_number.h"
#include "core/base/by_id.h"
#include "core/edits/log_edits.h"
#include "core/log/trial_report.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

namespace waxis::logbench {

RatioBars::RatioBars(const theme::Theme &theme, QWidget *parent) : QWidget(parent), theme_(theme) {
    setAccessibleName(tr("Carrier to noise of each satellite"));
    setMinimumHeight(34);
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void RatioBars::show(const std::vector<SatelliteSeen> &satellites) {
    satellites_ = satellites;
    std::stable_sort(satellites_.begin(), satellites_.end(), [](const SatelliteSeen &a, const SatelliteSeen &b) {
        return a.isUsed != b.isUsed ? a.isUsed : a.ratio_dBHz.value_or(0) > b.ratio_dBHz.value_or(0);
    });
    update();
}

void RatioBars::paintEvent(QPaintEvent *) {
    QPainter painter(this);
    const double wide = std::min(16.0, double(width()) / double(std::max<std::size_t>(1, satellites_.size())));
    constexpr double kMost_dBHz = 52, kLeast_dBHz = 15;
    for (std::size_t i = 0; i < satellites_.size(); ++i) {
        const double ratio = satellites_[i].ratio_dBHz.value_or(kLeast_dBHz);
        const double high = std::clamp((ratio - kLeast_dBHz) / (kMost_dBHz - kLeast_dBHz), 0.04, 1.0) * (height() - 2);
        const QRectF bar(double(i) * wide + 1, height() - high, wide - 3, high);
        if (satellites_[i].isUsed) {
            painter.fillRect(bar, theme::familyColor(Family::sensing));
        } else { // an outline: not by colour alone
            painter.setPen(theme_.colors().softChalk);
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(bar.adjusted(0.5, 0.5, -0.5, -0.5));
        }
    }
}

TryCard::TryCard(app::Document &document, app::Instruments &instruments, TryRunner &runner, const theme::Theme &theme,
                 QWidget *parent)
    : theme::Card(theme, tr("Next try"), parent), document_(document), instruments_(instruments), runner_(runner) {
    constexpr int kClock_px = 44, kUsed_px = 44;
    const auto label = [&](const char *name, const QFont &font) {
        auto *made = new QLabel;
        made->setObjectName(name);
        made->setFont(font);
        return made;
    };
    clock_ = label("try-clock", theme.numbers(kClock_px, true));
    since_ = label("try-since", theme.text(12));
    used_ = label("try-used", theme.numbers(kUsed_px, true));
    of_ = label("try-of", theme.text(12));
    ends_ = label("try-ends", theme.text(11));
    ends_->setWordWrap(true);
    for (QLabel *quiet : {since_, of_, ends_}) quiet->setForegroundRole(QPalette::PlaceholderText);
    bars_ = new RatioBars(theme);
    auto *first = new QHBoxLayout;
    first->addWidget(clock_);
    first->addWidget(since_, 1, Qt::AlignVCenter);
    first->addWidget(used_);
    first->addWidget(of_, 1, Qt::AlignVCenter);
    since_->setWordWrap(true);
    of_->setWordWrap(true);
    arm_ = new QPushButton(tr("Wait for power"));
    arm_->setObjectName("try-arm");
    now_ = new QPushButton(tr("Begin now"));
    now_->setObjectName("try-now");
    stop_ = new QPushButton(tr("Stop"));
    stop_->setObjectName("try-stop");
    for (QPushButton *button : {arm_, now_, stop_}) button->setMinimumHeight(32);
    value_ = new QLineEdit;
    value_->setObjectName("try-value");
    value_->setAccessibleName(tr("Value of a try, by hand"));
    value_->setPlaceholderText(tr("by hand: 2:10, > 6:00"));
    auto *buttons = new QHBoxLayout;
    buttons->addWidget(arm_);
    buttons->addWidget(now_);
    buttons->addWidget(stop_);
    buttons->addWidget(value_, 1);
    body().addLayout(first);
    body().addWidget(bars_);
    body().addWidget(ends_);
    body().addStretch(1);
    body().addLayout(buttons);
    connect(arm_, &QPushButton::clicked, this, [this] { runner_.arm(trial_, setup_, session_); });
    connect(now_, &QPushButton::clicked, &runner_, &TryRunner::beginNow);
    connect(stop_, &QPushButton::clicked, this, [this] {
        if (runner_.state() == TryState::armed)
            runner_.cancel();
        else
            runner_.end();
    });
    connect(value_, &QLineEdit::returnPressed, this, &TryCard::enterValue);
    connect(&runner_, &TryRunner::changed, this, &TryCard::refresh);
    connect(&runner_, &TryRunner::said, this, &TryCard::said);
    connect(&instruments_.gnss(), &GnssLink::updated, this, &TryCard::refresh);
    connect(&instruments_, &app::Instruments::changed, this, &TryCard::refresh);
    constexpr int kTick_ms = 250;
    tick_.setInterval(kTick_ms);
    connect(&tick_, &QTimer::timeout, this, &TryCard::refresh);
    tick_.start();
    refresh();
}

void TryCard::setNext(const std::string &trial, const std::string &setup, const std::string &session) {
    trial_ = trial;
    setup_ = setup;
    session_ = session;
    refresh();
}

void TryCard::refresh() {
    if (!isVisible() && sender() == &tick_) return;
    const bool idle = runner_.state() == TryState::idle;
    const std::string trialId = idle ? trial_ : runner_.trial(), setupId = idle ? setup_ : runner_.setup();
    const Trial *trial = byId(document_.build().log->trials, trialId);
    const TrialSetup *setup = trial ? byId(trial->setups, setupId) : nullptr;
    const bool isOpen = instruments_.gnss().isOpen();
    const bool isHeard =
        trial && (trial->quantity == TrialQuantity::secondsToSatellites ||
                  trial->quantity == TrialQuantity::secondsToFix || trial->quantity == TrialQuantity::satellitesUsed ||
                  trial->quantity == TrialQuantity::carrierToNoise || trial->quantity == TrialQuantity::dilution);
    const int number = trial && setup ? 1 + int(std::count_if(trial->tries.begin(), trial->tries.end(),
                                                              [&](const Try &one) { return one.setup == setupId; }))
                                      : 0;
    setTitle(setup ? tr("Try %1: %2").arg(number).arg(QString::fromStdString(setup->name)) : tr("Next try"));
    const bool running = runner_.state() == TryState::running;
    const auto seconds = int(running ? runner_.running_s() : isOpen ? instruments_.gnss().sincePower_s() : 0);
    clock_->setText(tr("%1:%2").arg(seconds / 60).arg(seconds % 60, 2, 10, QChar('0')));
    since_->setText(running                              ? tr("running")
                    : runner_.state() == TryState::armed ? tr("waiting for power")
                    : isOpen                             ? tr("since power on")
                                                         : QString());
    const ReceiverState &state = instruments_.gnss().receiver().state();
    used_->setText(QString::number(state.used));
    of_->setText(trial ? tr("used, of %1 in view; %2 wanted").arg(state.inView).arg(trial->satellites)
                       : tr("satellites used, of %1 in view").arg(state.inView));
    for (QWidget *widget : {static_cast<QWidget *>(clock_), static_cast<QWidget *>(since_),
                            static_cast<QWidget *>(used_), static_cast<QWidget *>(of_), static_cast<QWidget *>(bars_)})
        widget->setVisible(isOpen && isHeard);
    if (isOpen) bars_->show(state.satellites);
    ends_->setText(
        !trial     ? tr("Choose or make a trial first.")
        : !isHeard ? tr("Measured by hand: type each try's value and press Enter.")
        : !isOpen  ? tr("Open a receiver on the left (or the simulated one), or type the value by hand.")
        : running
            ? tr("ends by itself at %1, or after %2 min").arg(runner_.endsAt()).arg(trial->longest_s / 60, 0, 'g', 2)
            : tr("Begins by itself when the receiver gets power."));
    arm_->setVisible(idle && isOpen && isHeard);
    arm_->setText(instruments_.isReceiverSimulated() ? tr("Start cold there") : tr("Wait for power"));
    arm_->setEnabled(setup != nullptr);
    now_->setVisible(runner_.state() == TryState::armed);
    stop_->setVisible(!idle);
    stop_->setText(running ? tr("Stop and keep") : tr("Cancel"));
    value_->setVisible(idle);
    value_->setEnabled(setup != nullptr);
}

void TryCard::enterValue() {
    const Trial *trial = byId(document_.build().log->trials, trial_);
    if (!trial) return;
    QString typed = value_->text().trimmed();
    Try one;
    one.setup = setup_;
    one.session = byId(document_.build().log->sessions, session_) ? session_ : std::string();
    one.at = timeNow();
    if (typed.startsWith('>')) { // given up after that long
        one.reached = false;
        typed = typed.mid(1).trimmed();
    }
    const bool isTime =
        trial->quantity == TrialQuantity::secondsToSatellites || trial->quantity == TrialQuantity::secondsToFix;
    const Measure measure = isTime                                           ? Measure::seconds
                            : trial->quantity == TrialQuantity::headingError ? Measure::angle
                            : trial->quantity == TrialQuantity::rangeReached ? Measure::distance
                            : trial->quantity == TrialQuantity::temperature  ? Measure::heat
                                                                             : Measure::number;
    one.value = app::typedNumber(typed, measure);
    if (!one.value) {
        emit said(app::notUnderstood(typed, measure), true);
        return;
    }
    if (document_.edit(tr("Enter a try"), addTry(document_.build(), trial_, one))) value_->clear();
}

} // namespace waxis::logbench
