#include "core/radio/connector.h"

#include <algorithm>
#include <cctype>

namespace waxis {

CoaxConnector coaxConnectorOf(std::string_view word) {
    CoaxConnector connector;
    std::string text(word);
    const auto takeEnd = [&](std::string_view end) {
        if (text.size() < end.size()) return false;
        const auto at = text.size() - end.size();
        if (!std::equal(end.begin(), end.end(), text.begin() + std::ptrdiff_t(at), [](char a, char b) {
                return std::tolower(static_cast<unsigned char>(a)) == std::tolower(static_cast<unsigned char>(b));
            }))
            return false;
        text.resize(at);
        return true;
    };
    if (takeEnd(" female"))
        connector.male = false;
    else if (takeEnd(" male"))
        connector.male = true;
    if (text.rfind("RP-", 0) == 0) {
        connector.reverse = true;
        text.erase(0, 3);
    }
    connector.family = text;
    return connector;
}

Mating mating(const CoaxConnector &antenna, const CoaxConnector &board) {
    if (antenna.family.empty() || board.family.empty()) return Mating::unknown;
    if (antenna.family != board.family) return Mating::otherFamily;
    if (antenna.reverse != board.reverse) return Mating::otherPolarity;
    if (antenna.male && board.male && *antenna.male == *board.male) return Mating::sameGender;
    return Mating::mates;
}

} // namespace waxis
