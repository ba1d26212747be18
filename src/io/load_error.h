// Why a file could not be read: where, what was expected, what was found.
#pragma once

#include <string>
#include <vector>

namespace waxis {

struct LoadError {
    std::string where; ///< JSON pointer ("/parts/3/mass_g/value"), or "line 12, column 4" for broken text, or the file
    std::string expected;
    std::string found;
    std::string suggestion; ///< "did you mean ..."; may be empty

    std::string text() const {
        std::string all = where + ": expected " + expected + ", found " + found;
        if (!suggestion.empty()) all += "; " + suggestion;
        return all;
    }
};

/// Something that was read past, and is kept in the file.
struct LoadWarning {
    std::string where;
    std::string message;
};

} // namespace waxis
