#include "app/stages/build/build_bench.h"

#include "app/widgets/bench_bar.h"

#include <QHBoxLayout>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::assembly {

BuildBench::BuildBench(app::Document &document, const theme::Theme &theme, QWidget *parent) : app::Bench(parent) {
    setObjectName("build-bench");
    source_ = new PlanSource(document, this);
    steps_ = new StepsPage(document, theme, *source_);
    checks_ = new ChecksPage(document, theme);
    settings_ = new SettingsPage(document, theme);
    service_ = new ServicePage(document, theme);
    auto *bar = theme::makeBenchBar(theme, this);
    auto *line = static_cast<QHBoxLayout *>(bar->layout());
    tabs_ = theme::addPageTabs(*bar,
                               {{tr("Steps"), "page-steps"},
                                {tr("Checks"), "page-checks"},
                                {tr("Settings"), "page-settings"},
                                {tr("Service"), "page-service"}},
                               [this](int page) { showPage(Page(page)); });
    line->addStretch(1);
    pages_ = new QStackedWidget;
    for (QWidget *page : {static_cast<QWidget *>(steps_), static_cast<QWidget *>(checks_),
                          static_cast<QWidget *>(settings_), static_cast<QWidget *>(service_)})
        pages_->addWidget(page);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(bar);
    all->addWidget(pages_, 1);
    connect(steps_, &StepsPage::said, this, &BuildBench::said);
    connect(steps_, &StepsPage::checksWanted, this, [this](Gate gate) {
        showPage(Page::checks);
        checks_->showGate(gate);
    });
    connect(checks_, &ChecksPage::settingsWanted, this, [this] { showPage(Page::settings); });
    connect(checks_, &ChecksPage::pinsWanted, this, &BuildBench::pinsWanted);
    connect(checks_, &ChecksPage::weighingsWanted, this, &BuildBench::weighingsWanted);
    theme.dress(*this, theme::Ground::mat);
    showPage(Page::steps);
}

void BuildBench::showPage(Page page) {
    pages_->setCurrentIndex(int(page));
    tabs_[std::size_t(page)]->setChecked(true);
}

void BuildBench::fit() {
    if (Page(pages_->currentIndex()) == Page::steps) steps_->fit();
}

bool BuildBench::reveal(const QStringList &ids, RuleId rule) {
    if (rule == RuleId::seqService && !ids.isEmpty()) {
        showPage(Page::service);
        service_->choose(ids.first().toStdString());
        return true;
    }
    for (const auto &id : ids)
        if (const int at = source_->stepOf(id.toStdString()); at >= 0) {
            showPage(Page::steps);
            steps_->choose(at);
            return true;
        }
    showPage(Page::steps);
    return true;
}

void BuildBench::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    source_->setWanted(true);
}

void BuildBench::hideEvent(QHideEvent *event) {
    QWidget::hideEvent(event);
    source_->setWanted(false);
}

} // namespace waxis::assembly
