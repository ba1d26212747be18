// Packs: others in the place of the one that is fitted, side by side.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/studies/packs.h"

#include <QFutureWatcher>
#include <QTimer>
#include <QWidget>
#include <atomic>
#include <memory>

class QLabel;
class QTableWidget;
class QToolButton;

namespace waxis::balance {

class PacksPage : public QWidget {
    Q_OBJECT

public:
    PacksPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    ~PacksPage() override;
    QTableWidget &table() { return *table_; }
    bool isSettled() const { return !isVisible() || (!quiet_.isActive() && !working_.isRunning()); }

protected:
    void showEvent(QShowEvent *event) override;

private:
    void ask();
    void workOut();
    void fill();
    std::string pack() const;

    app::Document &document_;
    const theme::Theme &theme_;
    QLabel *title_ = nullptr, *note_ = nullptr;
    QTableWidget *table_ = nullptr;
    QToolButton *fit_ = nullptr;
    QTimer quiet_;
    QFutureWatcher<std::vector<PackOption>> working_;
    std::shared_ptr<std::atomic<bool>> stop_ = std::make_shared<std::atomic<bool>>(false);
    std::vector<PackOption> options_;
    Build asked_;
    int askedCase_ = -1;
};

} // namespace waxis::balance
