// A kit list on the way in: columns mapped, rows looked over, then taken.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"
#include "io/csv/kit_csv.h"

#include <QWidget>

class QLabel;
class QPushButton;
class QTableWidget;

namespace waxis::kit {

class ListPage : public QWidget {
    Q_OBJECT

public:
    ListPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);

    void open(const QString &path);
    const KitList &list() const { return list_; }
    void take();

signals:
    void finished(bool taken);

private:
    void mapAgain();
    void refresh();
    void showOutcomes();

    app::Document &document_;
    const theme::Theme &theme_;
    CsvTable table_;
    std::vector<KitColumn> columns_;
    KitList list_;
    QString name_;
    QLabel *title_ = nullptr, *summary_ = nullptr, *problems_ = nullptr;
    QTableWidget *preview_ = nullptr;
    QPushButton *take_ = nullptr;
};

} // namespace waxis::kit
