// The radios of the chosen part: channel and power; and what an antenna is.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;

namespace waxis::app {

class RadioRows : public QObject {
    Q_OBJECT

public:
    RadioRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent);
    void refresh();

private:
    const RadioBand *sendingBand(int *index) const; ///< first band of the chosen part that sends
    void applyPower();

    Document &document_;
    QFormLayout &form_;
    QComboBox *channel_ = nullptr;
    QLineEdit *power_ = nullptr;
    QLabel *antenna_ = nullptr;
};

} // namespace waxis::app
