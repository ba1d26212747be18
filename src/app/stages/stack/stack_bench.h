// The Stack stage: the column cut open, screw, closest place, tolerances and what-if beside it.
#pragma once

#include "app/stages/bench.h"
#include "app/stages/stack/screw_card.h"
#include "app/stages/stack/stack_canvas.h"
#include "app/stages/stack/whatif_card.h"

class QHBoxLayout;
class QScrollArea;
class QToolButton;

namespace waxis {
struct StackBase;
}

namespace waxis::stackbench {

class StackBench : public app::Bench {
    Q_OBJECT

public:
    StackBench(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    StackFocus &focus() { return focus_; }
    StackCanvas &canvas() { return *canvas_; }
    ScrewCard &screws() { return *screws_; }
    WhatIfCard &whatIf() { return *whatIf_; }
    /// Shows the first of the things that stands in a stack; false when none does.
    void fit() override { canvas().fit(); }
    void zoomToChosen() override { canvas().zoomToChosen(); }
    bool reveal(const QStringList &ids, RuleId rule) override;

protected:
    void showEvent(QShowEvent *event) override;
    void hideEvent(QHideEvent *event) override;

private:
    QWidget *makeBar();
    void makeTabs();
    void fillNewMenu(QMenu &menu);
    void fillBaseMenu(QMenu &menu);
    void addHolds(QMenu &menu, const Stack &stack);  ///< screws, ties or a strap
    void addEnds(QMenu &menu, const Stack &stack);   ///< where the heads are and what the screws turn into
    void addPlates(QMenu &menu, const Stack &stack); ///< how far down the screws go
    void askDepth();
    void askCut();
    void askSag();
    /// A length with its doubt, typed in a dialog; empty: not known. None when the dialog is left or not understood.
    std::optional<Measured> askMeasured(const QString &title, const QString &question, const Measured &now);
    void askName();
    void setBase(const StackBase &next);

    app::Document &document_;
    const theme::Theme &theme_;
    StackFocus focus_;
    StackCanvas *canvas_ = nullptr;
    ScrewCard *screws_ = nullptr;
    WhatIfCard *whatIf_ = nullptr;
    QToolButton *furnish_ = nullptr;
    QHBoxLayout *tabs_ = nullptr;
    QScrollArea *cards_ = nullptr;
    std::vector<QToolButton *> tabButtons_;
};

} // namespace waxis::stackbench
