// Quick sums' values as JSON and back, and batches of them.
#pragma once

#include "core/sums/sum.h"
#include "io/load_error.h"

#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>

namespace waxis::io {

nlohmann::ordered_json sumValueJson(const SumValue &value);
SumValue sumValueFrom(const nlohmann::ordered_json &json);

/// What a person typed for an input: JSON where it is JSON, else plain text.
SumValue sumValueFromText(const std::string &text);

/// A value as a person reads it: so many significant digits and all before the point, lists in brackets.
std::string sumValueText(const SumValue &value, int digits = 6);

/// A JSON array of {"calc", "inputs"} in; an array of {"calc", "inputs", "outputs" or "error"} out. Entries that
/// are not of that form get an error of their own; only text that is no JSON array fails as a whole.
Result<std::string, LoadError> runSumBatch(std::string_view text);

/// All sums with their inputs and outputs.
std::string sumListJson();

} // namespace waxis::io
