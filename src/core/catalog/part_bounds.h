// The box round a part's firm bodies: what has no size of its own, soft pads and loose leads, left out.
#pragma once

#include "core/catalog/part_type.h"

namespace waxis {

/// In the part's axes, mm; empty for a part without firm bodies.
inline Aabb firmBounds(const PartType &type) {
    Aabb box;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft) box.include(boundsOf(solid.shape, solid.X_PartSolid));
    return box;
}

} // namespace waxis
