// Rows of a form that come and go.
#pragma once

#include <QFormLayout>
#include <QLabel>

namespace waxis::app {

/// QFormLayout::setRowVisible came with Qt 6.4 but leaves the gap of rows that hold layouts; labels are hidden by hand.
inline void showRow(QFormLayout &form, QWidget *field, bool shown) {
    field->setVisible(shown);
    if (auto *label = form.labelForField(field)) label->setVisible(shown);
}

} // namespace waxis::app
