// The Log stage: what was measured, what trials tell, planned against measured, states of the build.
#pragma once

#include "app/stages/bench.h"
#include "app/stages/log/changes_page.h"
#include "app/stages/log/entries_page.h"
#include "app/stages/log/planned_page.h"
#include "app/stages/log/session_column.h"
#include "app/stages/log/trials_page.h"

class QStackedWidget;
class QToolButton;

namespace waxis::logbench {

enum class Page { entries, trials, planned, changes };

class LogBench : public app::Bench {
    Q_OBJECT

public:
    LogBench(app::Document &document, app::Instruments &instruments, const theme::Theme &theme,
             QWidget *parent = nullptr);

    SessionColumn &sessions() { return *sessions_; }
    EntriesPage &entries() { return *entries_; }
    TrialsPage &trials() { return *trials_; }
    PlannedPage &planned() { return *planned_; }
    ChangesPage &changes() { return *changes_; }
    void showPage(Page page);
    bool isSettled() const { return planned_->isSettled() && changes_->isSettled() && trials_->isSettled(); }
    bool reveal(const QStringList &ids, RuleId rule) override;

private:
    app::Document &document_;
    SessionColumn *sessions_ = nullptr;
    EntriesPage *entries_ = nullptr;
    TrialsPage *trials_ = nullptr;
    PlannedPage *planned_ = nullptr;
    ChangesPage *changes_ = nullptr;
    QStackedWidget *pages_ = nullptr;
    std::vector<QToolButton *> tabs_;
};

} // namespace waxis::logbench
