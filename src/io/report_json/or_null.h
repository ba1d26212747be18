// Inside report_json: what is not known is null.
#pragma once

#include "io/json/write_model.h"

#include <nlohmann/json.hpp>
#include <optional>
#include <string>

namespace waxis::io {

template <class T>
OrderedJson orNull(const std::optional<T> &value) {
    return value ? OrderedJson(*value) : OrderedJson(nullptr);
}

inline OrderedJson textOrNull(const std::string &text) {
    return text.empty() ? OrderedJson(nullptr) : OrderedJson(text);
}

} // namespace waxis::io
