// What an analyser hands to another one of the same build.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"
#include "core/wiring/routing.h"

namespace waxis {

/// The wires of a build, led.
struct LedWires {
    Build build;
    Practice practice;
    RouteKeeper keeper;
};

} // namespace waxis
