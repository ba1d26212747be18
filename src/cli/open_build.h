// A build as commands open it, with the practice that is asked for.
#pragma once

#include "cli/commands.h"
#include "core/base/result.h"
#include "core/practice/practice.h"
#include "io/project/project_file.h"

namespace waxis::cli {

struct Opened {
    Build build;
    Practice practice;
    KeptKeys kept;
    FileStamp stamp;
};

/// `profile`: a profile's name or a practice file; empty: the build's own. What is wrong is said on the error stream;
/// the error is the exit code.
Result<Opened, int> open(const std::string &file, const std::string &profile, Streams io);

} // namespace waxis::cli
