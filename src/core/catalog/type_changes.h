// One's own parts that were corrected after a build had taken them in.
#pragma once

#include "core/catalog/part_type.h"

#include <set>
#include <string>
#include <vector>

namespace waxis {

/// What differs between two states of a type, in words: "grams 9.8 → 10.2". What no field of
/// core/catalog/quick_fields asks for is told by what it is: "bodies", "connectors". Empty: nothing.
std::vector<std::string> differencesOf(const PartType &before, const PartType &after);

struct CorrectedType {
    std::string id;
    std::vector<std::string> differences;
};

/// The types of a build that stand otherwise among one's own (`own`: their ids in the library).
std::vector<CorrectedType> correctedTypes(const TypeTable &build, const TypeTable &library,
                                          const std::set<std::string> &own);

} // namespace waxis
