#include "core/magnetics/compass_place.h"

#include "core/pins/signal.h"

namespace waxis {

std::optional<Vec3> compassPlace(const PartType &type) {
    if (type.magnetics && type.magnetics->compass_mm) return type.magnetics->compass_mm;
    if (type.kind != PartKind::gps) return std::nullopt;
    for (const auto &port : type.ports)
        for (std::size_t p = 0; p < port.pins.size(); ++p)
            if (signalAt(type, port, p).kind == SignalKind::busData)
                return type.solids.empty() ? Vec3(Vec3::Zero()) : type.solids[0].X_PartSolid.position_mm;
    return std::nullopt;
}

} // namespace waxis
