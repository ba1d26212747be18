// What comes off before a part does, and how it goes back on: the same graphs as putting together.
#pragma once

#include "core/derived/derived.h"
#include "core/practice/practice.h"
#include "core/sequence/operation.h"

#include <optional>

namespace waxis {

/// One thing that is taken off, with what rests on it; its wires are undone before.
struct TakenOff {
    std::vector<std::string> things; ///< the one that is taken first, then what comes along
    bool fastener = false;
    Vec3 way = Vec3::UnitZ();   ///< unit vector out of the craft
    std::vector<JointEnd> undo; ///< where its wires are undone: at a plug where there is one
};

struct ServiceWay {
    std::string part;
    std::vector<TakenOff> off; ///< in the order of taking off; the part itself is the last
    int depth = 0;             ///< how many come off before it, fasteners not counted
};

/// The fewest found. None: the part is not aboard in the graph's load case, or nothing that may be taken off frees it.
std::optional<ServiceWay> serviceOf(const Build &build, BlockingGraph &graph, const std::string &part);

/// The same for a load case by its number.
std::optional<ServiceWay> serviceOf(const Build &build, const Practice &practice, const Derived &derived, int loadCase,
                                    const std::string &part);

/// What is changed often (propellers, antennas, cameras, packs) and lies deeper than the practice allows, or cannot be
/// got at.
void addServiceRemarks(const Build &build, const Practice &practice, BlockingGraph &graph,
                       std::vector<PlanRemark> &remarks);

} // namespace waxis
