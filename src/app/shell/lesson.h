// A lesson that walks along: one strip that says the next step and notices when it is done.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>
#include <functional>
#include <vector>

class QLabel;
class QPushButton;

namespace waxis::app {

struct LessonStep {
    QString says;
    std::function<bool(const Build &, const Analysis &, Stage)> done;
};

/// The steps of docs/guide/first-build.md, in its order.
std::vector<LessonStep> firstBuildSteps();

class LessonStrip : public QWidget {
    Q_OBJECT

public:
    LessonStrip(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    void begin(const QString &title, std::vector<LessonStep> steps);
    void setStage(Stage stage);
    /// Index of the step that is wanted; as many as there are when all are done.
    int step() const { return step_; }
    int steps() const { return int(steps_.size()); }
    QString text() const;

signals:
    void left();

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    void look();

    Document &document_;
    const theme::Theme &theme_;
    QString title_;
    std::vector<LessonStep> steps_;
    int step_ = 0;
    Stage stage_ = Stage::place;
    QLabel *words_ = nullptr;
    QPushButton *next_ = nullptr, *leave_ = nullptr;
};

} // namespace waxis::app
