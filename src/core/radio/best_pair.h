// Of all antennas of two radios, the two that couple most.
#pragma once

#include "core/radio/coupling.h"

#include <vector>

namespace waxis {

/// Less than this counts as silence, dBm.
inline constexpr double kSilence_dBm = -300;

struct BestPair {
    Coupling coupling;
    int from = 0, to = 0;
    bool found = false;
};
/// At a frequency; nothing is found where either has no antenna.
BestPair bestPair(const RadioUse &sender, const RadioUse &listener, double f_MHz, const Practice &practice,
                  const std::vector<LineShadow> &shadows);

/// What stands between two antennas, by their parts; null: nothing.
const LineShadow *shadowBetween(const std::vector<LineShadow> &shadows, const std::string &a, const std::string &b);

/// The noise floor of a listener, dBm.
double floorOf(const RadioUse &listener);

} // namespace waxis
