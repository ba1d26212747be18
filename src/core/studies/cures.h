// Cures that were tried: each one applied to a copy of the whole craft, and kept only when the copy is better off.
#pragma once

#include "core/analysis/analysis.h"

#include <functional>
#include <memory>
#include <set>

namespace waxis {

/// A change that mends a finding and brings no new stop.
struct Cure {
    Sentence words;
    Build after;
    int mends = 0; ///< open stops and watches that are gone, less those that are new
};

/// Tries the fixes of a build's findings, one whole analysis each (without survey; of the order of building with a
/// whole plan). Of one build; not for two threads at once.
class CureTester {
public:
    /// `stopped`: asked between two trials; what was found so far is the answer then.
    explicit CureTester(Build build, std::function<bool()> stopped = {});
    ~CureTester();

    /// What is left of a finding's fixes, in their order, and for a stack that does not close the first changes that
    /// make it (core/stack/suggest). Left out are fixes that are refused, change nothing, do not better the finding, or
    /// bring a stop that was not there.
    std::vector<Cure> curesOf(const Finding &finding);

private:
    /// What becomes of the craft with a change; none when it is no cure.
    std::optional<int> outcomeOf(const Build &after, const Finding &finding);

    /// With the wires lengthened that a change made too short; the words say so.
    Build withWiresMended(Build after, std::string &words);

    struct State;
    std::unique_ptr<State> state_;
};

} // namespace waxis
