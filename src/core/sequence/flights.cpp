#include "core/sequence/flights.h"

#include <algorithm>

namespace waxis {

std::vector<std::string> onlyIn(const Build &build, const LoadCase &in, const LoadCase &notIn) {
    std::vector<std::string> parts;
    for (const auto &part : build.parts)
        if (isAboard(part, in) && !isAboard(part, notIn)) parts.push_back(part.id);
    return parts;
}

Flights flightsOf(const Build &build, const std::vector<LoadCase> &loadCases, int built) {
    Flights flights;
    const LoadCase &now = loadCases[std::size_t(built)];
    auto known = [&](const std::vector<int> &list, const LoadCase &other) {
        return std::any_of(list.begin(), list.end(), [&](int c) {
            const LoadCase &one = loadCases[std::size_t(c)];
            return onlyIn(build, one, other).empty() && onlyIn(build, other, one).empty();
        });
    };
    if (now.flies()) flights.onTheWay.push_back(built);
    for (int c = 0; c < int(loadCases.size()); ++c) {
        const LoadCase &other = loadCases[std::size_t(c)];
        if (c == built || !other.flies() || known(flights.onTheWay, other) || known(flights.changed, other)) continue;
        (onlyIn(build, other, now).empty() ? flights.onTheWay : flights.changed).push_back(c);
    }
    auto left = [&](int c) { return onlyIn(build, now, loadCases[std::size_t(c)]).size(); };
    std::stable_sort(flights.onTheWay.begin(), flights.onTheWay.end(), [&](int a, int b) { return left(a) > left(b); });
    return flights;
}

} // namespace waxis
