// Finding the word that somebody probably meant.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace waxis {

/// Number of single-letter insertions, deletions, replacements and neighbour swaps between two words
/// (optimal string alignment distance).
int editDistance(std::string_view a, std::string_view b);

/// The candidate nearest to `word`, or empty when none is within a third of its length (at least one letter).
std::string nearestWord(std::string_view word, const std::vector<std::string> &candidates);

} // namespace waxis
