// What a command writes: where it may go, that it came there, and nothing on the terminal that would change it.
#pragma once

#include "cli/commands.h"

#include <fmt/format.h>
#include <string>
#include <string_view>
#include <vector>

namespace waxis::cli {

/// Control characters as "\x1b": names out of files must not steer a terminal. Lines and tabs stay.
std::string withoutControls(std::string_view text);

template <class... Arguments>
void say(std::ostream &out, fmt::format_string<Arguments...> words, Arguments &&...arguments) {
    out << withoutControls(fmt::format(words, std::forward<Arguments>(arguments)...));
}

/// The files that one command is to write.
class Outputs {
public:
    /// `inputs`: files that it reads, which are never written. Without `force` no file that is there is replaced.
    Outputs(Streams io, std::vector<std::string> inputs, bool force);

    /// Asked before anything is written: false, with a sentence, for two outputs in one place, an input, a file that is
    /// there. Empty paths are outputs that were not asked for; "-" is the standard output.
    bool mayWrite(const std::vector<std::string> &paths);
    /// To a file in one step, through to a device or a queue, or to the standard output. False with a sentence.
    bool put(const std::string &path, std::string_view bytes);

private:
    Streams io_;
    std::vector<std::string> inputs_;
    bool force_;
};

} // namespace waxis::cli
