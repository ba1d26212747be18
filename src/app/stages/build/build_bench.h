// The Build stage: the order of building, checks, settings, service.
#pragma once

#include "app/stages/bench.h"
#include "app/stages/build/checks_page.h"
#include "app/stages/build/plan_source.h"
#include "app/stages/build/service_page.h"
#include "app/stages/build/settings_page.h"
#include "app/stages/build/steps_page.h"

class QStackedWidget;
class QToolButton;

namespace waxis::assembly {

enum class Page { steps, checks, settings, service };

class BuildBench : public app::Bench {
    Q_OBJECT

public:
    BuildBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    PlanSource &source() { return *source_; }
    StepsPage &steps() { return *steps_; }
    ChecksPage &checks() { return *checks_; }
    SettingsPage &settings() { return *settings_; }
    ServicePage &service() { return *service_; }
    void showPage(Page page);
    void fit() override;
    bool isSettled() const { return source_->isSettled() && service_->isSettled(); }
    bool reveal(const QStringList &ids, RuleId rule) override;

signals:
    /// For a check: the pins of a wire, the weighings of a load case.
    void pinsWanted(const QString &wire);
    void weighingsWanted(const QString &loadCase);

protected:
    void showEvent(QShowEvent *event) override;
    void hideEvent(QHideEvent *event) override;

private:
    PlanSource *source_ = nullptr;
    StepsPage *steps_ = nullptr;
    ChecksPage *checks_ = nullptr;
    SettingsPage *settings_ = nullptr;
    ServicePage *service_ = nullptr;
    QStackedWidget *pages_ = nullptr;
    std::vector<QToolButton *> tabs_;
};

} // namespace waxis::assembly
