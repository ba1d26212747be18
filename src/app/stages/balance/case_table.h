// All load cases side by side; a click chooses one.
#pragma once

#include "app/document/document.h"
#include "app/widgets/mat_table.h"

namespace waxis::balance {

class CaseTable : public theme::MatTable {
    Q_OBJECT

public:
    CaseTable(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    void refresh();

protected:
    void showEvent(QShowEvent *event) override;

private:
    app::Document &document_;
};

} // namespace waxis::balance
