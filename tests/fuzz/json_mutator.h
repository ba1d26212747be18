// Changes JSON texts so that they mostly stay JSON: the fuzzer gets past the parser into what lies behind it.
#pragma once

#include <nlohmann/json.hpp>
#include <random>

namespace waxis::fuzz {

/// One change somewhere in the document: a value replaced, a key or entry dropped, doubled or swapped with another.
void mutate(nlohmann::json &document, std::mt19937 &random);

} // namespace waxis::fuzz
