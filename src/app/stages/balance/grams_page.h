// Grams: what weighs most, what pulls which way, what makes it slow to turn, and what could go.
#pragma once

#include "app/stages/balance/bar_list.h"
#include "app/stages/balance/study_runner.h"
#include "app/widgets/card.h"

class QTableWidget;
class QToolButton;
class QLineEdit;

namespace waxis::balance {

class GramsPage : public QWidget {
    Q_OBJECT

public:
    GramsPage(app::Document &document, const theme::Theme &theme, StudyRunner &runner, QWidget *parent = nullptr);
    QTableWidget &table() { return *table_; }
    QTableWidget &savings() { return *savings_; }
    /// The mass table as it is saved.
    QString asCsv() const;

signals:
    void said(const QString &text, bool bad);

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();
    void refreshRows();
    void refreshLimits();
    void refreshSavings();
    void saveCsv();

    app::Document &document_;
    const theme::Theme &theme_;
    StudyRunner &runner_;
    QTableWidget *table_ = nullptr, *limits_ = nullptr, *savings_ = nullptr;
    std::array<BarList *, 3> inertia_{};
    std::array<QLabel *, 3> axis_{};
    QLabel *sum_ = nullptr, *limitNote_ = nullptr, *savingNote_ = nullptr;
    QLineEdit *limitName_ = nullptr, *limitGrams_ = nullptr;
    QToolButton *apply_ = nullptr, *removeLimit_ = nullptr;
    bool filling_ = false;
};

} // namespace waxis::balance
