// How bad it is when two boards come that close: one verdict for rule, column and plan.
#pragma once

#include "core/findings/finding.h"

namespace waxis {

/// Less than nothing: stop; under the low limit: watch; under the wanted air: note.
inline Severity airSeverity(double air_mm, const Practice &practice) {
    constexpr double kSame_mm = 1e-9;
    if (air_mm < 0) return Severity::stop;
    if (air_mm < practice[Limit::stackAirLow] - kSame_mm) return Severity::watch;
    return air_mm < practice[Limit::stackAir] - kSame_mm ? Severity::note : Severity::pass;
}

} // namespace waxis
