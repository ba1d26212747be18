// Which pins may be joined.
#pragma once

#include "core/pins/signal.h"

namespace waxis {

enum class Joint {
    right,
    sameWay,      ///< two that give or two that take: transmit to transmit, video out to video out
    shortCircuit, ///< supply to ground
    cannotAnswer, ///< a control wire on a pin that only listens
    boot,         ///< a pin that is held at power-on
    cellTap,      ///< a supply or ground at a cell of the balance plug
    mismatch      ///< nothing to do with each other
};

/// By what the pins are for; voltages of supplies are another matter (see PWR-2).
Joint jointOf(const Signal &a, const Signal &b);

/// What has to be one wire to one pin: not supplies, grounds, buses, lamp chains and the like.
bool takesOneWire(SignalKind kind);

} // namespace waxis
