// The whole craft's mass and where it hangs, for those who read nothing else of its balance.
#pragma once

#include "core/balance/mass_properties.h"

#include <cstddef>
#include <optional>
#include <string_view>
#include <vector>

namespace waxis {

struct Allowance;
struct Derived;

/// Of a load case that is there; throws std::out_of_range for one that is not.
const CompoundMass &allUp(const Derived &derived, std::size_t loadCase = 0);
/// Thrust centre to centre of gravity; none without mass or motors. Throws alike.
const std::optional<Vec3> &offsetOf_mm(const Derived &derived, std::size_t loadCase = 0);
/// How many load cases have one.
std::size_t allUpCount(const Derived &derived);

/// What the motor on a mount pushes in hover; none where the case cannot be balanced, or there is none such.
std::optional<double> hoverThrust_N(const Derived &derived, std::size_t loadCase, std::size_t mount);
/// What a part, a plate, an arm or a standoff weighs; none when nobody knows, or there is no such thing.
std::optional<double> gramsOf(const Derived &derived, std::string_view id);
/// The wires that fly in a load case, as weights where they lie: for a craft in which they need not be led.
std::vector<Allowance> wiresAsWeights(const Derived &derived, std::size_t loadCase);

} // namespace waxis
