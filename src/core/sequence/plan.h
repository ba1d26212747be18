// The order of putting together as steps for people: runs of like things are one.
#pragma once

#include "core/base/sentence.h"
#include "core/sequence/taking_apart.h"

namespace waxis {

/// What goes in at once, by one way.
struct Step {
    std::string id;                       ///< "fit:esc", by its first thing: the same wherever the step stands
    std::vector<std::string> things;      ///< ids
    std::vector<std::string> onto;        ///< what they rest on
    Vec3 from = Vec3::UnitZ();            ///< unit vector towards where they come from
    bool base = false;                    ///< what all else goes onto
    bool asOne = false;                   ///< put together in the hand before
    std::vector<std::string> stuckBehind; ///< no way is free: who stands in the best one
};

/// Why a step stands before another one.
struct StepBefore {
    std::size_t first = 0, second = 0; ///< of the steps
    BeforeReason reason = BeforeReason::rests;
    std::string thing, other; ///< of the first step, of the second
};

struct AssemblyPlan {
    std::string loadCase;
    std::vector<Step> steps;
    std::vector<StepBefore> reasons; ///< each pair of steps once, the plainest reason
};

/// For what is aboard in a load case (its number). A good order, not the best.
AssemblyPlan planAssembly(const Build &build, const Scene &scene, const std::vector<LoadCase> &loadCases, int loadCase);

/// "Four-in-one ESC onto damper 1 and 3 more, from above".
Sentence wordStep(const Build &build, const Step &step);
/// "before flight controller, which would stand in its way"; empty: nothing but what rests on it comes later.
Sentence wordWhyHere(const Build &build, const AssemblyPlan &plan, std::size_t step);

} // namespace waxis
