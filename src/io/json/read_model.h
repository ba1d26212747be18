// Model values from JSON that the schema has already passed. What the schema cannot say is checked here.
#pragma once

#include "core/build/build.h"
#include "io/load_error.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

/// Thrown inside the loader only and turned into a LoadError there.
struct Unreadable {
    LoadError error;
};

/// Limits and schools on top of a profile; throws Unreadable for names that do not exist.
PracticeSettings readPractice(const nlohmann::json &object, const std::string &pointer);
void checkPractice(const PracticeSettings &practice, const std::string &pointer);

PartType readPartType(const nlohmann::json &json, const std::string &pointer);
Build readBuild(const nlohmann::json &json);

/// Ids given twice, and references to things that are not there. Throws Unreadable.
void checkReferences(const Build &build);

} // namespace waxis::io
