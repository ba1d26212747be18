#include "app/document/survey_runner.h"

#include "app/document/background.h"
#include "core/analysis/analysis.h"
#include "core/sequence/sweep_memory.h"
#include "core/survey/survey.h"

namespace waxis::app {

SurveyRunner::SurveyRunner(Document &document, QObject *parent)
    : QObject(parent), document_(document), memory_(std::make_shared<SweepMemory>()) {
    constexpr int kRest_ms = 120;
    rest_.setSingleShot(true);
    rest_.setInterval(kRest_ms);
    connect(&rest_, &QTimer::timeout, this, &SurveyRunner::start);
    connect(&document_, &Document::changed, this, &SurveyRunner::look);
    connect(&run_, &QFutureWatcherBase::resultReadyAt, this, [this](int index) {
        if (!stop_ || stop_->load()) return;
        const Seen seen = run_.resultAt(index);
        if (seen.wires && !document_.areWiresLed()) document_.setLedWires(seen.wires);
        if (seen.survey) document_.setSurvey(seen.survey);
    });
    connect(&run_, &QFutureWatcherBase::finished, this, [this] {
        underWay_ = false;
        look(); // something changed while it ran
        emit stateChanged();
    });
}

SurveyRunner::~SurveyRunner() {
    if (stop_) stop_->store(true);
    run_.waitForFinished();
}

void SurveyRunner::look() {
    if (document_.isPreviewing() || isUpToDate()) return;
    if (underWay_) stop_->store(true);
    rest_.start();
    emit stateChanged();
}

void SurveyRunner::start() {
    if (document_.isPreviewing() || isUpToDate()) return;
    if (underWay_) { // it was told to stop, and soon will
        rest_.start();
        return;
    }
    stop_ = std::make_shared<std::atomic<bool>>(false);
    underWay_ = true;
    run_.setFuture(inBackground([build = document_.build(), stop = stop_, memory = memory_](QPromise<Seen> &seen) {
        Analyser analyser;
        analyser.setRouteStop(stop.get());
        const Analysis &analysis = analyser.update(build);
        if (*stop) return;
        seen.addResult(Seen{analyser.ledWires(), nullptr});
        auto survey = std::make_shared<const Survey>(
            surveyOf(build, analysis.practice, analysis.derived, stop.get(), memory.get()));
        if (!*stop) seen.addResult(Seen{nullptr, std::move(survey)});
    }));
}

} // namespace waxis::app
