#include "core/base/sentence.h"

namespace waxis {

std::string fillPattern(const std::string &pattern, const std::vector<std::string> &arguments) {
    std::string text;
    for (std::size_t i = 0; i < pattern.size(); ++i) {
        const bool slot = pattern[i] == '{' && i + 2 < pattern.size() && pattern[i + 2] == '}' &&
                          pattern[i + 1] >= '0' && std::size_t(pattern[i + 1] - '0') < arguments.size();
        if (!slot) {
            text += pattern[i];
            continue;
        }
        text += arguments[std::size_t(pattern[i + 1] - '0')];
        i += 2;
    }
    return text;
}

} // namespace waxis
