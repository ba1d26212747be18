// From where a status lamp is seen.
#pragma once

#include "core/sky/sky_view.h"

namespace waxis {

struct LampView {
    double seen = 0;             ///< share of the directions round the craft, within 45 degrees of level
    std::vector<HiddenShare> by; ///< who hides it, largest first; the lamp's own part for its dark side
    double darkest_deg = 0;      ///< middle of the widest dark sector, from the nose, left positive
    double darkSector_deg = 0;   ///< its width; 0 for none
};

/// `position_mm` and `outward` in the frame's axes. A lamp shines into the half space before it.
LampView lampView(const RayWorld &world, const Scene &scene, const Vec3 &position_mm, const Vec3 &outward, int self);

} // namespace waxis
