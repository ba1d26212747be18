// The bodies of a craft: whose they are, what they are like, how far apart they stand.
#pragma once

#include "core/base/shared_value.h"
#include "core/build/build.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

class ClearanceWorld;
struct BodyGap;

enum class OwnerKind { part, plate, arm, standoff, screw, disc };

/// A thing that has bodies in the clearance world.
struct BodyOwner {
    OwnerKind kind = OwnerKind::part;
    std::string id;
    CaseMask cases = 0;
    std::vector<int> related; ///< owners that it is fastened to, or that are fastened to it: may touch
    std::vector<int> onto;    ///< of these, what it is fastened onto itself
    bool holds = false;       ///< screws, nuts, ties and straps go through or round what they hold
    bool fastener = false;    ///< of these, what is turned in: screws, nuts, washers, spacers
    bool sleeve = false;      ///< a tube: what bends may stand in it
    bool carries = false;     ///< a mount or tube: part of how a thing is held, and yet a body
    bool isolated = false;    ///< soft-mounted
    bool flexible = false;
    bool hot = false;
    bool insulated = false; ///< declared insulator between it and what it stands on
    bool battery = false;
    int stack = -1;     ///< index of the stack that it stands in; -1: none
    double sway_mm = 0; ///< soft-mounted: how far its bobbins give, as stated; 0: the practice's figure
    bool operator==(const BodyOwner &) const = default;
};

/// What a body is made of, beside its owner's traits.
struct BodyTraits {
    int owner = 0;
    int solid = 0; ///< index in the part type; of frame members a count of their bodies
    bool soft = false, bare = false, conductive = false, printed = false;
    bool component = false; ///< stands on a board: nothing goes through it
    bool stopper = false;   ///< ends the travel of what is soft-mounted
    bool operator==(const BodyTraits &) const = default;
};

struct Scene {
    SharedValue<std::vector<BodyOwner>> owners;  ///< parts first, in file order
    SharedValue<std::vector<BodyTraits>> traits; ///< one per body of the world
    std::shared_ptr<const ClearanceWorld> world; ///< a copy keeps its own: one that is shared is not moved in any more
};

/// The things nearest to a part that are aboard in a load case, nearest first, one gap per thing. What it is
/// fastened to, soft matter and propeller discs do not count.
std::vector<BodyGap> nearestThings(const Scene &scene, int owner, int loadCase, double reach_mm, std::size_t most);

/// The shortest gap between two things by their ids, nearest points included; none when one has no bodies or does not
/// exist. Propeller discs do not count.
std::optional<BodyGap> gapBetween(const Scene &scene, const std::string &a, const std::string &b);

/// Number of the load case in which an owner is first aboard, unfolded; none when it never is.
std::optional<int> firstCaseOf(const Scene &scene, const std::vector<LoadCase> &loadCases, int owner);

} // namespace waxis
