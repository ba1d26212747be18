#include "core/links/port_kinds.h"

namespace waxis {

static bool hasKind(const PartType &type, const Port &port, SignalKind kind) {
    for (std::size_t p = 0; p < port.pins.size(); ++p)
        if (signalAt(type, port, p).kind == kind) return true;
    return false;
}

bool isSerialPort(const PartType &type, const Port &port) {
    return port.kind != PortKind::usb && hasKind(type, port, SignalKind::serialTx) &&
           hasKind(type, port, SignalKind::serialRx);
}

bool isBusPort(const PartType &type, const Port &port) { return hasKind(type, port, SignalKind::busData); }

} // namespace waxis
