// All operations of a craft and what orders them: geometry, tools, wires, heat and process.
#pragma once

#include "core/derived/derived.h"
#include "core/practice/practice.h"
#include "core/sequence/operation.h"

namespace waxis {

struct OperationGraph {
    std::vector<Operation> operations; ///< things in an order that holds, then joints, checks and own steps
    std::vector<OperationOrder> order; ///< each pair once, with the plainest reason; no circle
    std::vector<PlanRemark> remarks;
};

/// What geometry asks for always holds (`together` tells an order in which it does). Joints are made where the iron or
/// the plug gets to them: when their part is in, or in the hand before; what would make a circle with that (heat,
/// process, an own order without a note) is left out. `loadCase`: the one whose things the graph has.
OperationGraph operationsOf(const Build &build, const Practice &practice, const Derived &derived, BlockingGraph &graph,
                            const PutTogether &together, int loadCase);

} // namespace waxis
