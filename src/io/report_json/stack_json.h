// Stacks, motor screws and the bill of hardware as JSON.
#pragma once

#include "core/analysis/analysis.h"

#include <nlohmann/json_fwd.hpp>

namespace waxis::io {

/// List of stacks with layers, gaps, screws, tolerances, harnesses and what would make them close. `withSuggestions`
/// costs some tens of milliseconds a stack that has something amiss.
nlohmann::ordered_json stacksJson(const Build &build, const Analysis &analysis, bool withSuggestions = true);
nlohmann::ordered_json motorScrewsJson(const Derived &derived);
nlohmann::ordered_json hardwareJson(const Build &build, const Practice &practice);
nlohmann::ordered_json changeJson(const Build &build, const StackChange &change);

} // namespace waxis::io
