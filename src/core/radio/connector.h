// Coaxial connectors: whether two of them mate.
#pragma once

#include <optional>
#include <string>
#include <string_view>

namespace waxis {

/// A connector as its name says, by the custom of the trade.
struct CoaxConnector {
    std::string family;       ///< "SMA", "MMCX", "micro-coax snap plug", "soldered"
    bool reverse = false;     ///< RP-: contact the other way round
    std::optional<bool> male; ///< outer thread on the other side; none: not stated
    bool operator==(const CoaxConnector &) const = default;
};

/// "RP-SMA female", "SMA", "micro-coax snap plug". Antennas are taken as male, boards as female where nothing is said.
CoaxConnector coaxConnectorOf(std::string_view word);

enum class Mating { mates, otherFamily, otherPolarity, sameGender, unknown };
/// Whether an antenna's connector goes onto a board's. SMA and RP-SMA screw together and make no contact.
Mating mating(const CoaxConnector &antenna, const CoaxConnector &board);

} // namespace waxis
