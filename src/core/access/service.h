// What must come off first: service depth.
#pragma once

#include "core/access/corridor.h"
#include "core/clearance/sweep.h"

#include <map>
#include <set>

namespace waxis {

/// For one build and load case: ways to take things off. A thing comes off along one of six directions when its bodies,
/// swept exactly, are clear of everything else, or once what is in the way has come off. What is fastened onto it comes
/// along, save packs, which are taken off first. Arms, the lowest plate and things that nothing can free stay.
class ServicePlan {
public:
    ServicePlan(const Build &build, const Scene &scene, int loadCase);

    /// The fewest things found to take off before the corridor is free, in the order of taking off; none when it
    /// cannot be freed. Empty: it is free as it is. `self` is the part with the port.
    std::optional<std::vector<int>> toFree(const std::vector<int> &blockers, int self);

private:
    using Set = std::set<int>;
    /// `anyway`: what comes off in any case and holds nothing back.
    std::optional<Set> toTakeOff(int owner, int self, const Set &anyway, std::vector<int> &visiting);
    /// An order in which each comes off past what is left; none when they wait for each other.
    std::optional<std::vector<int>> orderOf(const Set &all);
    const std::vector<int> &assemblyOf(int owner);
    std::vector<int> inTheWay(int owner, const Vec3 &direction);

    const Build &build_;
    const Scene &scene_;
    int loadCase_;
    Sweeps sweeps_;
    std::vector<std::vector<int>> bodiesOf_;    ///< by owner
    std::vector<bool> fixed_;                   ///< by owner
    std::set<std::pair<int, int>> overlapping_; ///< owners that stand in each other as drawn: no way is judged by that
    std::map<int, std::vector<int>> assemblies_;
    std::map<std::pair<int, int>, std::vector<int>> ways_; ///< owner, direction: what is in the way
};

} // namespace waxis
