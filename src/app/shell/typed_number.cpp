#include "app/shell/typed_number.h"

#include <cmath>

namespace waxis::app {

std::optional<double> typedNumber(const QString &text) {
    QString number = text.trimmed();
    number.replace(',', '.').replace(QChar(0x2212), '-');
    number.remove(QChar(0x00B0));
    const auto space = number.indexOf(' ');
    if (space > 0) number.truncate(space);
    bool good = false;
    const double value = number.toDouble(&good);
    return good && std::isfinite(value) ? std::optional(value) : std::nullopt;
}

void putText(QLineEdit *field, const QString &text) {
    if (!field->hasFocus() || !field->isModified()) field->setText(text); // never under the typing hand
}

} // namespace waxis::app
