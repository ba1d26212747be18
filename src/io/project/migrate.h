// Bringing older documents up to the present version, one step at a time.
#pragma once

#include "core/base/result.h"
#include "io/load_error.h"

#include <nlohmann/json.hpp>
#include <span>

namespace waxis::io {

/// Turns a document of version n into one of version n + 1; the version key is set by migrate().
using MigrationStep = void (*)(nlohmann::json &document);

/// Steps for build files; entry 0 leads from version 1 to 2. Empty while version 1 is the only one there ever was.
std::span<const MigrationStep> buildMigrations();

/// Applies the steps from the document's version up to steps.size() + 1. Refuses newer documents, other formats
/// and versions below 1.
Result<nlohmann::json, LoadError> migrate(nlohmann::json document, const std::string &format,
                                          std::span<const MigrationStep> steps);

} // namespace waxis::io
