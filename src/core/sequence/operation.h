// What hands do at the bench, one thing at a time, and what has to be done before what.
#pragma once

#include "core/geometry/pose.h"
#include "core/sequence/taking_apart.h"

#include <cstddef>
#include <string>
#include <vector>

namespace waxis {

enum class OperationKind {
    takeDown, ///< what was built otherwise comes off first
    prepare,  ///< leads cut to length, stripped, tinned, in the hand
    slip,     ///< sleeve, shrink or grommet, before what closes its way
    splice,   ///< two pieces of a lead joined outside the craft
    trim,     ///< screws, nylon, dampers cut to their length
    dryFit,   ///< what will be stuck down is tried before
    balance,  ///< found with everything laid in place, before the controller is stuck down
    fit,      ///< a thing, or several as one, into its place
    measure,  ///< a gap that shims fill
    loop,     ///< a strap through its slots
    lead,     ///< a wire through its holes
    solder,   ///< all wires of a port
    insulate, ///< joints covered, sheets laid in
    plug,
    snap, ///< an antenna's connector
    lock, ///< screws that were left loose, crosswise
    tie,
    check,  ///< one gate of checks (core/sequence/checks)
    change, ///< from one load case to another
    own     ///< a step of the builder's own
};
enum class Tool { hand, driver, iron, tape, ties, cutters, meter };
/// Of checks: the power train alone, each regulator before its loads hang on it, all aboard without propellers, before
/// it flies.
enum class Gate { none, train, rails, end, flight };

/// A wire's end as it is joined.
struct JointEnd {
    std::string wire, part, port;
    bool operator==(const JointEnd &) const = default;
};

struct Operation {
    std::string id; ///< "fit:esc", "solder:esc.battery", "plug:w-esc.fc", "check:train"; the same wherever it stands
    OperationKind kind = OperationKind::fit;
    Gate gate = Gate::none;
    std::vector<std::string> things; ///< that go in, the one that carries the others first; screws that are tightened
    std::vector<std::string> onto;   ///< what they rest on; plates whose holes a wire goes through
    std::vector<std::string> off;    ///< that come off
    std::vector<std::string> beside; ///< of a dry fit: what stands close by, is not there yet and is tried with it
    std::string loadCase;            ///< of a flight or change: which
    std::vector<JointEnd> joints;
    Vec3 from = Vec3::UnitZ(); ///< unit vector towards where it comes from, or where the tool does
    int side = 0;              ///< 1: craft upright, -1: upside down, 0: either
    std::string place;         ///< where hands are: "arms", the id of a stack or of a plate
    std::string sort;          ///< of like ones a run is one step
    Tool tool = Tool::hand;
    double minutes = 0;    ///< common practice, no source
    bool base = false;     ///< what all else goes onto
    bool inHand = false;   ///< a joint made before its part goes in
    bool loose = false;    ///< screws that are tightened later
    double inwards_mm = 0; ///< of joints: how far from the edge of their part; the farther ones first
    bool atTheEnd = false;
    std::vector<std::string> stuckBehind; ///< no way is free: who stands in the best one
    std::vector<std::string> undriven;    ///< no room for the driver: who stands there
    std::string contents; ///< changes when the operation becomes another one: a tick is good for what was done
};

/// `first` before `second`, indices of operations; `thing` of the first, `other` of the second.
struct OperationOrder {
    std::size_t first = 0, second = 0;
    BeforeReason reason = BeforeReason::rests;
    std::string thing, other;
};

/// What the plan has to say beside its steps; rules make findings of it.
enum class RemarkKind { stuck, undriven, covered, hole, heat, service, dryFit, byHand };
struct PlanRemark {
    RemarkKind kind = RemarkKind::stuck;
    std::vector<std::string> subjects; ///< what it is about first
    double value = 0;                  ///< service: how many come off; heat: mm
    std::string note;                  ///< byHand: the builder's reason
};

} // namespace waxis
