// Text of unknown origin as UTF-8.
#pragma once

#include <string>
#include <string_view>

namespace waxis::io {

bool isUtf8(std::string_view text);

/// The text itself where it is UTF-8; else its bytes taken as Latin-1, which agrees with the usual code pages for
/// letters.
std::string asUtf8(std::string_view text);

} // namespace waxis::io
