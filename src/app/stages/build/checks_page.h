// What is measured and tried, what should be found, and what was.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"
#include "core/sequence/checks.h"

#include <QWidget>

class QLabel;
class QToolButton;

namespace waxis::assembly {

class ChecksPage : public QWidget {
    Q_OBJECT

public:
    ChecksPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    theme::MatTable &table() { return *table_; }
    const std::vector<Check> &checks() const { return checks_; }
    /// Goes to the first check of a gate that is open.
    void showGate(Gate gate);

signals:
    /// What helps with the chosen check is wanted: the pins of a wire, the scale's page for a load case, the settings.
    void pinsWanted(const QString &wire);
    void weighingsWanted(const QString &loadCase);
    void settingsWanted();

protected:
    void showEvent(QShowEvent *event) override;

private:
    void fill();
    void tell();
    void entered(int row);
    void look();

    app::Document &document_;
    const theme::Theme &theme_;
    std::vector<Check> checks_;
    theme::MatTable *table_ = nullptr;
    QToolButton *look_ = nullptr;
    QLabel *how_ = nullptr, *caution_ = nullptr, *summary_ = nullptr;
};

} // namespace waxis::assembly
