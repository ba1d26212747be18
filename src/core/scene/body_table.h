// Which bodies there are, what they are like, and which pairs matter.
#pragma once

#include "core/clearance/clearance_world.h"
#include "core/practice/practice.h"
#include "core/scene/scene.h"

namespace waxis {

struct BodyTable {
    std::vector<BodyOwner> owners; ///< parts first, in file order
    std::vector<BodyTraits> traits;
    std::vector<Body> bodies;
};

/// Margins are reported this far beyond the limit, so that the closest calls can be listed.
inline constexpr double kLookAhead_mm = 5.0;

BodyTable bodyTableOf(const Build &build, const std::vector<LoadCase> &loadCases, const Practice &practice);

/// Poses of one part's solids, in the order of its bodies.
std::vector<Pose> bodyPosesOf(const Build &build, const Part &part);

/// What two bodies ask of each other. Nothing set: the pair does not matter.
struct PairDemands {
    bool overlap = false; ///< FIT-1: they must not stand in each other
    bool seated =
        false;          ///< a mount and what it holds or sits on: tabs, pockets and clamps go into one another a little
    bool heads = false; ///< FRM-4: a part and the screw under it
    bool sway = false, heat = false, bare = false; ///< FIT-2
    double sway_mm = 0;                            ///< for sway, where bobbins state it; 0: the practice's figure
    std::optional<Limit> propeller;                ///< FIT-3: which limit holds against the propeller's zone
    bool held = false;                             ///< FIT-13: one may hold the other
    bool any() const { return overlap || sway || heat || bare || propeller || held; }
};
PairDemands demandsOf(const std::vector<BodyOwner> &owners, const BodyTraits &a, const BodyTraits &b);

PairInterest interestIn(const PairDemands &demands, const Practice &practice);

} // namespace waxis
