// Numbers as a person types them.
#pragma once

#include <QLineEdit>
#include <QString>
#include <optional>

namespace waxis::app {

/// Decimal point or comma; a unit behind it may stay. None for anything else.
std::optional<double> typedNumber(const QString &text);

struct TypedWithDoubt {
    double value = 0;
    std::optional<double> doubt;
};
/// A quantity that cannot be negative, with its doubt behind it where one is given: "9.8", "9.8 ± 0.2 g", "9,8 +- 0,2".
std::optional<TypedWithDoubt> typedWithDoubt(QString text);

/// Puts text into a field unless somebody is typing there.
void putText(QLineEdit *field, const QString &text);

} // namespace waxis::app
