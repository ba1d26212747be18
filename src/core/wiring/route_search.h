// The shortest way for a wire between two places, round what stands there.
//
// The way is the shortest in one fixed graph: the lattice of a RouteField with 98 directions (all steps of up to two
// cells that no shorter step repeats) near both ends and near narrow places, every second and then every fourth point
// of it beyond, straight lines from both ends to the lattice round them, and the straight line between the ends.
// Obstacles only take edges away. Hence the same build always gives the same way, and adding an obstacle never shortens
// one. A way is never shorter than the straight line and, in the free, at most kStretch times as long.
#pragma once

#include "core/wiring/route_field.h"

#include <vector>

namespace waxis {

struct RouteLeg {
    std::vector<Vec3> points_mm; ///< from the first end to the second; both alone where no way was found
    double length_mm = 0;
    bool found = false;
    bool makeshift = false; ///< stretched from an earlier place, or not searched to its end: to be searched again
    bool putOff = false;    ///< makeshift because the budget of an update was used up (see RouteKeeper)
    bool cutShort = false;  ///< the search ended because of `mostVisits`
    std::size_t visits = 0; ///< lattice points that the search looked at
    std::vector<std::int64_t>
        looked; ///< sorted: blocks of the field, outside which nothing had a say; empty: everything had
};

/// Longest way on the lattice in the free, over the straight line: 1/cos of half the widest angle between directions.
inline constexpr double kStretch = 1.035;

inline constexpr std::size_t kMostVisits = 120'000;

/// `clearance_mm` is kept from every obstacle; towards both ends it shrinks to nothing, as pads and plugs lie on
/// solids. After `mostVisits` lattice points it counts as not found.
RouteLeg findLeg(const RouteField &field, const Vec3 &from_mm, const Vec3 &to_mm, double clearance_mm,
                 std::span<const Vec3> narrow_mm = {}, std::size_t mostVisits = kMostVisits);

/// Whether findLeg() would give the same again after a change of the field: what came nearer is not beside the way, and
/// no way past what went away could be as short. (A search that nearly ran out of visits is taken to end as before.)
bool staysBest(const RouteLeg &leg, const FieldChange &change);

} // namespace waxis
