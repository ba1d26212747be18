// Target: the balance at a glance, what to slide, what else would do.
#pragma once

#include "app/stages/balance/bar_list.h"
#include "app/stages/balance/case_table.h"
#include "app/stages/balance/slide_panel.h"
#include "app/stages/balance/target_view.h"
#include "app/widgets/card.h"

#include <functional>

class QLineEdit;

namespace waxis::balance {

class TargetPage : public QWidget {
    Q_OBJECT

public:
    TargetPage(app::Document &document, const theme::Theme &theme, StudyRunner &runner, QWidget *parent = nullptr);
    TargetView &target() { return *target_; }
    SlidePanel &slide() { return *slide_; }
    CaseTable &cases() { return *cases_; }
    BarList &thrusts() { return *thrusts_; }

signals:
    void packsWanted();

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();
    void refreshThrusts();
    void refreshGrams();
    void refreshOthers();
    void applyThrust();
    const theme::Palette &c() const { return theme_.colors(); }
    bool slideable(const Part &part) const;
    /// What the slide that is looked at brings and takes away; empty: nothing else changes.
    QString spoiledWords(const std::vector<Spoiled> &spoiled) const;
    QString consequenceWords(const CaseStudy &study) const;

    app::Document &document_;
    const theme::Theme &theme_;
    StudyRunner &runner_;
    TargetView *target_ = nullptr;
    SlidePanel *slide_ = nullptr;
    CaseTable *cases_ = nullptr;
    BarList *thrusts_ = nullptr, *grams_ = nullptr;
    QLabel *thrustNote_ = nullptr, *otherNote_ = nullptr;
    QLineEdit *thrust_ = nullptr;
    theme::Card *others_ = nullptr;
    std::vector<theme::ChoiceRow *> rows_;
    std::vector<std::function<void()>> doings_; ///< what a click on each row does
};

} // namespace waxis::balance
