#include "io/solids/solid_reader.h"

#include "io/process/child.h"
#include "io/solids/solid_stream.h"

#include <algorithm>
#include <cctype>
#include <csignal>
#include <cstring>
#include <fmt/format.h>

namespace waxis {

namespace {

namespace fs = std::filesystem;

constexpr double kMost_s = 60;

Failure<LoadError> refuse(const fs::path &path, std::string expected, std::string found, std::string suggestion = {}) {
    return Failure{LoadError{path.filename().string(), std::move(expected), std::move(found), std::move(suggestion)}};
}

/// Relative to the program, wherever it was moved to; the build folder only for a program that lies in it.
fs::path readerProgram() {
    std::error_code ignored;
    const auto program = fs::read_symlink("/proc/self/exe", ignored).parent_path();
    std::vector<fs::path> places{program / "../lib/weightaxis/weightaxis-solids"};
    if (program.string().starts_with(WEIGHTAXIS_BUILD_FOLDER))
        places.insert(places.begin(), WEIGHTAXIS_SOLIDS_BUILT);
    else
        places.emplace_back(WEIGHTAXIS_SOLIDS_INSTALLED);
    for (const auto &place : places)
        if (fs::exists(place, ignored)) return place;
    return places.front();
}

} // namespace

Result<ImportedSolids, LoadError> readSolids(const fs::path &path, const std::function<bool()> &goesOn) {
    std::string extension = path.extension().string();
    std::transform(extension.begin(), extension.end(), extension.begin(),
                   [](unsigned char c) { return char(std::tolower(c)); });
    const bool step = extension == ".step" || extension == ".stp", stl = extension == ".stl";
    if (!step && !stl) return refuse(path, "a .step, .stp or .stl file", fmt::format("\"{}\"", extension));
    std::error_code error;
    if (!fs::is_regular_file(path, error)) return refuse(path, "a file", "no such file");
    constexpr std::uintmax_t kLargest = 200u << 20;
    if (fs::file_size(path, error) > kLargest) return refuse(path, "a file of at most 200 MB", "a larger one");
    io::ChildLimits limits;
    limits.seconds = kMost_s;
    const auto done =
        io::runChild(readerProgram(), {step ? "step" : "stl", fs::absolute(path).string()}, limits, goesOn);
    if (!done.problem.empty()) return refuse(path, "the program that reads solids", done.problem);
    const char *const again = "save it anew from the program that made it, or export it as STL";
    switch (done.end) {
    case io::ChildEnd::cancelled: return refuse(path, "to be read to its end", "that it was given up");
    case io::ChildEnd::tooLong:
        return refuse(path, fmt::format("a file that is read within {:.0f} s", kMost_s), "one that takes longer",
                      again);
    case io::ChildEnd::tooMuch: return refuse(path, "bodies of a sensible size", "far too many triangles", again);
    case io::ChildEnd::died:
        if (done.code == SIGXCPU || done.code == SIGKILL)
            return refuse(path, fmt::format("a file that is read within {:.0f} s", kMost_s), "one that takes longer",
                          again);
        return refuse(path, step ? "a sound STEP file" : "a sound STL file",
                      fmt::format("one that its reader fails on ({})", strsignal(done.code)), again);
    case io::ChildEnd::exited: break;
    }
    auto solids = io::decodeSolids(done.output);
    if (!solids && solids.error().where.empty()) {
        LoadError named = solids.error();
        named.where = path.filename().string();
        return Failure{std::move(named)};
    }
    return solids;
}

} // namespace waxis
