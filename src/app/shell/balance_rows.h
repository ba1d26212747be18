// What the chosen part does to the balance, and how far it may slide.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;

namespace waxis::app {

class BalanceRows : public QObject {
    Q_OBJECT

public:
    BalanceRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent);
    /// Shown in the Balance stage only.
    void setShown(bool shown);
    void refresh();

private:
    void applyAxis(int index);
    void applyRange();

    Document &document_;
    QFormLayout &form_;
    QComboBox *axis_ = nullptr;
    QLineEdit *range_ = nullptr;
    QLabel *pulls_ = nullptr, *doubt_ = nullptr;
    bool shown_ = false;
};

} // namespace waxis::app
