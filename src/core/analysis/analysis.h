// Analysis = analyse(Build): everything computed about a build.
#pragma once

#include "core/derived/derived.h"
#include "core/findings/finding.h"

#include <atomic>

namespace waxis {

struct LedWires;

struct Analysis {
    Practice practice;
    Derived derived;
    std::vector<Finding> findings; ///< worst first
    std::vector<Finding> passes;   ///< outcomes inside the practice, closest call first
    FindingCounts counts;

    /// The outcome with the smallest margin in mm among open findings and passes; null for
    /// none.
    const Finding *closestCall() const;
};

/// Keeps an analysis in step with a changing build. Only what an edit touched is computed again; the result always
/// equals a fresh analysis of the same build (tests compare them after random edits).
class Analyser {
public:
    Analyser();
    ~Analyser();
    Analyser(Analyser &&) noexcept;
    Analyser &operator=(Analyser &&) noexcept;

    /// The result stays valid until the next call. `practice` overrides the build's own when given.
    const Analysis &update(const Build &build, const std::optional<Practice> &practice = {});
    const Analysis &current() const;
    /// While the mouse is down: wires that would take long to lead are stretched (see RouteKeeper).
    void setHurry(bool hurry);
    /// Lattice points that an update may look at in leading wires; Derived::wiresPutOff tells how many wires wait then.
    void setRouteBudget(std::size_t visits);
    /// What is not led when that becomes true is put off. It has to live as long as updates are made.
    void setRouteStop(const std::atomic<bool> *stop);
    std::shared_ptr<const LedWires> ledWires() const;
    /// The next update takes those routes, when its build is the one that they were led in.
    void setLedWires(std::shared_ptr<const LedWires> led);
    /// A survey (core/survey) for the next update to judge by. It stays until another comes; once the build has moved
    /// on it counts as stale.
    void setSurvey(std::shared_ptr<const Survey> survey);

private:
    struct State;
    std::unique_ptr<State> state_;
};

/// Analysis with a fresh survey in it: for the command line and tests.
const Analysis &analyseFully(Analyser &analyser, const Build &build, const std::optional<Practice> &practice = {});

} // namespace waxis
