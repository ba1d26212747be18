// Reading JSON text with the care that nlohmann's parser leaves to its users.
#pragma once

#include "core/base/result.h"
#include "io/load_error.h"

#include <nlohmann/json.hpp>
#include <string_view>

namespace waxis::io {

/// Largest file and deepest nesting that are read at all.
inline constexpr std::size_t kLargestFile = 64u << 20;
inline constexpr int kDeepestNesting = 32;
/// Most keys, values and brackets: a build of a thousand parts has some 50,000.
inline constexpr std::size_t kMostThings = 4'000'000;

/// Refuses broken text, invalid UTF-8, keys given twice, numbers out of range, too deep or too large documents.
Result<nlohmann::json, LoadError> parseJson(std::string_view text);

/// Indented by one space a level; lists of plain numbers and short objects stay on one line, so that files compare
/// well line by line. Keys in the order of the ordered_json.
std::string prettyJson(const nlohmann::ordered_json &value);

/// `value` with the keys of each object in the order of `model`, keys that the model lacks behind them by
/// alphabet. List entries are paired by position.
nlohmann::ordered_json orderedLike(const nlohmann::ordered_json &model, const nlohmann::json &value);

} // namespace waxis::io
