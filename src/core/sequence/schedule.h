// Among the orders that are possible one that is good to work by.
#pragma once

#include "core/sequence/operations.h"

#include <set>
#include <string>
#include <vector>

namespace waxis {

struct Preferences {
    bool armsFirst = true;        ///< else the stacks
    std::set<std::string> ticked; ///< ids of operations that are done: they stay in front
};

/// List scheduling: of what may come next what keeps the craft's side, then the place, then joints before more covers
/// them, then the like and the tool; a step of the builder's own as soon as it may. Indices of operations, each once;
/// every edge holds.
std::vector<std::size_t> schedule(const OperationGraph &graph, const Preferences &preferences);

} // namespace waxis
