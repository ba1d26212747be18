// Which ways each thing of the finished craft could leave by, and what stands in each.
#pragma once

#include "core/build/build.h"
#include "core/clearance/sweep.h"
#include "core/practice/practice.h"
#include "core/scene/scene.h"
#include "core/sequence/sweep_memory.h"
#include "core/sequence/things.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// Everything that is aboard in a load case. Directional blocking graphs (Wilson and Latombe 1994, from memory), by
/// exact sweeps of convex pieces: a thing leaves in a straight line until it is clear of all that there is. What is
/// soft, bends or is a propeller's disc holds nothing back, nor does what a thing stands in as it is drawn.
class BlockingGraph {
public:
    /// `memory`: null, or what was swept before; whoever gives it has it in use.
    BlockingGraph(const Build &build, const Scene &scene, const Practice &practice, int loadCase,
                  SweepMemory *memory = nullptr);

    const std::vector<Thing> &things() const { return things_; }
    /// The thing of that id; -1: none.
    int find(const std::string &id) const;
    /// What all else goes onto: the lowest rigid plate; -1: there is none.
    int base() const { return base_; }
    /// What a thing meets on its way out along a unit vector; things, ascending. Worked out when it is first asked for.
    const std::vector<int> &inTheWay(int thing, const Vec3 &direction);
    /// Of screws and nuts what stands where the tools go while they are turned in, things, ascending: one list for each
    /// way to hold them, any of which will do. Screws: the driver; nuts: a socket along their axis or a spanner from
    /// one of eight sides; screws of the frame with a nut: both. Of all else nothing.
    const std::vector<std::vector<int>> &beforeTheTools(int thing);
    /// The list of these with the fewest that `counts` holds of; null: no tool turns it.
    const std::vector<int> *fewestBeforeTools(int thing, const std::vector<bool> &counts);
    /// What a round tool of this diameter meets from a point outwards, frame axes; things, ascending. `but` is left
    /// out: what it works on.
    std::vector<int> beforeTool(const Vec3 &at_mm, const Vec3 &way_mm, double across_mm, int but) const;
    /// What firm bodies of other things stand in a box, a little smaller than it is.
    std::vector<int> within(const Body &box, int but) const;
    /// Nearest distance of the thing's boxes to a point, mm.
    double distanceTo(int thing, const Vec3 &at_mm) const;
    const Aabb &boundsOfThing(int thing) const { return bounds_[std::size_t(thing)]; }

private:
    bool holdsBack(int body) const;
    /// `kind`: which tool, below zero.
    std::vector<int> meetsTool(int kind, const Body &tip, const Vec3 &way_mm, double across_mm, int but) const;
    bool swept(int thing, const Vec3 &way_mm, int other) const;
    void recall();
    std::vector<int> beforeDriver(int thing) const;
    std::vector<std::vector<int>> beforeSpanners(int thing, const Aabb &nut);
    bool meets(int thing, const Vec3 &way_mm, int body) const;
    void findHeads(const Build &build);
    const std::vector<bool> &standingIn(int thing);

    const Scene &scene_;
    SweepMemory *memory_;
    std::vector<int> states_; ///< by thing: as the memory knows it
    double driverAcross_mm_ = 0, driverLength_mm_ = 0;
    Sweeps sweeps_;
    std::vector<Thing> things_;
    std::map<std::string, int> byId_;
    int base_ = -1;
    std::vector<std::vector<int>> bodiesOf_; ///< by thing
    std::vector<std::optional<Body>> heads_; ///< by thing: of a screw of the frame what leaves, without its nut
    std::vector<std::optional<Aabb>> nuts_;  ///< by thing: what a spanner holds
    std::vector<Aabb> bounds_;               ///< by thing
    double clear_mm_ = 0;                    ///< so far away everything is out
    std::vector<std::vector<bool>> standing_;
    std::vector<std::vector<std::pair<Vec3, std::vector<int>>>> known_; ///< by thing
    std::vector<std::optional<std::vector<std::vector<int>>>> tools_;   ///< by thing
};

} // namespace waxis
