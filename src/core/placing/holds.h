// Whether a part touches what should hold it, by itself: for moves that are tried one by one.
#pragma once

#include "core/build/build.h"

namespace waxis {

/// True when some of what the part is fastened onto (or what carries its site) lies within `reach_mm` of it. In a stack
/// it is held; fastened to nothing it is not.
bool touchesItsHolder(const Build &build, const Part &part, double reach_mm);

} // namespace waxis
