// Which numbers of a part type matter when one chooses among its kind.
#pragma once

#include "core/catalog/part_type.h"

#include <QString>
#include <functional>
#include <optional>
#include <vector>

namespace waxis::place {

struct TypeColumn {
    QString title;
    std::function<QString(const PartType &)> text;
};

/// Two or three short columns for one kind; for mixed lists (no kind) overall size and grams.
std::vector<TypeColumn> typeColumns(std::optional<PartKind> kind);

/// Everything in a line: size, grams, pattern, voltage, connectors.
QString typeInLine(const PartType &type);

} // namespace waxis::place
