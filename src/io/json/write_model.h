// Model values as JSON, keys in the order of their description (described.h). Standard values are left out, so that
// files stay short.
#pragma once

#include "core/build/build.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

using OrderedJson = nlohmann::ordered_json;

OrderedJson toJson(const Vec2 &v);
OrderedJson toJson(const Vec3 &v);
OrderedJson toJson(const Measured &measured);
OrderedJson toJson(const PartType &type);
OrderedJson toJson(const PracticeSettings &settings);
OrderedJson toJson(const Build &build);

} // namespace waxis::io
