// Everything computed about a build as JSON; the keys are documented in docs/format/analysis.md and stay.
#pragma once

#include "core/analysis/analysis.h"

#include <nlohmann/json_fwd.hpp>
#include <string>

namespace waxis::io {

nlohmann::ordered_json analysisJson(const Build &build, const Analysis &analysis);
std::string analysisText(const Build &build, const Analysis &analysis);

} // namespace waxis::io
