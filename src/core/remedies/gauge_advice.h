// What a wire loses, and the thinner one that would still do.
#pragma once

#include "core/power/power_report.h"
#include "core/wiring/gauge.h"
#include "core/wiring/wire_report.h"

namespace waxis {

/// For seconds silicone wire bears this many times its continuous current (common practice, no source).
inline constexpr double kBurst = 2.5;

/// There and back over the cut length at typical current; nothing for phases, whose return is another phase.
inline LoopDrop dropOf(const WireReport &report, const WireCurrent &current) {
    if (!current.known || report.role == WireRole::phase) return {};
    return loopDrop(report.gauge_AWG, report.cut_mm, current.typical_A);
}

struct LighterGauge {
    int gauge_AWG = 0;
    double saves_g = 0;
};
/// The thinnest stock gauge that carries the typical current within the practice's share and the peak as a burst; none
/// when that is not thinner, for flat cables and coax, and where no current is known.
inline std::optional<LighterGauge> lighterGauge(const Wire &wire, const WireReport &report, const WireCurrent &current,
                                                const Practice &practice) {
    if (!current.known || wire.lay == WireLay::flat || wire.lay == WireLay::coax) return std::nullopt;
    const auto least =
        lightestGauge(std::max(current.typical_A / (practice[Limit::wireShare] / 100), current.peak_A / kBurst));
    const WireStock *now = findWireStock(report.gauge_AWG), *then = least ? findWireStock(*least) : nullptr;
    if (!now || !then || *least <= report.gauge_AWG) return std::nullopt;
    return LighterGauge{*least, (now->mass_g_m - then->mass_g_m) * report.cut_mm * 1e-3 * double(wire.cores.size())};
}

} // namespace waxis
