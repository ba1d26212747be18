// Inside report_json: the order in which a craft goes together.
#pragma once

#include "core/sequence/plan.h"

#include <string>

namespace waxis::io {

/// As `weightaxis-cli steps --json` writes it (docs/format/analysis.md).
std::string stepsText(const Build &build, const AssemblyPlan &plan);

} // namespace waxis::io
