#include "core/base/text_match.h"

#include <algorithm>

namespace waxis {

int editDistance(std::string_view a, std::string_view b) {
    const auto rows = a.size() + 1, columns = b.size() + 1;
    std::vector<int> table(rows * columns);
    auto at = [&](std::size_t i, std::size_t j) -> int & { return table[i * columns + j]; };
    for (std::size_t i = 0; i < rows; ++i) at(i, 0) = int(i);
    for (std::size_t j = 0; j < columns; ++j) at(0, j) = int(j);
    for (std::size_t i = 1; i < rows; ++i)
        for (std::size_t j = 1; j < columns; ++j) {
            const int replace = at(i - 1, j - 1) + (a[i - 1] == b[j - 1] ? 0 : 1);
            at(i, j) = std::min({at(i - 1, j) + 1, at(i, j - 1) + 1, replace});
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                at(i, j) = std::min(at(i, j), at(i - 2, j - 2) + 1);
        }
    return at(rows - 1, columns - 1);
}

std::string nearestWord(std::string_view word, const std::vector<std::string> &candidates) {
    constexpr std::size_t kLongestWord = 64; // a longer key is no slip of the finger
    if (word.empty() || word.size() > kLongestWord) return {};
    const int allowed = std::max(1, int(word.size()) / 3);
    std::string best;
    int bestDistance = allowed + 1;
    for (const auto &candidate : candidates) {
        const int distance = editDistance(word, candidate);
        if (distance < bestDistance) {
            bestDistance = distance;
            best = candidate;
        }
    }
    return best;
}

} // namespace waxis
