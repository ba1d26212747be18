// Doubt: how sure the balance is, drawn many times, and what to weigh next.
#pragma once

#include "app/stages/balance/target_view.h"
#include "app/widgets/card.h"

class QTableWidget;

namespace waxis::balance {

class DoubtPage : public QWidget {
    Q_OBJECT

public:
    DoubtPage(app::Document &document, const theme::Theme &theme, StudyRunner &runner, QWidget *parent = nullptr);
    QString facts() const;

protected:
    void showEvent(QShowEvent *event) override;

private:
    void refresh();

    app::Document &document_;
    const theme::Theme &theme_;
    StudyRunner &runner_;
    TargetView *target_ = nullptr;
    QLabel *facts_ = nullptr, *advice_ = nullptr;
    QTableWidget *next_ = nullptr;
};

} // namespace waxis::balance
