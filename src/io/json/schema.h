// Checking JSON documents against the published schemas.
#pragma once

#include "io/load_error.h"

#include <nlohmann/json.hpp>
#include <optional>

namespace waxis::io {

extern const char *const kBuildSchemaText;
extern const char *const kPartsSchemaText;
extern const char *const kPracticeSchemaText;

enum class SchemaKind { build, parts, practice };

/// The parsed schema; references of the other schemas into the build's are resolved.
const nlohmann::json &schemaOf(SchemaKind kind);

/// The first fault, deepest place first, or nothing when the document is valid (draft-07).
std::optional<LoadError> validate(const nlohmann::json &document, SchemaKind kind);

/// The first text or list that is longer than its schema allows: asked before anything whose work grows with it (the
/// patterns' regular expressions recurse letter by letter).
std::optional<LoadError> overlongPart(const nlohmann::json &document, SchemaKind kind);

/// Keys that the schema does not know, with the known key they may have been meant for.
std::vector<LoadWarning> unknownKeys(const nlohmann::json &document, SchemaKind kind);

/// Copies into `target` every key of `original` that the schema does not know. List entries are matched by their
/// id, lists without ids by position while the lengths agree.
void keepUnknownKeys(nlohmann::json &target, const nlohmann::json &original, SchemaKind kind);

/// One line that tells what a value is: `the text "abc"`, `the number 3`, `a list of 2`, `nothing`.
std::string describeValue(const nlohmann::json &value);

} // namespace waxis::io
