// Limits that older files may name and no rule reads any more.
#pragma once

#include <array>
#include <string_view>

namespace waxis {

/// "mix-loss" gave way to intercepts and filters (RAD-4).
constexpr std::array<std::string_view, 1> retiredLimits() { return {"mix-loss"}; }

} // namespace waxis
