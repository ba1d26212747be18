// A program run aside, with a limit of time and of what it may print: what it dies of does not touch us.
#pragma once

#include <cstddef>
#include <filesystem>
#include <functional>
#include <string>
#include <vector>

namespace waxis::io {

struct ChildLimits {
    double seconds = 60;
    std::size_t output_bytes = 256u << 20;
};

enum class ChildEnd {
    exited,   ///< by itself: `code`
    died,     ///< of a signal: `code` is its number
    tooLong,  ///< killed after its seconds
    tooMuch,  ///< killed, for it printed more than it may
    cancelled ///< killed, for nobody wants it any more
};

struct ChildResult {
    ChildEnd end = ChildEnd::exited;
    int code = 0;
    std::string output;  ///< what it wrote to standard output
    std::string problem; ///< why it could not be started; empty: it was
};

/// Runs it and waits. Its standard input and error are nowhere. `goesOn` is asked some ten times a second; false ends
/// it. Errors: `problem` for a program that is not there.
ChildResult runChild(const std::filesystem::path &program, const std::vector<std::string> &arguments,
                     const ChildLimits &limits, const std::function<bool()> &goesOn = {});

/// For such a program to call first: no more memory than that, no more processor time, no core file.
void limitMyself(std::size_t memory_bytes, unsigned processor_s);

} // namespace waxis::io
