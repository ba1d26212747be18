// Whether a part type could be used in this build at all, and why not: for lists to choose from.
#pragma once

#include "core/base/sentence.h"
#include "core/build/build.h"

#include <optional>

namespace waxis {

/// None when it fits; else the first reason, a few words with the numbers: a motor's holes against the free mounts, a
/// board's pattern against the frame's patterns (adapter plates out of `adapters` help), a propeller's tips against
/// each other, the voltage of the pack against what the part takes. Where the build says nothing yet, all fits.
/// `instead`: the id of the part that it would replace; its place counts as free and as the only one.
std::optional<Sentence> misfit(const Build &build, const PartType &type, const TypeTable &adapters,
                               const std::string &instead = {});

} // namespace waxis
