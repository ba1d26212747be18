// What a port as a whole is for.
#pragma once

#include "core/pins/signal.h"

namespace waxis {

/// Both pins of a serial link; sockets for a computer are not meant.
bool isSerialPort(const PartType &type, const Port &port);
/// The wires of a compass.
bool isBusPort(const PartType &type, const Port &port);

} // namespace waxis
