// Places for a GPS module or compass side by side: sky, distance, noise, heading, wire, all at once.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/studies/radio_places.h"

#include <QFutureWatcher>
#include <QTimer>
#include <QWidget>
#include <atomic>
#include <memory>

class QComboBox;
class QLabel;
class QTableWidget;
class QToolButton;

namespace waxis::radio {

class PlacesPage : public QWidget {
    Q_OBJECT

public:
    PlacesPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    ~PlacesPage() override;
    QTableWidget &table() { return *table_; }
    bool isSettled() const { return !quiet_.isActive() && !working_.isRunning(); }

protected:
    void showEvent(QShowEvent *event) override;

private:
    std::string part() const;
    std::string chosenTrial() const;
    void listParts();
    void wait();
    void workOut();
    void fill();

    app::Document &document_;
    const theme::Theme &theme_;
    QComboBox *which_ = nullptr;
    QTableWidget *table_ = nullptr;
    QToolButton *add_ = nullptr, *take_ = nullptr, *remove_ = nullptr;
    QLabel *note_ = nullptr;
    QTimer quiet_;
    QFutureWatcher<std::vector<PlaceReport>> working_;
    std::shared_ptr<std::atomic<bool>> stop_;
    std::vector<PlaceReport> reports_;
    Build asked_;
};

} // namespace waxis::radio
