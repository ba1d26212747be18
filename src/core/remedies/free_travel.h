// How far a part can be moved along a line before something stops it.
#pragma once

#include "core/clearance/clearance_world.h"
#include "core/scene/scene.h"

namespace waxis {

enum class StopKind {
    range, ///< the end of the range that was asked for
    body,  ///< it meets something
    strap  ///< a strap round it would slip off its end
};

struct TravelEnd {
    double travel_mm = 0; ///< from where the part is, along the direction; negative backwards
    StopKind kind = StopKind::range;
    std::string by; ///< id of what stops it; empty: the range
};

struct FreeTravel {
    TravelEnd least, most;
    bool blocked() const { return least.kind != StopKind::range || most.kind != StopKind::range; }
};

/// Nearer to the pack's end than this a strap slips off, mm (common practice, no source).
inline constexpr double kStrapHold_mm = 5;

/// Straps of the build that go round a part: they are fastened onto it, or it onto them, and fly with it. By index.
std::vector<std::size_t> strapsRound(const Build &build, const Scene &scene, std::size_t part);

/// Travel of `part` (index) along a unit vector of the frame between `least_mm` <= 0 and `most_mm` >= 0: steps of 1 mm,
/// then halved to 0.05 mm. Firm bodies that fly with it stop it, but for what it is fastened to, what holds it, soft
/// matter and propeller discs; so does a strap that holds it where it is and would come nearer than kStrapHold_mm to
/// its end. Where it overlaps something already, that does not stop it.
FreeTravel freeTravel(const Build &build, const Scene &scene, std::size_t part, const Vec3 &direction, double least_mm,
                      double most_mm);

} // namespace waxis
