// Several things named in one sentence.
#pragma once

#include "core/build/build.h"

#include <span>
#include <string>
#include <vector>

namespace waxis {

/// "A, B and C"; of more than `most` the first, and how many are left: "A, B, C, D and 3 more".
std::string listWords(std::span<const std::string> words, std::size_t most = 4);
/// The names of things, within a sentence or at the beginning of one.
std::string listNames(const Build &build, std::span<const std::string> ids, std::size_t most = 4);
std::string listNamesFirst(const Build &build, std::span<const std::string> ids, std::size_t most = 4);

} // namespace waxis
