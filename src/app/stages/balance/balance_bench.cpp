#include "app/stages/balance/balance_bench.h"

#include "app/widgets/bench_bar.h"

#include <QHBoxLayout>
#include <QScrollArea>
#include <QStackedWidget>
#include <QToolButton>
#include <QVBoxLayout>

namespace waxis::balance {

BalanceBench::BalanceBench(app::Document &document, const theme::Theme &theme, QWidget *parent)
    : app::Bench(parent), document_(document) {
    setObjectName("balance-bench");
    runner_ = new StudyRunner(document, this);
    target_ = new TargetPage(document, theme, *runner_);
    grams_ = new GramsPage(document, theme, *runner_);
    packs_ = new PacksPage(document, theme);
    propellers_ = new PropellersPage(document, theme);
    doubt_ = new DoubtPage(document, theme, *runner_);
    weighings_ = new WeighingsPage(document, theme);

    auto *bar = theme::makeBenchBar(theme, this);
    auto *line = static_cast<QHBoxLayout *>(bar->layout());
    tabs_ = theme::addPageTabs(*bar,
                               {{tr("Target"), "page-target"},
                                {tr("Grams"), "page-grams"},
                                {tr("Packs"), "page-packs"},
                                {tr("Propellers"), "page-propellers"},
                                {tr("Doubt"), "page-doubt"},
                                {tr("Weighings"), "page-weighings"}},
                               [this](int page) { showPage(Page(page)); });
    pages_ = new QStackedWidget;
    for (QWidget *page :
         {static_cast<QWidget *>(target_), static_cast<QWidget *>(grams_), static_cast<QWidget *>(packs_),
          static_cast<QWidget *>(propellers_), static_cast<QWidget *>(doubt_), static_cast<QWidget *>(weighings_)}) {
        auto *scroll = new QScrollArea; // a low window scrolls the page; none may make the window higher
        scroll->setWidgetResizable(true);
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setObjectName("balance-scroll");
        scroll->setWidget(page);
        scroll->setFocusPolicy(Qt::NoFocus);
        pages_->addWidget(scroll);
    }
    line->addStretch(1);
    auto *all = new QVBoxLayout(this);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    all->addWidget(bar);
    all->addWidget(pages_, 1);
    connect(target_, &TargetPage::packsWanted, this, [this] { showPage(Page::packs); });
    connect(grams_, &GramsPage::said, this, &BalanceBench::said);
    theme.dress(*this, theme::Ground::mat);
    showPage(Page::target);
}

void BalanceBench::showPage(Page page) {
    pages_->setCurrentIndex(int(page));
    tabs_[std::size_t(page)]->setChecked(true);
}

void BalanceBench::fit() {
    if (Page(pages_->currentIndex()) == Page::target) target_->target().fit();
}

void BalanceBench::zoomToChosen() {
    if (Page(pages_->currentIndex()) == Page::target) target_->target().zoomToChosen();
}

bool BalanceBench::reveal(const QStringList &ids, RuleId rule) {
    const auto pageOf = [&] {
        for (const auto &id : ids)
            if (weighings_->reveal(id)) return Page::weighings;
        switch (rule) {
        case RuleId::balWeight: return Page::grams;
        case RuleId::balSure: return Page::doubt;
        case RuleId::balMeasured: return Page::weighings;
        default: return Page::target;
        }
    };
    showPage(pageOf());
    return true;
}

void BalanceBench::showEvent(QShowEvent *event) {
    QWidget::showEvent(event);
    runner_->setWanted(true);
}

void BalanceBench::hideEvent(QHideEvent *event) {
    QWidget::hideEvent(event);
    runner_->setWanted(false);
}

} // namespace waxis::balance
