// What the trade calls the kinds of parts, and by which other words people look for them.
#pragma once

#include "core/catalog/part_type.h"

#include <span>
#include <string_view>

namespace waxis {

/// "flight controller", "four-in-one ESC", "battery pack" ...: lower case, as within a sentence.
std::string_view kindName(PartKind kind);

/// Other words for the same: "fc", "autopilot". Lower case; the words of kindName are not repeated.
std::span<const std::string_view> kindSynonyms(PartKind kind);

/// "power", "control" ...: lower case.
std::string_view familyName(Family family);

} // namespace waxis
