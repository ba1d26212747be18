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

std::optional<TypedWithDoubt> typedWithDoubt(QString text) {
    text.replace(QStringLiteral("+/-"), QStringLiteral("±")).replace(QStringLiteral("+-"), QStringLiteral("±"));
    const auto pieces = text.split(QStringLiteral("±"));
    const auto value = typedNumber(pieces.first());
    if (!value || *value < 0 || pieces.size() > 2) return std::nullopt;
    TypedWithDoubt typed{*value, {}};
    if (pieces.size() == 2) {
        typed.doubt = typedNumber(pieces[1]);
        if (!typed.doubt || *typed.doubt < 0) return std::nullopt;
    }
    return typed;
}

void putText(QLineEdit *field, const QString &text) {
    if (!field->hasFocus() || !field->isModified()) field->setText(text); // never under the typing hand
}

} // namespace waxis::app
