#include "core/wiring/core_gauge.h"

#include "core/pins/signal.h"

namespace waxis {

int gaugeOf(const Build &build, const Wire &wire, const WireCore &core) {
    if (core.gauge_AWG) return *core.gauge_AWG;
    if (wire.gauge_AWG) return *wire.gauge_AWG;
    if (wire.make == WireMake::asSupplied)
        for (const WireEnd *end : {&wire.from, &wire.to}) {
            const Part *part = findPart(build, end->part);
            const PartType *type = part ? typeOf(build, *part) : nullptr;
            if (!type) continue;
            for (const auto &lead : type->leads)
                if (lead.port == end->port && lead.gauge_AWG > 0) return lead.gauge_AWG;
        }
    const Signal signal = signalAt(build, wire.from, core.fromPin);
    if (signal.kind == SignalKind::phase) return 20;
    if (signal.kind == SignalKind::supply || signal.kind == SignalKind::ground)
        return roleOf(build, wire) == WireRole::power && !signal.supply_V ? 14 : 26;
    return 28;
}

} // namespace waxis
