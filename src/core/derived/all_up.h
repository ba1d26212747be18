// The whole craft's mass, for those who read nothing else of its balance.
#pragma once

#include "core/balance/mass_properties.h"

#include <cstddef>

namespace waxis {

struct Derived;

/// Of a load case that is there; throws std::out_of_range for one that is not.
const CompoundMass &allUp(const Derived &derived, std::size_t loadCase = 0);
/// How many load cases have one.
std::size_t allUpCount(const Derived &derived);

} // namespace waxis
