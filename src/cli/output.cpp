#include "cli/output.h"

#include "io/file_bytes.h"

#include <algorithm>
#include <filesystem>
#include <ostream>

namespace waxis::cli {

namespace fs = std::filesystem;

std::string withoutControls(std::string_view text) {
    std::string safe;
    safe.reserve(text.size());
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto c = static_cast<unsigned char>(text[i]);
        const auto next = i + 1 < text.size() ? static_cast<unsigned char>(text[i + 1]) : 0;
        if ((c < 0x20 && c != '\n' && c != '\t') || c == 0x7f)
            safe += fmt::format("\\x{:02x}", c);
        else if (c == 0xc2 && next >= 0x80 && next <= 0x9f) { // the second set of controls, as UTF-8
            safe += fmt::format("\\x{:02x}", next);
            ++i;
        } else
            safe += char(c);
    }
    return safe;
}

Outputs::Outputs(Streams io, std::vector<std::string> inputs, bool force)
    : io_(io), inputs_(std::move(inputs)), force_(force) {}

bool Outputs::mayWrite(const std::vector<std::string> &paths) {
    // Links and "./" do not make two files of one.
    const auto placeOf = [](const std::string &path) {
        std::error_code error;
        return path == "-" ? fs::path(path) : fs::weakly_canonical(path, error);
    };
    std::vector<fs::path> seen;
    for (const auto &path : paths) {
        if (path.empty()) continue;
        const fs::path place = placeOf(path);
        if (std::find(seen.begin(), seen.end(), place) != seen.end()) {
            say(io_.err, "{}: two outputs go there; give each a place of its own\n",
                path == "-" ? "standard output" : path);
            return false;
        }
        seen.push_back(place);
        std::error_code error;
        if (path == "-" || !fs::exists(path, error)) continue;
        const bool isInput = std::any_of(inputs_.begin(), inputs_.end(), [&](const std::string &input) {
            return fs::equivalent(path, input, error) && !error;
        });
        if (isInput) {
            say(io_.err, "{}: not written: it is what is read\n", path);
            return false;
        }
        if (fs::is_regular_file(path, error) && !force_) {
            say(io_.err, "{}: not written: there is such a file already; --force replaces it\n", path);
            return false;
        }
    }
    return true;
}

bool Outputs::put(const std::string &path, std::string_view bytes) {
    if (path == "-") {
        io_.out << bytes;
        return true; // whether it came there is seen at the end
    }
    const auto problem = waxis::io::deliver(path, bytes);
    if (problem.empty()) return true;
    say(io_.err, "{}: not written: {}\n", path, problem);
    return false;
}

} // namespace waxis::cli
