// Named states of the build in its file: each as the difference to the state after it, the last one to the build as it
// is drawn, so that the newest state is always whole (JSON merge patch, RFC 7396, applied backwards).
//
// Before states are compared, lists whose entries have ids become objects by those ids, with their order under "[]":
// one part that moved is a few numbers then, not the list of all parts.
#pragma once

#include "core/build/build.h"
#include "io/json/write_model.h"

#include <nlohmann/json.hpp>

namespace waxis::io {

/// Everything of a build but its log, as it is kept in Snapshot::document.
std::string snapshotDocument(const Build &build);

/// Fills in Snapshot::document of all states from the patches in `document`. Throws Unreadable where one is missing, or
/// where all together would be over 64 MB.
void readSnapshots(const nlohmann::json &document, Build &build);

/// Adds the patches to `document`, which holds all else of the build.
void writeSnapshots(OrderedJson &document, const Build &build);

/// As the head of this file says, and back.
nlohmann::json keyedById(const nlohmann::json &value);
nlohmann::json listed(const nlohmann::json &value);

/// What to apply to `from` to get `to` (RFC 7396); neither holds a null.
nlohmann::json mergePatch(const nlohmann::json &from, const nlohmann::json &to);

} // namespace waxis::io
