// How often propellers turn in hover, as a band: what shakes a craft.
#pragma once

#include "core/analysis/analysis.h"

#include <optional>
#include <string>

namespace waxis {

struct FrequencyBand {
    double least_Hz = 0, most_Hz = 0;
    bool meets(const FrequencyBand &other) const { return least_Hz <= other.most_Hz && other.least_Hz <= most_Hz; }
};

/// Turns of the propeller on a motor mount in hover, and how often its blades pass (two where none are stated).
struct RotorTurns {
    FrequencyBand turns, pass;
    int blades = 2;
};

/// Over the band of thrust coefficients that standing propellers have, 0.08 to 0.14 (from memory). None where nothing
/// hovers or the mount has no propeller's diameter. `mount`: index in the frame.
std::optional<RotorTurns> rotorTurns(const Build &build, const Analysis &analysis, std::size_t mount,
                                     std::size_t loadCase);
/// Of all mounts together.
std::optional<RotorTurns> rotorTurns(const Build &build, const Analysis &analysis, std::size_t loadCase);

} // namespace waxis
