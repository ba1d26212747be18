// Where a compass sits.
#pragma once

#include "core/catalog/part_type.h"

namespace waxis {

/// Where the magnetic sensor of a part is; none: it has no compass. A GPS module with bus wires that does not say has
/// it in its middle.
std::optional<Vec3> compassPlace(const PartType &type);

} // namespace waxis
