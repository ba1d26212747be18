// A satellite receiver on a serial port, or its recording: what it knows, and since when it has power.
#pragma once

#include "core/nmea/receiver.h"
#include "devices/serial_line.h"

#include <QElapsedTimer>
#include <QFile>
#include <QObject>
#include <QTimer>

namespace waxis {

/// Finds the rate by itself: each usual one for a second, the one with the most whole sentences is taken; again after
/// five seconds without any. Power is when the first bytes come, come again after three seconds of silence, or the
/// receiver starts anew by what it says.
class GnssLink : public QObject {
    Q_OBJECT

public:
    explicit GnssLink(QObject *parent = nullptr);

    /// `baud` 0: search.
    void open(const QString &port, int baud = 0);
    /// A recording, `speed` times as fast as it was; false with a word in error().
    bool replay(const QString &file, double speed);
    void close();

    const SerialLine &line() const { return line_; }
    const Receiver &receiver() const { return receiver_; }
    bool isOpen() const { return line_.state() != LineState::closed || file_.isOpen(); }
    bool isSearching() const { return isSearching_; }
    /// Rounds have come lately.
    bool isAlive() const { return isAlive_; }
    double sincePower_s() const;
    /// Counts up with each new power.
    int powers() const { return powers_; }
    QString error() const { return error_; }
    /// What it is, in a few words: "38400 baud, 11 of 19 in use".
    QString summary() const;

    /// A simulated receiver runs faster than the clock, one round a second of its own: its rounds are what is counted,
    /// so that a window that is busy for a moment shortens nothing.
    void countByRounds(bool byRounds) { byRounds_ = byRounds; }

signals:
    void updated();      ///< a round ended; once for each
    void stateChanged(); ///< of the line, the search or the rate
    void powered();      ///< it started
    void bytesCame(const QByteArray &bytes);

private:
    void take(const QByteArray &bytes);
    void nextRate();
    void watch();
    void feedReplay();

    SerialLine line_;
    Receiver receiver_;
    QTimer search_, watch_, replay_;
    QFile file_;
    double replaySpeed_ = 1;
    std::optional<double> replayFrom_s_;
    QElapsedTimer replayClock_;
    bool isSearching_ = false, isAlive_ = false, hadBytes_ = false;
    int rate_ = 0, powers_ = 0, restarts_ = 0;
    std::uint64_t sentencesBefore_ = 0, refusedBefore_ = 0;
    double clockSpeed_ = 1; ///< of what is replayed
    bool byRounds_ = false;
    std::uint64_t powerRound_ = 0;
    QElapsedTimer sinceBytes_, sincePower_, lastWhole_;
    QString error_;
};

} // namespace waxis
