// What is measured and tried, what should be found, and what was.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"
#include "core/sequence/checks.h"

#include <QWidget>

class QLabel;

namespace waxis::assembly {

class ChecksPage : public QWidget {
    Q_OBJECT

public:
    ChecksPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    theme::MatTable &table() { return *table_; }
    const std::vector<Check> &checks() const { return checks_; }
    /// Goes to the first check of a gate that is open.
    void showGate(Gate gate);

protected:
    void showEvent(QShowEvent *event) override;

private:
    void fill();
    void tell();
    void entered(int row);

    app::Document &document_;
    const theme::Theme &theme_;
    std::vector<Check> checks_;
    theme::MatTable *table_ = nullptr;
    QLabel *how_ = nullptr, *caution_ = nullptr, *summary_ = nullptr;
};

} // namespace waxis::assembly
