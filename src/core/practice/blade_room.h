// The room that a practice gives to blades.
#pragma once

#include "core/build/frame_shapes.h"
#include "core/practice/practice.h"

namespace waxis {

inline BladeRoom bladeRoomOf(const Practice &practice) {
    return {practice[Limit::propFlexUp], practice[Limit::propFlexDown], practice[Limit::propFlexFor]};
}

} // namespace waxis
