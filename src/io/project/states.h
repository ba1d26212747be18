// Named states of a build: made, opened, gone back to.
#pragma once

#include "core/build/edit_result.h"
#include "core/build/log.h"
#include "io/load_error.h"

#include <string>

namespace waxis {

/// The build as it is, to be added with addSnapshot.
Snapshot stateFrom(const Build &build, const std::string &name, const std::string &at);

/// The build that a state is; its log is empty. Errors: what opening a file says.
Result<Build, LoadError> buildOfState(const Snapshot &state);

/// The build as it was in that state, with the log of now.
EditResult backToState(const Build &build, const Snapshot &state);

} // namespace waxis
