// All load cases side by side; a click chooses one.
#pragma once

#include "app/stages/balance/study_runner.h"
#include "app/theme/theme.h"

#include <QTableWidget>

namespace waxis::balance {

class CaseTable : public QTableWidget {
    Q_OBJECT

public:
    CaseTable(app::Document &document, const theme::Theme &theme, const StudyRunner &runner, QWidget *parent = nullptr);
    void refresh();

private:
    app::Document &document_;
    const theme::Theme &theme_;
    const StudyRunner &runner_;
};

/// A table on the mat, in its colours, without frame or grid.
void dressMatTable(QTableWidget &table, const theme::Theme &theme);
void prepareMatTable(QTableWidget &table, const QStringList &heads);

} // namespace waxis::balance
