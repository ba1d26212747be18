#include "app/stages/log/log_bench.h"

#include "app/widgets/bench_bar.h"
#include "core/base/by_id.h"
#include "core/build/log.h"
#include "core/measured/log_report.h"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::logbench {

LogBench::LogBench(app::Document &document, app::Instruments &instruments, const theme::Theme &theme, QWidget *parent)
    : app::Bench(parent), document_(document) {
    setObjectName("log-bench");
    sessions_ = new SessionColumn(document, instruments, theme);
    entries_ = new EntriesPage(document, instruments, theme);
    trials_ = new TrialsPage(document, instruments, theme);
    planned_ = new PlannedPage(document, theme);
    changes_ = new ChangesPage(document, theme);
    auto *bar = theme::makeBenchBar(theme, this);
    tabs_ = theme::addPageTabs(*bar,
                               {{tr("Entries"), "page-entries"},
                                {tr("Trials"), "page-trials"},
                                {tr("Planned and measured"), "page-planned"},
                                {tr("Changes"), "page-changes"}},
                               [this](int page) { showPage(Page(page)); });
    static_cast<QHBoxLayout *>(bar->layout())->addStretch(1);
    pages_ = new QStackedWidget;
    for (QWidget *page : {static_cast<QWidget *>(entries_), static_cast<QWidget *>(trials_),
                          static_cast<QWidget *>(planned_), static_cast<QWidget *>(changes_)})
        pages_->addWidget(page);
    auto *middle = new QHBoxLayout;
    middle->setContentsMargins(10, 8, 10, 8);
    middle->setSpacing(8);
    middle->addWidget(sessions_);
    middle->addWidget(pages_, 1);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(bar);
    all->addLayout(middle, 1);
    const auto follow = [this] {
        entries_->setSession(sessions_->session());
        trials_->setSession(sessions_->session());
    };
    connect(sessions_, &SessionColumn::chosen, this, follow);
    connect(entries_, &EntriesPage::sessionWanted, sessions_, [this, follow] {
        sessions_->begin();
        follow();
    });
    connect(entries_, &EntriesPage::said, this, &LogBench::said);
    connect(trials_, &TrialsPage::said, this, &LogBench::said);
    connect(changes_, &ChangesPage::said, this, &LogBench::said);
    theme.dress(*this, theme::Ground::mat);
    follow();
    showPage(Page::entries);
}

void LogBench::showPage(Page page) {
    pages_->setCurrentIndex(int(page));
    tabs_[std::size_t(page)]->setChecked(true);
}

bool LogBench::reveal(const QStringList &ids, RuleId rule) {
    const Log &log = *document_.build().log;
    switch (rule) {
    case RuleId::logTrial: {
        showPage(Page::trials);
        const LogReport &report = *document_.analysis().derived.log;
        for (const auto &trial : report.trials)
            if (const Trial *own = byId(log.trials, trial.trial);
                own && !trial.winner.empty() && ids.contains(QString::fromStdString(own->part)))
                trials_->choose(own->id);
        return true;
    }
    case RuleId::logState: showPage(Page::changes); return true;
    case RuleId::logOpen:
    case RuleId::logReadings: {
        showPage(Page::entries);
        // The last entry of that thing that is open.
        for (auto at = log.entries.rbegin(); at != log.entries.rend(); ++at) {
            const bool opens = at->quantity == Quantity::openEnd || at->quantity == Quantity::fault ||
                               at->quantity == Quantity::damage;
            if (rule == RuleId::logOpen && (!opens || !at->cure.empty())) continue;
            if (!ids.isEmpty() && (at->subjects.empty() || !ids.contains(QString::fromStdString(at->subjects[0]))))
                continue;
            sessions_->choose(at->session);
            entries_->setSession(at->session);
            entries_->chooseEntry(at->id);
            break;
        }
        return true;
    }
    default: showPage(Page::planned); return true;
    }
}

} // namespace waxis::logbench
