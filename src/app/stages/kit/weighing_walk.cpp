#include "app/stages/kit/weighing_walk.h"

#include "app/widgets/port_strip.h"
#include "core/base/by_id.h"
#include "core/build/log.h"
#include "core/edits/kit_edits.h"
#include "core/edits/log_edits.h"
#include "core/kit/kit.h"
#include "core/log/fingerprint.h"

#include <QApplication>
#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

namespace waxis::kit {

namespace {
constexpr double kDoubt_g = 0.2; // a scale that reads to 0.1 g
constexpr int kFigure_px = 40;

std::string timeNow() {
    const QDateTime now = QDateTime::currentDateTime();
    return now.toOffsetFromUtc(now.offsetFromUtc()).toString(Qt::ISODate).toStdString();
}

QString nameOf(const Build &build, const std::string &item) { return QString::fromStdString(kitItemName(build, item)); }
} // namespace

WeighingWalk::WeighingWalk(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
                           QWidget *parent)
    : QWidget(parent), document_(document), instruments_(instruments) {
    setObjectName("weighing-walk");
    figure_ = new QLabel;
    figure_->setObjectName("weighing-figure");
    figure_->setFont(theme.numbers(kFigure_px, true));
    words_ = new QLabel;
    words_->setObjectName("weighing-words");
    words_->setWordWrap(true);
    words_->setFont(theme.text(15));
    start_ = new QPushButton(tr("Weigh the kit"));
    start_->setObjectName("weighing-start");
    start_->setToolTip(tr("One piece after the other: put it on, the row is filled"));
    skip_ = new QPushButton(tr("Not this one"));
    skip_->setObjectName("weighing-skip");
    auto *line = new QHBoxLayout(this);
    line->setContentsMargins(16, 6, 16, 6);
    line->addWidget(new app::PortStrip(app::InstrumentKind::scale, document, instruments, theme));
    line->addWidget(figure_);
    line->addWidget(words_, 1);
    line->addWidget(skip_);
    line->addWidget(start_);
    next_.setSingleShot(true);
    connect(start_, &QPushButton::clicked, this, [this] { running_ ? stop() : start(); });
    connect(skip_, &QPushButton::clicked, this, &WeighingWalk::skip);
    connect(&next_, &QTimer::timeout, this, &WeighingWalk::ask);
    connect(&instruments_.scale(), &ScaleLink::read, this, &WeighingWalk::refresh);
    connect(&instruments_.scale(), &ScaleLink::settled, this, &WeighingWalk::settled);
    connect(&instruments_, &app::Instruments::changed, this, &WeighingWalk::refresh);
    connect(&document_, &app::Document::opened, this, &WeighingWalk::stop);
    refresh();
}

void WeighingWalk::start(const std::string &from) {
    left_.clear();
    done_ = 0;
    for (const auto &line : *document_.analysis().derived.kit)
        if (line.needed > 0 && !line.weighedMass_g.known()) left_.push_back(line.item);
    for (std::size_t turns = left_.size(); turns > 0 && !from.empty() && left_.front() != from; --turns) {
        left_.push_back(left_.front());
        left_.pop_front();
    }
    if (left_.empty()) {
        emit said(tr("Everything in this kit is weighed."), false);
        return;
    }
    if (!instruments_.scale().isOpen()) {
        emit said(tr("Open the scale first, or the simulated one."), true);
        return;
    }
    running_ = true;
    ask();
}

void WeighingWalk::stop() {
    next_.stop();
    if (running_ && instruments_.isScaleSimulated()) instruments_.tellScale("off");
    running_ = false;
    refresh();
}

void WeighingWalk::skip() {
    if (!running_ || left_.empty()) return;
    left_.pop_front();
    if (instruments_.isScaleSimulated()) instruments_.tellScale("off");
    ask();
}

void WeighingWalk::ask() {
    if (!running_) return;
    if (left_.empty()) {
        running_ = false;
        emit said(tr("Nothing is left: %n pieces weighed.", nullptr, done_), false);
        refresh();
        return;
    }
    const QString item = QString::fromStdString(left_.front());
    if (instruments_.isScaleSimulated()) instruments_.tellScale("put " + item);
    emit asksFor(item);
    refresh();
}

void WeighingWalk::settled(double mass_g, const QString &raw) {
    if (!running_ || left_.empty() || next_.isActive()) return;
    const std::string item = left_.front();
    EditResult next = weighKit(document_.build(), item, measuredValue(mass_g, kDoubt_g));
    // The log keeps it as well, in a session of today.
    const std::string now = timeNow();
    const Session *latest = latestSession(document_.build());
    std::string session = latest && latest->at.substr(0, 10) == now.substr(0, 10) ? latest->id : std::string();
    if (next && session.empty()) {
        Session today;
        today.id = session = freshId(*next, "session");
        today.name = tr("Kit weighed").toStdString();
        today.at = now;
        today.fingerprint = fingerprintOf(*next);
        next = addSession(*next, today);
    }
    if (next) {
        Entry entry;
        entry.session = session;
        entry.quantity = Quantity::partWeight;
        entry.subjects = {item};
        entry.values = {mass_g};
        entry.tolerance = kDoubt_g;
        entry.instrument = instruments_.isScaleSimulated() ? "simulated scale" : "scale";
        entry.raw = raw.toStdString();
        entry.at = now;
        next = addEntry(*next, entry);
    }
    if (!document_.edit(tr("Weigh %1").arg(nameOf(document_.build(), item)), next)) return stop();
    QApplication::beep(); // heard where one looks at the piece, not at the screen
    ++done_;
    left_.pop_front();
    const bool simulated = instruments_.isScaleSimulated();
    if (simulated) instruments_.tellScale("off");
    // A real piece is lifted by hand, and the scale says so; a simulated one goes by itself.
    constexpr int kLift_ms = 1500;
    if (simulated)
        next_.start(std::max(50, int(kLift_ms / instruments_.speed())));
    else
        ask();
}

void WeighingWalk::refresh() {
    const ScaleLink &scale = instruments_.scale();
    const bool open = instruments_.scale().isOpen();
    const auto reading = scale.reading();
    figure_->setVisible(open);
    figure_->setText(reading ? tr("%1 g").arg(reading->mass_g, 0, 'f', 1) : tr("— g"));
    start_->setText(running_ ? tr("Stop weighing") : tr("Weigh the kit"));
    start_->setVisible(open);
    skip_->setVisible(running_);
    if (running_ && !left_.empty())
        words_->setText(
            tr("Put on: %1 · %n left", nullptr, int(left_.size())).arg(nameOf(document_.build(), left_.front())));
    else
        words_->setText(open ? tr("One piece after the other, until nothing is left.") : QString());
}

} // namespace waxis::kit
