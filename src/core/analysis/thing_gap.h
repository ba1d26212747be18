// The distance of two things, whatever they are.
#pragma once

#include "core/analysis/derived.h"

namespace waxis {

/// The shortest gap between two things by their ids, nearest points included; none when one has no bodies or does not
/// exist. Propeller discs do not count.
std::optional<BodyGap> gapBetween(const Derived &derived, const std::string &a, const std::string &b);

} // namespace waxis
