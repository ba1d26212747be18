// How large the plugs of the usual families are, where nobody has measured one.
#pragma once

#include "core/geometry/pose.h"

#include <optional>
#include <string_view>

namespace waxis {

/// Body of a plug of this family with so many ways: along its wires, across and in height, mm. Crimp housings by their
/// pitch ("1.25 mm lock plug"), battery plugs by their rating, coaxial plugs by name. Makers differ by some tenths of a
/// millimetre; from memory of makers' drawings. None: the family is not known, or it has no ways.
std::optional<Vec3> plugBody_mm(std::string_view family, int ways);

} // namespace waxis
