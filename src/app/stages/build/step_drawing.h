// One step as a drawing: what is in already is pale, what comes has its full colour and its way in, what is joined is
// lit.
#pragma once

#include "app/document/document.h"
#include "app/drawing/build_scene.h"
#include "core/sequence/plan.h"

#include <QGraphicsView>
#include <set>
#include <string>

namespace waxis::assembly {

class StepDrawing : public QGraphicsView {
    Q_OBJECT

public:
    StepDrawing(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    /// What is there before step `at` of the plan, and the step itself. Of the two views the one in which more of what
    /// is new is seen, until somebody chooses.
    void show(const AssemblyPlan &plan, int at);
    void setView(drawing::View view);
    drawing::View view() const { return scene_.view(); }
    void fit();
    /// What is new fills a good part of the drawing, with what it goes onto round it.
    void closeUp();
    const drawing::BuildScene &drawn() const { return scene_; }

signals:
    void viewChanged();

protected:
    void showEvent(QShowEvent *event) override;
    void resizeEvent(QResizeEvent *event) override;

private:
    std::vector<drawing::Picture> picturesOf(const Step &step);
    void look(QRectF content);
    drawing::View betterView(const Step &step) const;

    app::Document &document_;
    const theme::Theme &theme_;
    drawing::BuildScene scene_;
    std::optional<Step> step_;
    std::set<std::string> fresh_; ///< things and wires that the step is about
    bool chosenView_ = false;
    bool whole_ = false; ///< somebody wants to see all of it
    QRectF news_;        ///< what the step is about, as it is seen
};

} // namespace waxis::assembly
