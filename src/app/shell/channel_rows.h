// What the pilot moves: the order of channels of the chosen receiver or controller, what another part wants.
#pragma once

#include "app/document/document.h"

class QFormLayout;
class QLineEdit;

namespace waxis::app {

class ChannelRows : public QObject {
    Q_OBJECT

public:
    ChannelRows(Document &document, QFormLayout &form, QObject *parent);
    void refresh();

private:
    void apply();

    Document &document_;
    QFormLayout &form_;
    QLineEdit *channels_ = nullptr;
};

} // namespace waxis::app
