// Places for a GPS module or compass side by side: sky, distance, noise, heading, wire, all at once.
#pragma once

#include "app/document/background.h"
#include "app/document/document.h"
#include "app/theme/theme.h"
#include "core/studies/radio_places.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QTableWidget;
class QToolButton;

namespace waxis::radio {

class PlacesPage : public QWidget {
    Q_OBJECT

public:
    PlacesPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    QTableWidget &table() { return *table_; }
    bool isSettled() const { return working_.isSettled(); }

protected:
    void showEvent(QShowEvent *event) override;

private:
    std::string part() const;
    std::string chosenTrial() const;
    void listParts();
    void wait();
    app::Background<std::vector<PlaceReport>>::Work prepare();
    void fill();

    app::Document &document_;
    const theme::Theme &theme_;
    QComboBox *which_ = nullptr;
    QTableWidget *table_ = nullptr;
    QToolButton *add_ = nullptr, *take_ = nullptr, *remove_ = nullptr;
    QLabel *note_ = nullptr;
    std::vector<PlaceReport> reports_;
    Build asked_;
    app::Background<std::vector<PlaceReport>> working_;
};

} // namespace waxis::radio
