#include "io/project/states.h"

#include "core/log/fingerprint.h"
#include "io/json/snapshots.h"
#include "io/project/project_file.h"

#include <fmt/format.h>

namespace waxis {

Snapshot stateFrom(const Build &build, const std::string &name, const std::string &at) {
    Snapshot state;
    state.name = name;
    state.at = at;
    state.fingerprint = fingerprintOf(build);
    state.document = io::snapshotDocument(build);
    return state;
}

Result<Build, LoadError> buildOfState(const Snapshot &state) {
    auto loaded = parseBuild(*state.document);
    if (!loaded) return Failure{loaded.error()};
    return std::move(loaded->build);
}

EditResult backToState(const Build &build, const Snapshot &state) {
    auto then = buildOfState(state);
    if (!then) return Failure{EditError{fmt::format("\"{}\" cannot be opened: {}", state.name, then.error().text())}};
    then->log = build.log;
    return std::move(*then);
}

} // namespace waxis
