// The inspector's page of a wire: the sum that its length is, and what can be chosen about it.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

#include <QWidget>

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QToolButton;

namespace waxis::app {

class WireExtras;

class WireCard : public QWidget {
    Q_OBJECT

public:
    WireCard(Document &document, const theme::Theme &theme, QWidget *parent = nullptr);
    /// False: no wire is chosen.
    bool refresh();

private:
    const Wire *wire() const;
    void change(const QString &name, const std::function<void(Wire &)> &how);

    Document &document_;
    const theme::Theme &theme_;
    QLineEdit *name_ = nullptr;
    QLabel *ends_ = nullptr, *sum_ = nullptr, *power_ = nullptr, *hint_ = nullptr;
    QComboBox *gauge_ = nullptr, *lay_ = nullptr, *make_ = nullptr;
    QLineEdit *bundle_ = nullptr;
    QToolButton *more_ = nullptr;
    WireExtras *extras_ = nullptr;
    bool filling_ = false;
};

} // namespace waxis::app
