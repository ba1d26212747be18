// In what two states of a build differ, as far as anything is made of it.
#pragma once

#include "core/build/build.h"

#include <set>

namespace waxis {

/// What happened to a build between two looks at it.
struct BuildChanges {
    bool structure = true; ///< other parts, types, frame, stacks, load cases, kit, allowances: other bodies and rows
    bool copper = true;    ///< parts or their types: other pins and boards
    bool frame = true, wires = true, radio = true, weighings = true, log = true;
    bool rest = true;                 ///< anything at all beside the places of parts
    std::vector<std::size_t> changed; ///< without `structure`: parts that were moved or weighed
    std::vector<std::size_t> moved;   ///< those of them that stand elsewhere
    std::set<std::string> stacks;     ///< in which something moved or was weighed
    bool any() const { return rest || !changed.empty(); }
};

BuildChanges changesBetween(const Build &before, const Build &after);

/// Whether a survey of one build holds for the other: nothing moved, came or went.
bool sameToTheEye(const Build &a, const Build &b);

} // namespace waxis
