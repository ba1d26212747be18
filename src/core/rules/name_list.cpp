#include "core/rules/name_list.h"

#include "core/rules/wording.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

std::string listWords(std::span<const std::string> words, std::size_t most) {
    std::string text;
    const std::size_t shown = std::min(most, words.size());
    for (std::size_t i = 0; i < shown; ++i) text += (i == 0 ? "" : i + 1 == words.size() ? " and " : ", ") + words[i];
    if (shown < words.size()) text += fmt::format(" and {} more", words.size() - shown);
    return text;
}

static std::string listOf(const Build &build, std::span<const std::string> ids, std::size_t most, bool begins) {
    std::vector<std::string> names;
    for (const auto &id : ids)
        names.push_back(names.empty() && begins ? displayName(build, id) : nameWithin(build, id));
    return listWords(names, most);
}

std::string listNames(const Build &build, std::span<const std::string> ids, std::size_t most) {
    return listOf(build, ids, most, false);
}

std::string listNamesFirst(const Build &build, std::span<const std::string> ids, std::size_t most) {
    return listOf(build, ids, most, true);
}

} // namespace waxis
