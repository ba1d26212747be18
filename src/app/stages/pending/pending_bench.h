// A stage that is not built yet says so, in one honest line.
#pragma once

#include "app/stages/bench.h"
#include "app/theme/theme.h"
#include "core/findings/finding.h"

#include <QWidget>

namespace waxis::app {

struct StageText {
    QString id, name, coming;
};
/// Name and promise of each stage, in the order of the bench.
const std::vector<StageText> &stageTexts();
bool isBuilt(Stage stage);

class PendingBench : public Bench {
    Q_OBJECT

public:
    PendingBench(Stage stage, const theme::Theme &theme, QWidget *parent = nullptr);

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    Stage stage_;
    const theme::Theme &theme_;
};

} // namespace waxis::app
