// The angles of the chosen part: its camera's tilt, and the numbers to enter in the controller.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

class QFormLayout;
class QLabel;
class QLineEdit;

namespace waxis::app {

class MountingRows : public QObject {
    Q_OBJECT

public:
    MountingRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent);
    void refresh();

private:
    void applyTilt();

    Document &document_;
    QFormLayout &form_;
    QLineEdit *tilt_ = nullptr;
    QLabel *enter_ = nullptr;
};

} // namespace waxis::app
