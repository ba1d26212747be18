// What steps are called within sentences.
#pragma once

#include "core/sequence/plan.h"

#include <string>
#include <vector>

namespace waxis {

/// Wires and parts of a step's joints, each once.
std::vector<std::string> wiresOf(const Step &step);
std::vector<std::string> partsOf(const Step &step);
/// "the joints at flight controller"; of what goes in the thing that is meant, else all of them.
std::string stepName(const Build &build, const AssemblyPlan &plan, std::size_t step, const std::string &thing);
/// Of an operation by its id, for what is not in the plan any more: "buzzer", "the joints at buzzer".
std::string operationName(const Build &build, const std::string &operation);

} // namespace waxis
