// What weightaxis-cli does, apart from reading its arguments.
#pragma once

#include <iosfwd>
#include <string>
#include <vector>

namespace waxis::cli {

/// Exit codes of all commands.
enum Exit : int { clean = 0, stopFindings = 1, unreadable = 2 };

struct Streams {
    std::ostream &out;
    std::ostream &err;
};

struct CheckOptions {
    std::string file;
    std::string profile; ///< empty: the build's own
};
int check(const CheckOptions &options, Streams io);

struct AnalyseOptions {
    std::string file;
    std::string profile;
    bool json = false;
};
int analyse(const AnalyseOptions &options, Streams io);

struct CalcOptions {
    bool list = false;
    bool json = false;
    std::string batchFile;
    std::string name;
    std::vector<std::string> inputs; ///< KEY=VALUE
};
int calc(const CalcOptions &options, Streams io);

/// The rule book as Markdown (docs/rules.md).
int rules(Streams io);

/// Reads a build or library and writes it again in the stable form.
int tidy(const std::string &file, Streams io);

} // namespace waxis::cli
