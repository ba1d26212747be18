// A field on a grid over the plan.
#pragma once

#include "core/geometry/pose.h"

#include <vector>

namespace waxis {

/// Horizontal disturbance on a grid over the craft at one height.
struct FieldMap {
    Vec2 corner_mm = Vec2::Zero();
    double step_mm = 0;
    int columns = 0, rows = 0; ///< columns along x
    double z_mm = 0;
    std::vector<float> constant_uT, hover_uT, full_uT; ///< horizontal parts, row by row
};

} // namespace waxis
