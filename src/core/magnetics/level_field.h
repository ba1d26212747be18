// How much of many fields a compass can meet when nobody knows how loose pairs lie and which way the craft leans.
//
//   B(lie) = cos(lie) flat + sin(lie) onEdge        field of one loose pair, turned about its own run
//   worst  = max over w of |w . fixed| + sum sqrt((w . flat)^2 + (w . onEdge)^2),   w = (cos a, sin a, +-sin lean)
//
// The heading is taken in the level plane: of what is vertical to the craft, a lean brings its sine into it.
#pragma once

#include "core/geometry/pose.h"

#include <vector>

namespace waxis {

/// Of one path: what it gives lying flat, and standing on edge. Where the lie makes no difference (a single line) the
/// second is zero and `flat` keeps its sign.
struct LieField {
    Vec3 flat_uT = Vec3::Zero(), onEdge_uT = Vec3::Zero();
    bool loose = false; ///< its lie is not known
};

class LevelField {
public:
    void add(const LieField &field, double factor);
    /// The largest level part over all lies and leans up to `lean_deg`, uT, to 0.1 %. Two lines half a spacing apart
    /// are no perfect dipole: within a spacing's distance the lies in between may be some per cent more.
    double worst_uT(double lean_deg) const;

private:
    Vec3 fixed_uT_ = Vec3::Zero();
    std::vector<LieField> loose_;
};

} // namespace waxis
