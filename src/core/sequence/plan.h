// The order of building as steps for people: runs of like operations are one.
#pragma once

#include "core/kit/holding.h"
#include "core/sequence/operations.h"

namespace waxis {

class SweepMemory;

/// What is done at once, with one tool at one place.
struct Step {
    std::string id; ///< of its first operation
    OperationKind kind = OperationKind::fit;
    Gate gate = Gate::none;
    Tool tool = Tool::hand;
    int side = 0; ///< as Operation::side
    std::string place;
    std::vector<StepTick> does;      ///< operation by operation: what a tick of today says, without its time
    std::vector<std::string> things; ///< ids
    std::vector<std::string> onto;   ///< what they rest on
    std::vector<std::string> off;    ///< as Operation::off
    std::vector<std::string> beside; ///< as Operation::beside
    std::string loadCase;            ///< as Operation::loadCase
    std::vector<JointEnd> joints;
    Vec3 from = Vec3::UnitZ(); ///< unit vector towards where they come from
    bool base = false;         ///< what all else goes onto
    bool asOne = false;        ///< put together in the hand before
    bool inHand = false;       ///< joints that are made before their part goes in
    bool loose = false;        ///< some of its screws are tightened later
    bool hasFlown = false;     ///< it has flown without this already
    bool twisting = false;     ///< leads that lie twisted are twisted here
    std::vector<std::string> stuckBehind, undriven;
    std::vector<Hardware> takes; ///< screws, tape, ties that are not drawn, of all its things
    double minutes = 0;
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
    std::vector<PlanRemark> remarks;
    double minutes = 0;
    int turns = 0; ///< how often the craft is turned over
};

/// For what is aboard in a load case (its number). A good order, not the best; deterministic. Everything that goes
/// wrong is in the steps and remarks. `memory`: null, or what earlier plans swept; the plan is the same with it.
AssemblyPlan planAssembly(const Build &build, const Practice &practice, const Derived &derived, int loadCase,
                          SweepMemory *memory = nullptr);

/// The load case with most aboard that flies, else with most aboard: what is built.
int fullestCase(const Build &build, const std::vector<LoadCase> &loadCases);

/// How far a step is done: all of what it does, or some of it; `again`: it was done when it was another one.
enum class StepState { open, partly, done, again };
StepState stateOf(const Build &build, const Step &step);

} // namespace waxis
