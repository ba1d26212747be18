// An order in which the finished craft comes apart, one thing or one sub-assembly at a time; turned round it is an
// order in which it goes together.
#pragma once

#include "core/sequence/blocking.h"

namespace waxis {

/// Why one thing goes in before another.
enum class BeforeReason {
    rests,    ///< the second rests on the first, or goes through it
    inTheWay, ///< the second would stand in the first one's way
    tool,     ///< driver, iron or hand would not get to the first any more
    joint,    ///< a wire is joined to what is there, or before it goes in
    heat,     ///< what heat harms comes after the iron
    process,  ///< power train tried before more hangs on it, antennas before senders have power ...
    own       ///< the builder wants it so
};
struct Before {
    int first = 0, second = 0; ///< things
    BeforeReason reason = BeforeReason::rests;
    bool operator==(const Before &) const = default;
};

/// One thing, or several that only move together, as it goes in.
struct PutIn {
    std::vector<int> things;   ///< the one that carries the others first
    Vec3 from = Vec3::UnitZ(); ///< where it comes from: unit vector out of the craft
    bool first = false;        ///< what all else goes onto: it comes from nowhere
    /// No way was free for it: who stood in the best one. Empty: it goes in.
    std::vector<int> stuckBehind;
    /// Nothing left room for its driver when it had to go in: who stood there.
    std::vector<int> undriven;
};

struct PutTogether {
    std::vector<PutIn> order;
    std::vector<Before> edges; ///< all of them hold in `order`; each pair once
};

/// Among those that are free the one that comes out the same way as the last, then of the same kind and carrier, the
/// nearest to it. Where nothing is free, what a carrier carries is tried as one with it; where that does not come out
/// either, the thing with the fewest before it is named and taken out all the same.
PutTogether putTogether(BlockingGraph &graph);

} // namespace waxis
