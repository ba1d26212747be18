// The Balance stage: the target, the grams, packs, propellers, the doubt, and what the scale says.
#pragma once

#include "app/stages/balance/doubt_page.h"
#include "app/stages/balance/grams_page.h"
#include "app/stages/balance/packs_page.h"
#include "app/stages/balance/propellers_page.h"
#include "app/stages/balance/target_page.h"
#include "app/stages/balance/weighings_page.h"
#include "app/stages/bench.h"

class QStackedWidget;
class QToolButton;

namespace waxis::balance {

enum class Page { target, grams, packs, propellers, doubt, weighings };

class BalanceBench : public app::Bench {
    Q_OBJECT

public:
    BalanceBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    TargetPage &target() { return *target_; }
    GramsPage &grams() { return *grams_; }
    PacksPage &packs() { return *packs_; }
    PropellersPage &propellers() { return *propellers_; }
    DoubtPage &doubt() { return *doubt_; }
    WeighingsPage &weighings() { return *weighings_; }
    StudyRunner &runner() { return *runner_; }
    void showPage(Page page);
    /// Of the target, where it is shown.
    void fit() override;
    void zoomToChosen() override;
    /// Nothing is being worked out in the background.
    bool isSettled() const { return runner_->isSettled() && packs_->isSettled() && propellers_->isSettled(); }
    /// Looks at what a finding is about.
    bool reveal(const QStringList &ids, RuleId rule) override;

protected:
    void showEvent(QShowEvent *event) override;
    void hideEvent(QHideEvent *event) override;

private:
    app::Document &document_;
    StudyRunner *runner_ = nullptr;
    TargetPage *target_ = nullptr;
    GramsPage *grams_ = nullptr;
    PacksPage *packs_ = nullptr;
    PropellersPage *propellers_ = nullptr;
    DoubtPage *doubt_ = nullptr;
    WeighingsPage *weighings_ = nullptr;
    QStackedWidget *pages_ = nullptr;
    std::vector<QToolButton *> tabs_;
};

} // namespace waxis::balance
