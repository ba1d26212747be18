// All load cases side by side; a click chooses one.
#pragma once

#include "app/stages/balance/study_runner.h"
#include "app/theme/mat_table.h"

namespace waxis::balance {

class CaseTable : public theme::MatTable {
    Q_OBJECT

public:
    CaseTable(app::Document &document, const theme::Theme &theme, const StudyRunner &runner, QWidget *parent = nullptr);
    void refresh();

protected:
    void showEvent(QShowEvent *event) override;

private:
    app::Document &document_;
    const StudyRunner &runner_;
};

} // namespace waxis::balance
