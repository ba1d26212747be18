// How thick a core is.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// The gauge of a core: its own, its wire's, the supplied lead's, or what such a signal usually has.
int gaugeOf(const Build &build, const Wire &wire, const WireCore &core);

} // namespace waxis
