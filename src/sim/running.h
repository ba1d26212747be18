// What both stand-ins do: run by the clock, or write a recording; obey lines on the standard input.
#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <vector>

namespace waxis::sim {

struct RunOptions {
    double speed = 1;                ///< times as fast as the clock
    double seconds = 0;              ///< ends after so many of its own seconds; 0: runs on
    std::string out;                 ///< a recording instead of a port; needs seconds
    std::vector<std::string> faults; ///< on from the start
    std::uint32_t seed = 1;
    bool waits = false; ///< for the line "go": whoever started it opens the port first
};

struct Instrument {
    std::string name;  ///< of the port
    double step_s = 1; ///< between two pieces of what it sends
    std::function<std::string(double step_s)> next;
    /// A line of the standard input that is its own; false: not understood.
    std::function<bool(const std::string &line)> tell;
};

/// Says the port's path as its first line. Understands "fault NAME", "fault NAME SECONDS", "fault none". Ends when the
/// standard input is a pipe and closes, and on interrupt. The exit code.
int run(const Instrument &instrument, const RunOptions &options);

} // namespace waxis::sim
