#include "app/document/cure_runner.h"

#include "app/document/background.h"

#include <QPromise>
#include <algorithm>

namespace waxis::app {

static constexpr int kRest_ms = 600; // the hands rest, and the survey goes first

CureRunner::CureRunner(Document &document, QObject *parent) : QObject(parent), document_(document) {
    rest_.setSingleShot(true);
    connect(&rest_, &QTimer::timeout, this, &CureRunner::start);
    connect(&document_, &Document::changed, this, &CureRunner::look);
    connect(&document_, &Document::judged, this, &CureRunner::look);
    connect(&run_, &QFutureWatcherBase::resultReadyAt, this, [this](int index) {
        if (!stop_ || stop_->load()) return;
        Tried found = run_.resultAt(index);
        known_[found.key] = std::move(found);
        emit tried();
    });
    connect(&run_, &QFutureWatcherBase::finished, this, [this] {
        underWay_ = false;
        emit tried();
    });
}

CureRunner::~CureRunner() {
    stop();
    run_.waitForFinished();
}

void CureRunner::stop() {
    if (stop_) stop_->store(true);
}

void CureRunner::look() {
    if (document_.isPreviewing()) return;
    if (!(of_ == document_.build())) {
        stop();
        known_.clear();
        of_ = document_.build();
    }
    rest_.start(kRest_ms);
}

void CureRunner::start() {
    if (document_.isPreviewing()) return;
    if (underWay_) {
        // It was told to stop and soon will, or there is more to try after it.
        rest_.start(first_.empty() ? kRest_ms : 20);
        return;
    }
    std::vector<Finding> wanted;
    for (const auto &finding : document_.analysis().findings) {
        const bool curable = !finding.fixes.empty() || finding.rule == RuleId::stkHeight;
        if (curable && !finding.accepted() && !isKnown(finding)) wanted.push_back(finding);
    }
    if (wanted.empty()) return;
    std::stable_partition(wanted.begin(), wanted.end(), [&](const Finding &f) { return f.key() == first_; });
    first_.clear();
    stop_ = std::make_shared<std::atomic<bool>>(false);
    underWay_ = true;
    run_.setFuture(inBackground(
        [](QPromise<Tried> &promise, const Build &build, const std::vector<Finding> &findings,
           const std::shared_ptr<std::atomic<bool>> &stopped) {
            CureTester tester(build, [stopped] { return stopped->load(); });
            for (const auto &finding : findings) {
                if (stopped->load()) return;
                Tried tried{finding.key(), finding.fixes.size(), tester.curesOf(finding)};
                if (stopped->load()) return; // half of them is not all
                promise.addResult(std::move(tried));
            }
        },
        document_.build(), std::move(wanted), stop_));
}

const std::vector<Cure> *CureRunner::curesOf(const Finding &finding) const {
    static const std::vector<Cure> none;
    if (finding.fixes.empty() && finding.rule != RuleId::stkHeight) return &none;
    return isKnown(finding) ? &known_.at(finding.key()).cures : nullptr;
}

bool CureRunner::isKnown(const Finding &finding) const {
    const auto at = known_.find(finding.key());
    return at != known_.end() && at->second.offered == finding.fixes.size();
}

void CureRunner::tryFirst(const std::string &findingKey) {
    first_ = findingKey;
    look();
    stop();
    rest_.start(0);
}

} // namespace waxis::app
