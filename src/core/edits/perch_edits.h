// A part onto a place that was offered, with what it needs there.
#pragma once

#include "core/build/edit_result.h"
#include "core/placing/perch.h"

namespace waxis {

/// Puts the part there, with its adapter plate or cheeks where it needs them. Boards that come together on one pattern
/// become a stack. A propeller gives its mount the diameter and plane of its blades and takes the mount's turn.
EditResult perchPart(const Build &build, const std::string &part, const Perch &perch, const TypeTable &adapters = {});

/// Adds one part of the type for each of the places; their ids are appended to `added`. Parts on arms and mounts are
/// named after the quarter that they are in.
EditResult addPerched(const Build &build, const PartType &type, const std::vector<Perch> &places,
                      const TypeTable &adapters, std::vector<std::string> *added = nullptr);

} // namespace waxis
