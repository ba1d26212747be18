#include "devices/gnss_link.h"

#include <array>

namespace waxis {

namespace {
// The likeliest first: receivers of multirotors leave the factory with these.
constexpr std::array kRates{38400, 115200, 9600, 57600, 230400, 460800, 19200};
constexpr int kSearch_ms = 1000, kWatch_ms = 250, kReplay_ms = 50;
constexpr qint64 kPowerGap_ms = 3000, kAlive_ms = 2500, kLost_ms = 5000;
} // namespace

GnssLink::GnssLink(QObject *parent) : QObject(parent) {
    search_.setInterval(kSearch_ms);
    watch_.setInterval(kWatch_ms);
    replay_.setInterval(kReplay_ms);
    connect(&search_, &QTimer::timeout, this, &GnssLink::nextRate);
    connect(&watch_, &QTimer::timeout, this, &GnssLink::watch);
    connect(&replay_, &QTimer::timeout, this, &GnssLink::feedReplay);
    connect(&line_, &SerialLine::received, this, &GnssLink::take);
    connect(&line_, &SerialLine::stateChanged, this, &GnssLink::stateChanged);
}

void GnssLink::open(const QString &port, int baud) {
    close();
    receiver_ = Receiver();
    restarts_ = powers_ = 0;
    powerRound_ = 0;
    hadBytes_ = false;
    isSearching_ = baud == 0;
    rate_ = 0;
    sentencesBefore_ = refusedBefore_ = 0;
    line_.open(port, baud > 0 ? baud : kRates[0]);
    watch_.start();
    if (isSearching_) search_.start();
    emit stateChanged();
}

bool GnssLink::replay(const QString &file, double speed) {
    close();
    receiver_ = Receiver();
    restarts_ = powers_ = 0;
    powerRound_ = 0;
    hadBytes_ = false;
    file_.setFileName(file);
    if (!file_.open(QIODevice::ReadOnly)) {
        error_ = tr("%1 cannot be read: %2").arg(file, file_.errorString());
        return false;
    }
    error_.clear();
    replaySpeed_ = speed;
    replayFrom_s_.reset();
    clockSpeed_ = speed;
    byRounds_ = false;
    replayClock_.start();
    replay_.start();
    watch_.start();
    emit stateChanged();
    return true;
}

void GnssLink::close() {
    search_.stop();
    watch_.stop();
    replay_.stop();
    file_.close();
    isSearching_ = isAlive_ = false;
    line_.close();
    emit stateChanged();
}

double GnssLink::sincePower_s() const {
    if (byRounds_) return double(receiver_.counts().rounds - powerRound_);
    return sincePower_.isValid() ? clockSpeed_ * double(sincePower_.elapsed()) / 1000 : 0;
}

void GnssLink::take(const QByteArray &bytes) {
    emit bytesCame(bytes);
    // A simulated one says itself when it starts anew; that the machine was busy is no switching off.
    const bool afterSilence = !hadBytes_ || (!byRounds_ && sinceBytes_.elapsed() > kPowerGap_ms);
    hadBytes_ = true;
    sinceBytes_.start();
    const auto power = [this] {
        sincePower_.start();
        powerRound_ = receiver_.counts().rounds;
        ++powers_;
        emit powered();
    };
    if (afterSilence) power();
    // Line by line: each round is looked at, however many come at once.
    for (qsizetype from = 0; from < bytes.size();) {
        const qsizetype end = bytes.indexOf('\n', from);
        const qsizetype next = end < 0 ? bytes.size() : end + 1;
        const int rounds = receiver_.feed({bytes.constData() + from, std::size_t(next - from)});
        from = next;
        if (receiver_.restarts() != restarts_) {
            restarts_ = receiver_.restarts();
            if (!afterSilence) power();
        }
        if (rounds > 0) {
            isAlive_ = true;
            emit updated();
        }
    }
}

void GnssLink::nextRate() {
    const auto &counts = receiver_.counts();
    const std::uint64_t whole = counts.sentences - sentencesBefore_, wrong = counts.refused - refusedBefore_;
    sentencesBefore_ = counts.sentences;
    refusedBefore_ = counts.refused;
    if (line_.state() != LineState::open && line_.state() != LineState::silent) return;
    constexpr std::uint64_t kSure = 4;
    if (whole >= kSure && whole > wrong) {
        isSearching_ = false;
        search_.stop();
        emit stateChanged();
        return;
    }
    rate_ = (rate_ + 1) % int(kRates.size());
    line_.setBaud(kRates[std::size_t(rate_)]);
    emit stateChanged();
}

void GnssLink::watch() {
    if (isAlive_ && sinceBytes_.elapsed() > kAlive_ms) {
        isAlive_ = false;
        receiver_.finish();
        emit updated();
        emit stateChanged();
    }
    // A rate that was found and says nothing sensible any more was changed on the other side.
    if (!isSearching_ && line_.state() == LineState::open && !file_.isOpen() && hadBytes_ &&
        sinceBytes_.elapsed() < kAlive_ms) {
        const auto &counts = receiver_.counts();
        if (counts.sentences != sentencesBefore_) {
            sentencesBefore_ = counts.sentences;
            lastWhole_.start();
        } else if (lastWhole_.isValid() && lastWhole_.elapsed() > kLost_ms) {
            isSearching_ = true;
            search_.start();
            lastWhole_.invalidate();
            emit stateChanged();
        }
    }
}

void GnssLink::feedReplay() {
    // As many lines as their times of day say are due; lines without a time go with those before them.
    const double due_s = double(replayClock_.elapsed()) / 1000 * replaySpeed_;
    constexpr int kMostLines = 20000;
    for (int i = 0; i < kMostLines && !file_.atEnd(); ++i) {
        const auto time_s = receiver_.state().time_s;
        if (time_s) {
            if (!replayFrom_s_) replayFrom_s_ = *time_s - due_s;
            if (*time_s - *replayFrom_s_ > due_s) return;
        } else if (i > 0 && double(receiver_.counts().rounds) > due_s) {
            return; // before time is known: a round a second
        }
        take(file_.readLine(4096));
    }
    if (file_.atEnd()) {
        receiver_.finish();
        emit updated();
        replay_.stop();
        isAlive_ = false;
        emit stateChanged();
    }
}

QString GnssLink::summary() const {
    if (!isOpen()) return tr("none");
    if (file_.isOpen()) return replay_.isActive() ? tr("replayed") : tr("recording is over");
    const QString advice = line_.advice();
    if (!advice.isEmpty()) return advice;
    if (isSearching_) return tr("looking for its rate: %1").arg(line_.baud());
    const ReceiverState &state = receiver_.state();
    return tr("%1 baud, %2 used of %3").arg(line_.baud()).arg(state.used).arg(state.inView);
}

} // namespace waxis
