// What sits in the cores of wires, put in, moved and taken out.
#pragma once

#include "core/build/edit_result.h"

namespace waxis {

/// Halfway along the core; -1: round all of them. The type joins the build's own.
EditResult addInsert(const Build &build, const std::string &wire, const PartType &type, int core);
/// Another core, place (0 to 1 of the way) or direction of one that is there.
EditResult setInsert(const Build &build, const std::string &wire, std::size_t index, const WireInsert &next);
EditResult removeInsert(const Build &build, const std::string &wire, std::size_t index);

/// Whether such a part is put into wires: in-line parts, and capacitors with legs.
bool goesIntoWires(const PartType &type);

} // namespace waxis
