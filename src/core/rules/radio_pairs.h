// What rules about a sender and a listener share.
#pragma once

#include "core/findings/finding.h"
#include "core/practice/practice.h"

#include <string>
#include <vector>

namespace waxis {

struct Derived;
struct RadioUse;

/// Up to three moves, turns or channels that cure a pair; from the survey, while it holds.
std::vector<Fix> cureOfPair(const Derived &derived, const RadioUse &sender, const RadioUse &listener);

/// Judges a rise of a noise floor, dB.
void judgeRise(Finding &finding, const Practice &practice, double rise_dB);

/// With two decimals at most: "5658.33".
std::string megahertz(double value);

} // namespace waxis
