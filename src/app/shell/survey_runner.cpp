#include "app/shell/survey_runner.h"

#include <QtConcurrent>

namespace waxis::app {

SurveyRunner::SurveyRunner(Document &document, QObject *parent) : QObject(parent), document_(document) {
    constexpr int kRest_ms = 120;
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, &SurveyRunner::start);
    connect(&document_, &Document::changed, this, &SurveyRunner::look);
    connect(&run_, &QFutureWatcherBase::finished, this, [this] {
        const bool whole = stop_ && !stop_->load();
        if (whole) document_.setSurvey(run_.result());
        look(); // something changed while it ran
        emit stateChanged();
    });
}

SurveyRunner::~SurveyRunner() {
    if (stop_) stop_->store(true);
    run_.waitForFinished();
}

void SurveyRunner::look() {
    if (document_.isPreviewing() || document_.isSurveyed()) return;
    if (run_.isRunning()) stop_->store(true);
    rest_.start();
    emit stateChanged();
}

void SurveyRunner::start() {
    if (document_.isPreviewing() || document_.isSurveyed()) return;
    if (run_.isRunning()) { // it was told to stop, and soon will
        rest_.start();
        return;
    }
    stop_ = std::make_shared<std::atomic<bool>>(false);
    run_.setFuture(QtConcurrent::run([build = document_.build(), stop = stop_]() -> std::shared_ptr<const Survey> {
        Analyser analyser;
        return std::make_shared<const Survey>(surveyOf(build, analyser.update(build), stop.get()));
    }));
}

} // namespace waxis::app
