// What bends or is only tied on may be turned out of a propeller's zone.
#pragma once

#include "core/findings/fix.h"
#include "core/scene/scene.h"

namespace waxis {

/// For an antenna or a tube that stands in another body: of each way about the frame's axes the least turn, in steps of
/// 15 degrees up to 90, that brings `body` `wanted_mm` off `zone`; smallest first. Nothing for other parts and pinned
/// ones.
std::vector<Fix> turnsAway(const Build &build, const Scene &scene, int body, int zone, double wanted_mm);

} // namespace waxis
