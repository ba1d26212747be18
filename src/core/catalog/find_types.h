// Looking for part types by what people type: kinds and their other names, makers, numbers with their meaning.
#pragma once

#include "core/catalog/part_type.h"

#include <string>
#include <vector>

namespace waxis {

/// Whether every word fits the type: a piece of its name, id, maker, kind, family or a synonym; "30.5" its hole
/// pattern, "6S" its cells, "5.8" or "868" its band in GHz or MHz, "60A" its current, "1300" its capacity, "M3" its
/// thread, "7in" its propeller. Upper and lower case are one. Quality: 0 none, higher is better; whole words of kind
/// and name count more than pieces, and pieces of the id least.
int matchQuality(const PartType &type, const std::vector<std::string> &words);

/// Those that fit, best first; of the same quality by family, kind and name. No words: all of them.
std::vector<const PartType *> findTypes(const TypeTable &types, const std::vector<std::string> &words);

} // namespace waxis
