// A named set of part types, as shipped or as the user keeps it.
#pragma once

#include "core/catalog/part_type.h"

namespace waxis {

struct PartLibrary {
    std::string name;
    TypeTable types;
    bool operator==(const PartLibrary &) const = default;
};

} // namespace waxis
