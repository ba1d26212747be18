// Is a part type sound enough to build with? For the part editor and for lists of types.
#pragma once

#include "core/catalog/material.h"
#include "core/catalog/part_type.h"

namespace waxis {

struct PartFault {
    std::string where; ///< "mass", "body 2", "port uart1", "mounting"...
    std::string what;  ///< what is wrong and what would do
    bool stops = true; ///< false: odd, but it can be kept
    bool operator==(const PartFault &) const = default;
};

/// Faults in the order of the editor. Stops: no name or id, sizes that are not positive, crossing outlines, two ports
/// of one id, directions without length, limits the wrong way round, mount holes outside the board. Odd: no mass, no
/// body, a density that no such thing has (below 0.02 or above 12 g/cm3), a supply without a ground, unknown materials.
std::vector<PartFault> faultsOf(const PartType &type, const std::vector<Material> &materials = {});

/// The id that a name makes: lower case, digits, dashes; never empty.
std::string idFromName(const std::string &name);

} // namespace waxis
