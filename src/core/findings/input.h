// What judge found, handed to word by name.
#pragma once

#include "core/findings/finding.h"

#include <optional>
#include <string_view>

namespace waxis {

/// None where judge did not give it.
inline std::optional<double> maybeInput(const Finding &finding, std::string_view name) {
    for (const auto &input : finding.inputs)
        if (input.name == name) return input.value;
    return std::nullopt;
}

/// Throws std::bad_optional_access where judge did not give it: the two then no longer agree.
inline double inputOf(const Finding &finding, std::string_view name) { return maybeInput(finding, name).value(); }

} // namespace waxis
