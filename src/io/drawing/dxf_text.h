// DXF as text: what can be found wrong before it is parsed, and what its words mean.
#pragma once

#include "io/load_error.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>

namespace waxis {

/// Names before R2007 are in a code page: what is not UTF-8 is read as Latin-1, which agrees with it for letters.
std::string readableName(const std::string &text);

/// Without the codes of formatted text: "\\P" ends a line, "\\H2.5;" sets a height, braces group.
std::string plainText(const std::string &words);

/// dxflib believes counts and never complains; what could lead it astray is found before it is asked: lines in pairs of
/// a whole number and a value, counts no larger than the file. `unknownKinds`: entities that are not read, by kind.
std::optional<LoadError> faultOfText(std::string_view bytes, std::map<std::string, int> &unknownKinds);

} // namespace waxis
