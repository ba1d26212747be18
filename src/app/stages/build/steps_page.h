// The strip of steps, the drawing of the one that is chosen, and what it says.
#pragma once

#include "app/stages/build/step_drawing.h"
#include "app/stages/build/step_list.h"
#include "app/stages/build/step_solid.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QStackedWidget;
class QToolButton;

namespace waxis::assembly {

class StepsPage : public QWidget {
    Q_OBJECT

public:
    StepsPage(app::Document &document, const theme::Theme &theme, PlanSource &source, QWidget *parent = nullptr);

    StepList &steps() { return *list_; }
    StepDrawing &drawing() { return *drawing_; }
    StepSolid &inSpace() { return *inSpace_; }
    void fit();
    void choose(int step) { list_->choose(step); }

signals:
    void said(const QString &text, bool bad);
    /// The gate's checks are wanted.
    void checksWanted(waxis::Gate gate);

private:
    void show(int step);
    void tick(int step);
    void order(int step, int before);
    /// Operations of the two sides of a drop, as wishes.
    std::vector<OwnOrder> wishes(int step, int before, const std::string &note) const;
    void say(QLabel &label, const QString &text);

    app::Document &document_;
    const theme::Theme &theme_;
    PlanSource &source_;
    StepList *list_ = nullptr;
    StepDrawing *drawing_ = nullptr;
    StepSolid *inSpace_ = nullptr;
    QStackedWidget *drawings_ = nullptr;
    QLabel *title_ = nullptr, *takes_ = nullptr, *why_ = nullptr, *caution_ = nullptr, *progress_ = nullptr;
    QToolButton *tick_ = nullptr, *checks_ = nullptr, *plan_ = nullptr, *side_ = nullptr, *addOwn_ = nullptr,
                *removeOwn_ = nullptr, *planOrder_ = nullptr, *solid_ = nullptr, *again_ = nullptr;
    QLineEdit *own_ = nullptr, *ownText_ = nullptr;
    QWidget *against_ = nullptr;
    QLabel *reason_ = nullptr;
    QLineEdit *note_ = nullptr;
    int wantedStep_ = -1, wantedBefore_ = -1;
};

} // namespace waxis::assembly
