// Whether a soft mount keeps the propellers' shaking off what stands on it: a quick look, not a verdict.
#pragma once

#include "core/studies/rotor_turns.h"

namespace waxis {

/// One mass on a spring whose stiffness is known from how far it sinks under its own weight (Den Hartog).
struct SoftShake {
    std::string on;    ///< what sinks: the stack, the plate or the part
    double sag_mm = 0; ///< 0: nobody has measured it
    FrequencyBand own; ///< of the mount, over the doubt of the sag
    /// Share of the shaking at the propellers' turns that gets through, over both bands; damping a tenth of critical
    /// (silicone and foam 0.05 to 0.2, from memory).
    double leastThrough = 0, mostThrough = 0;
    std::optional<RotorTurns> rotor;
    /// Faster shaking than that is damped: sqrt 2 times its own frequency.
    double isolatesFrom_Hz() const { return 1.4142135623730951 * own.most_Hz; }
    bool isolates() const { return rotor && rotor->turns.least_Hz > isolatesFrom_Hz(); }
};

/// Of a part that stands on dampers, on foam or on a soft plate, or of a soft plate; none for what stands rigid.
std::optional<SoftShake> softShake(const Build &build, const Analysis &analysis, const std::string &id,
                                   std::size_t loadCase);

} // namespace waxis
