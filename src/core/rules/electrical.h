// What rules of rails and of packs both need.
#pragma once

#include "core/build/build.h"

#include <cmath>
#include <fmt/format.h>
#include <string>

namespace waxis {

/// Volts or amperes with as many digits as they deserve.
inline std::string brief(double value) {
    return std::abs(value) < 10 ? fmt::format("{:.2g}", value) : fmt::format("{:.3g}", value);
}

/// Null for a part that is not there.
inline const PartType *typeOfId(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    return part ? typeOf(build, *part) : nullptr;
}

} // namespace waxis
