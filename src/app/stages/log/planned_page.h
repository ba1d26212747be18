// Planned against measured: differences in units of their doubt, and what taking them over would change.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/theme/theme.h"
#include "app/widgets/mat_table.h"
#include "core/edits/feedback_edits.h"
#include "core/studies/state_difference.h"

#include <QWidget>

class QLabel;
class QPushButton;

namespace waxis::logbench {

class PlannedPage : public QWidget {
    Q_OBJECT

public:
    PlannedPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    theme::MatTable &table() { return *table_; }
    /// What the chosen row would change is known, or there is nothing to take.
    bool isSettled() const { return outcome_.isSettled(); }

protected:
    void showEvent(QShowEvent *event) override;

private:
    struct Row {
        std::vector<Feedback> feedback;
        QString name;
    };
    void fill();
    void tell();
    void take();
    const Row *current() const;
    EditResult taken(const Row &row) const;

    app::Document &document_;
    const theme::Theme &theme_;
    std::vector<Row> rows_;
    theme::MatTable *table_ = nullptr;
    QLabel *detail_ = nullptr, *would_ = nullptr;
    QPushButton *take_ = nullptr;
    app::Background<StateDifference> outcome_;
};

/// "mends 2 findings (…), brings 1 (…); all-up weight 1184 to 1186 g": what another state changes.
QString differenceInWords(const Build &before, const Build &after, const StateDifference &difference);

} // namespace waxis::logbench
