// Weighings: what was measured of the whole craft, and whether the entries agree with it.
#pragma once

#include "app/document/document.h"
#include "app/widgets/card.h"
#include "core/base/quantity.h"

#include <functional>

class QComboBox;
class QLineEdit;
class QTableWidget;
class QToolButton;

namespace waxis::balance {

class WeighingsPage : public QWidget {
    Q_OBJECT

public:
    WeighingsPage(app::Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    QTableWidget &numbers() { return *numbers_; }
    QString verdict() const;
    /// Shows a weighing; false when there is none of that id.
    bool reveal(const QString &id);

protected:
    void showEvent(QShowEvent *event) override;

private:
    const Weighing *chosen() const;
    void add(WeighingMethod method);
    void change(const QString &name, const std::function<void(Weighing &)> &how);
    void refresh();
    void refreshForm();
    void refreshResults();
    void applyCell(int row, int column);
    void applyField(QLineEdit *field, Measure measure, const std::function<void(Weighing &, double)> &set);

    app::Document &document_;
    const theme::Theme &theme_;
    QTableWidget *list_ = nullptr, *numbers_ = nullptr, *masses_ = nullptr;
    QWidget *form_ = nullptr;
    QLineEdit *name_ = nullptr, *total_ = nullptr, *scaleDoubt_ = nullptr, *placeDoubt_ = nullptr;
    QComboBox *loadCase_ = nullptr;
    QLabel *hint_ = nullptr, *totalLabel_ = nullptr, *scaleLabel_ = nullptr, *placeLabel_ = nullptr,
           *verdict_ = nullptr, *result_ = nullptr;
    QToolButton *remove_ = nullptr, *more_ = nullptr, *fewer_ = nullptr;
    QString id_;
    bool filling_ = false;
};

} // namespace waxis::balance
