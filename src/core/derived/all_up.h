// The whole craft's mass and where it hangs, for those who read nothing else of its balance.
#pragma once

#include "core/balance/mass_properties.h"

#include <cstddef>
#include <optional>

namespace waxis {

struct Derived;

/// Of a load case that is there; throws std::out_of_range for one that is not.
const CompoundMass &allUp(const Derived &derived, std::size_t loadCase = 0);
/// Thrust centre to centre of gravity; none without mass or motors. Throws alike.
const std::optional<Vec3> &offsetOf_mm(const Derived &derived, std::size_t loadCase = 0);
/// How many load cases have one.
std::size_t allUpCount(const Derived &derived);

} // namespace waxis
