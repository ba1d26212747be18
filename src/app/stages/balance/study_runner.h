// Works the balance study out on a copy, in the background, while the Balance bench is shown.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "core/studies/balance_study.h"
#include "core/studies/packs.h"

#include <QObject>
#include <optional>

namespace waxis::balance {

class StudyRunner : public QObject {
    Q_OBJECT

public:
    StudyRunner(app::Document &document, QObject *parent = nullptr);

    /// Only while somebody looks.
    void setWanted(bool wanted);
    bool isSettled() const { return !wanted_ || (working_.isSettled() && !stale_); }
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
    app::Background<BalanceStudy>::Work prepare();
    void take(BalanceStudy study);

    app::Document &document_;
    app::Background<BalanceStudy> working_;
    std::optional<BalanceStudy> study_;
    Build asked_;
    bool wanted_ = false, stale_ = true;
};

} // namespace waxis::balance
