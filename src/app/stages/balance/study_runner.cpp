#include "app/stages/balance/study_runner.h"

#include "core/analysis/analysis.h"

namespace waxis::balance {

StudyRunner::StudyRunner(app::Document &document, QObject *parent)
    : QObject(parent), document_(document),
      working_(
          150, [this] { return prepare(); }, [this](BalanceStudy study) { take(std::move(study)); }) {
    connect(&document_, &app::Document::changed, this, [this] {
        if (!document_.isPreviewing()) ask();
    });
    connect(&document_, &app::Document::opened, this, [this] {
        study_.reset();
        ask();
    });
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
    working_.ask();
}

app::Background<BalanceStudy>::Work StudyRunner::prepare() {
    asked_ = document_.build();
    // From the analysis at hand: its reports are shared, not copied.
    return [build = asked_, analysis = document_.analysis()](const std::atomic<bool> &stop) {
        return studyBalance(build, analysis, {}, &stop);
    };
}

void StudyRunner::take(BalanceStudy study) {
    study_ = std::move(study);
    stale_ = !(asked_ == document_.build());
    emit ready();
    if (stale_) ask();
}

} // namespace waxis::balance
