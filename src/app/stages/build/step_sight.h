// What is seen at a step: what is there already, and what is new.
#pragma once

#include "core/sequence/plan.h"

#include <set>
#include <string>

namespace waxis::assembly {

struct StepSight {
    std::set<std::string> hidden; ///< things and wires that come later or are not aboard
    std::set<std::string> fresh;  ///< things and wires that the step is about
};
StepSight sightOf(const Build &build, const AssemblyPlan &plan, std::size_t step);

} // namespace waxis::assembly
