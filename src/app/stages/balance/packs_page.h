// Packs: others in the place of the one that is fitted, side by side.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/studies/packs.h"

#include <QWidget>

class QLabel;
class QTableWidget;
class QToolButton;

namespace waxis::balance {

class PacksPage : public QWidget {
    Q_OBJECT

public:
    PacksPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    QTableWidget &table() { return *table_; }
    bool isSettled() const { return !isVisible() || working_.isSettled(); }

protected:
    void showEvent(QShowEvent *event) override;

private:
    void ask();
    app::Background<std::vector<PackOption>>::Work prepare();
    void fill();
    std::string pack() const;

    app::Document &document_;
    const theme::Theme &theme_;
    QLabel *title_ = nullptr, *note_ = nullptr;
    QTableWidget *table_ = nullptr;
    QToolButton *fit_ = nullptr;
    std::vector<PackOption> options_;
    Build asked_;
    int askedCase_ = -1;
    app::Background<std::vector<PackOption>> working_;
};

} // namespace waxis::balance
