// Numbers as a person types them.
#pragma once

#include <QLineEdit>
#include <QString>
#include <optional>

namespace waxis::app {

/// Decimal point or comma; a unit behind it may stay. None for anything else.
std::optional<double> typedNumber(const QString &text);

/// Puts text into a field unless somebody is typing there.
void putText(QLineEdit *field, const QString &text);

} // namespace waxis::app
