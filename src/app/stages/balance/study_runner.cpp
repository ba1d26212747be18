#include "app/stages/balance/study_runner.h"

#include "app/document/background.h"
#include "core/analysis/analysis.h"

namespace waxis::balance {

StudyRunner::StudyRunner(app::Document &document, QObject *parent) : QObject(parent), document_(document) {
    quiet_.setSingleShot(true);
    quiet_.setInterval(150);
    connect(&quiet_, &QTimer::timeout, this, &StudyRunner::workOut);
    connect(&working_, &QFutureWatcher<BalanceStudy>::finished, this, [this] {
        if (*stop_) return ask(); // it was called off: the build has moved on
        study_ = working_.result();
        stale_ = !(asked_ == document_.build());
        emit ready();
        if (stale_) ask();
    });
    connect(&document_, &app::Document::changed, this, [this] {
        if (!document_.isPreviewing()) ask();
    });
    connect(&document_, &app::Document::opened, this, [this] {
        study_.reset();
        ask();
    });
}

StudyRunner::~StudyRunner() {
    *stop_ = true;
    working_.waitForFinished();
}

void StudyRunner::setWanted(bool wanted) {
    wanted_ = wanted;
    if (wanted && stale_) ask();
}

const CaseStudy *StudyRunner::caseStudy(int loadCase) const {
    if (!study_ || loadCase < 0 || std::size_t(loadCase) >= study_->cases.size()) return nullptr;
    return &study_->cases[std::size_t(loadCase)];
}

void StudyRunner::ask() {
    stale_ = true;
    if (!wanted_) return;
    if (working_.isRunning()) *stop_ = true;
    quiet_.start();
}

void StudyRunner::workOut() {
    if (working_.isRunning()) return; // its end asks again
    asked_ = document_.build();
    stop_ = std::make_shared<std::atomic<bool>>(false);
    working_.setFuture(app::inBackground([build = asked_, stop = stop_] {
        Analyser analyser;
        return studyBalance(build, analyser.update(build), {}, stop.get());
    }));
}

} // namespace waxis::balance
