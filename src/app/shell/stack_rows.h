// What the inspector says about a part that lies in a stack.
#pragma once

#include "app/document/document.h"
#include "app/theme/theme.h"

class QFormLayout;
class QLabel;

namespace waxis::app {

class StackRows : public QObject {
    Q_OBJECT

public:
    StackRows(Document &document, const theme::Theme &theme, QFormLayout &form, QObject *parent);
    void refresh();

private:
    Document &document_;
    QFormLayout &form_;
    QLabel *says_ = nullptr;
};

} // namespace waxis::app
