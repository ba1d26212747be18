#include "core/rules/radio_pairs.h"

#include "core/derived/derived.h"
#include "core/radio/antennas.h"
#include "core/remedies/radio_help.h"
#include "core/survey/at_hand.h"

#include <cmath>
#include <fmt/format.h>

namespace waxis {

std::vector<Fix> cureOfPair(const Derived &derived, const RadioUse &sender, const RadioUse &listener) {
    std::vector<Fix> fixes;
    for (const auto &pair : radioHelpFound(derived))
        if (pair.sender == sender.id() && pair.listener == listener.id())
            for (const auto &help : pair.helps)
                if (fixes.size() < 3 && help.cures) fixes.push_back(help.fix);
    return fixes;
}

void judgeRise(Finding &f, const Practice &practice, double rise_dB) {
    f.measured = rise_dB;
    f.unit = "dB";
    const bool stops = rise_dB > practice[Limit::desenseStop], watched = rise_dB > practice[Limit::desenseWatch];
    f.severity = stops ? Severity::stop : watched ? Severity::watch : Severity::pass;
    f.practiceLimit = stops ? Limit::desenseStop : Limit::desenseWatch;
    f.limit = practice[*f.practiceLimit];
    f.margin = *f.limit - rise_dB;
}

std::string megahertz(double value) { return fmt::format("{:.7g}", std::round(value * 100) / 100); }

} // namespace waxis
