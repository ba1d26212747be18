// The least weight that would bring the centre of gravity home, and where it would hang.
#pragma once

#include "core/build/build.h"

namespace waxis {

struct BallastSpot {
    Vec2 at_mm = Vec2::Zero(); ///< from the thrust centre
    std::string on;            ///< plate or arm
};
struct Ballast {
    double mass_g = 0; ///< 0: none needed
    BallastSpot spot;
    Vec2 after_mm = Vec2::Zero(); ///< offset with it
};

/// Least mass at `spot` that brings the offset of a craft of `mass_g` to `within_mm` or nearer: |M o + b r| = w (M +
/// b). None when no mass there does. Both vectors from the thrust centre.
std::optional<double> ballastAt_g(double mass_g, const Vec2 &offset_mm, const Vec2 &spot_mm, double within_mm);

/// Places where a weight can be stuck on: edges of plates (every 2 mm), and arms between root and motor, outside the
/// motor's own radius (15 mm from the tip).
std::vector<BallastSpot> ballastSpots(const Frame &frame, const Vec3 &thrustCentre_mm);

/// The least ballast over all spots; none where nothing helps. Zero grams when it is near enough already.
std::optional<Ballast> leastBallast(const std::vector<BallastSpot> &spots, double mass_g, const Vec2 &offset_mm,
                                    double within_mm);

} // namespace waxis
