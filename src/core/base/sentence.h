// A sentence whose words can be translated before the numbers and names go in.
#pragma once

#include <string>
#include <vector>

namespace waxis {

/// Fills {0}, {1}... of any pattern; a number without argument stays as it is.
std::string fillPattern(const std::string &pattern, const std::vector<std::string> &arguments);

struct Sentence {
    std::string pattern;
    std::vector<std::string> arguments;
    std::string text() const { return fillPattern(pattern, arguments); } ///< English
};

} // namespace waxis
