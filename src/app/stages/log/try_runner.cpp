#include "app/stages/log/try_runner.h"

#include "app/stages/log/session_column.h"
#include "app/widgets/port_strip.h"
#include "core/base/by_id.h"
#include "core/edits/log_edits.h"
#include "core/edits/part_edits.h"

#include <algorithm>

namespace waxis::logbench {

TryRunner::TryRunner(app::Document &document, app::Instruments &instruments, QObject *parent)
    : QObject(parent), document_(document), instruments_(instruments) {
    connect(&instruments_.gnss(), &GnssLink::powered, this, [this] {
        if (state_ == TryState::armed) return begin();
        if (state_ != TryState::running) return;
        // Switched off and on again: what was is one try, what begins is not asked for.
        end();
    });
    connect(&instruments_.gnss(), &GnssLink::updated, this, &TryRunner::look);
    connect(&document_, &app::Document::opened, this, &TryRunner::cancel);
}

void TryRunner::arm(const std::string &trialId, const std::string &setupId, const std::string &session) {
    const Trial *trial = byId(document_.build().log->trials, trialId);
    const TrialSetup *setup = trial ? byId(trial->setups, setupId) : nullptr;
    if (!setup) return;
    cancel();
    trial_ = trialId;
    setup_ = setupId;
    session_ = session;
    constexpr int kUsual = 12; // enough for any threshold that is asked for afterwards
    endsAt_ = std::max(trial->satellites, kUsual);
    longest_s_ = trial->longest_s;
    state_ = TryState::armed;
    if (instruments_.isReceiverSimulated()) {
        const QString part = trial->part.empty() ? app::receiverPart(document_) : QString::fromStdString(trial->part);
        EditResult placed = document_.build();
        if (setup->stood) placed = movePart(*placed, part.toStdString(), setup->stood->X_FramePart);
        if (!placed) {
            emit said(QString::fromStdString(placed.error().message), true);
            return cancel();
        }
        nose_deg_ = instruments_.nose_deg();
        instruments_.simulateReceiver(*placed, part);
    }
    emit changed();
}

void TryRunner::beginNow() {
    if (state_ != TryState::armed) return;
    begin();
}

void TryRunner::begin() {
    recorder_ = std::make_unique<TryRecorder>();
    from_s_ = instruments_.gnss().sincePower_s();
    at_ = timeNow();
    state_ = TryState::running;
    emit changed();
}

double TryRunner::running_s() const {
    return state_ == TryState::running ? std::max(0.0, instruments_.gnss().sincePower_s() - from_s_) : 0;
}

void TryRunner::look() {
    if (state_ != TryState::running) return;
    recorder_->add(running_s(), instruments_.gnss().receiver().state());
    emit changed();
    if (recorder_->mostUsed() >= endsAt_ || running_s() >= longest_s_) end();
}

void TryRunner::end() {
    if (state_ != TryState::running) return;
    state_ = TryState::idle;
    Try one = recorder_->result();
    recorder_.reset();
    if (!(one.watched_s > 0)) {
        emit said(tr("Nothing was heard: no try was kept."), true);
        emit changed();
        return;
    }
    const Build &build = document_.build();
    one.id = freshId(build, trial_ + "-try");
    one.setup = setup_;
    one.session = byId(build.log->sessions, session_) ? session_ : std::string();
    one.at = at_;
    one.nose_deg = nose_deg_;
    one.instrument = instruments_.isReceiverSimulated() ? "simulated receiver" : "receiver";
    if (document_.edit(tr("Keep a try"), addTry(build, trial_, one)))
        emit kept(QString::fromStdString(trial_), QString::fromStdString(one.id));
    emit changed();
}

void TryRunner::cancel() {
    if (state_ == TryState::idle) return;
    state_ = TryState::idle;
    recorder_.reset();
    emit changed();
}

} // namespace waxis::logbench
