// What an edit gives: another build, or why not.
#pragma once

#include "core/base/result.h"
#include "core/build/build.h"

namespace waxis {

struct EditError {
    std::string message;
};
using EditResult = Result<Build, EditError>;

} // namespace waxis
