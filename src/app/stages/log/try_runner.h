// A try as it runs: armed, begun by power, ended by enough satellites, by time, or by hand.
#pragma once

#include "app/document/document.h"
#include "app/document/instruments.h"
#include "core/build/log.h"
#include "core/log/try_recorder.h"

#include <QObject>
#include <memory>

namespace waxis::logbench {

enum class TryState { idle, armed, running };

class TryRunner : public QObject {
    Q_OBJECT

public:
    TryRunner(app::Document &document, app::Instruments &instruments, QObject *parent = nullptr);

    /// The next start of the receiver begins a try of that way. A simulated receiver is started where the way says.
    void arm(const std::string &trial, const std::string &setup, const std::string &session);
    /// Begins at once, with the receiver as it runs.
    void beginNow();
    /// Keeps what there is.
    void end();
    /// Throws it away.
    void cancel();

    TryState state() const { return state_; }
    std::string trial() const { return trial_; }
    std::string setup() const { return setup_; }
    double running_s() const;
    const TryRecorder *recorder() const { return recorder_.get(); }
    /// It ends by itself at so many satellites.
    int endsAt() const { return endsAt_; }
    /// Where the nose points, from north turning east; kept with the next try.
    void setNose(double nose_deg) { nose_deg_ = nose_deg; }

signals:
    void changed();
    void kept(const QString &trial, const QString &tryId);
    void said(const QString &text, bool bad);

private:
    void begin();
    void look();

    app::Document &document_;
    app::Instruments &instruments_;
    TryState state_ = TryState::idle;
    std::string trial_, setup_, session_, at_;
    std::unique_ptr<TryRecorder> recorder_;
    double from_s_ = 0, nose_deg_ = 0;
    int endsAt_ = 12, power_ = 0;
    double longest_s_ = 600;
};

} // namespace waxis::logbench
