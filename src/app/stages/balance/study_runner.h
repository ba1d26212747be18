// Works the balance study out on a copy, in the background, while the Balance bench is shown.
#pragma once

#include "app/document/document.h"
#include "core/studies/balance_study.h"
#include "core/studies/packs.h"

#include <QFutureWatcher>
#include <QTimer>
#include <atomic>
#include <memory>

namespace waxis::balance {

class StudyRunner : public QObject {
    Q_OBJECT

public:
    StudyRunner(app::Document &document, QObject *parent = nullptr);
    ~StudyRunner() override;

    /// Only while somebody looks.
    void setWanted(bool wanted);
    bool isSettled() const { return !wanted_ || (!quiet_.isActive() && !working_.isRunning() && !stale_); }
    /// Null before the first one. Its load cases may be fewer than the build's while it is stale.
    const BalanceStudy *study() const { return study_ ? &*study_ : nullptr; }
    /// The study of a load case, when there is one.
    const CaseStudy *caseStudy(int loadCase) const;
    /// Of an earlier state of the build.
    bool isStale() const { return stale_; }

signals:
    void ready();

private:
    void ask();
    void workOut();

    app::Document &document_;
    QTimer quiet_;
    QFutureWatcher<BalanceStudy> working_;
    std::shared_ptr<std::atomic<bool>> stop_ = std::make_shared<std::atomic<bool>>(false);
    std::optional<BalanceStudy> study_;
    Build asked_;
    bool wanted_ = false, stale_ = true;
};

} // namespace waxis::balance
