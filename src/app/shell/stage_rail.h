// The nine stages, left: icon, word, key and a small count of open findings by severity.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QAbstractButton>
#include <QWidget>

namespace waxis::app {

class StageButton : public QAbstractButton {
    Q_OBJECT

public:
    StageButton(Stage stage, const theme::Theme &theme, QWidget *parent = nullptr);
    void setCounts(const FindingCounts &counts);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    Stage stage_;
    const theme::Theme &theme_;
    FindingCounts counts_;
};

class StageRail : public QWidget {
    Q_OBJECT

public:
    StageRail(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    void setStage(Stage stage);

signals:
    void stageChosen(waxis::Stage stage);

private:
    void recount();
    Document &document_;
    std::vector<StageButton *> buttons_;
};

} // namespace waxis::app
