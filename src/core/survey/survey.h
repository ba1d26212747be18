// What takes too long to look at on every mouse move: views, access, folding. Taken on a copy, in the background.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"
#include "core/survey/at_hand.h"

#include <atomic>
#include <memory>

namespace waxis {

struct AssemblyPlan;
struct Scene;
class SweepMemory;

/// Each look is only declared here, so that a change of one concerns those alone who read it (views, reach, helps,
/// core/coverage, core/radio/coupling, core/remedies/radio_help).
struct Survey {
    Survey();
    Survey(const Survey &);
    Survey(Survey &&) noexcept;
    Survey &operator=(const Survey &);
    Survey &operator=(Survey &&) noexcept;
    ~Survey();

    Build build; ///< what it was taken of
    Practice practice;
    std::vector<SkySurvey> skies;
    std::vector<CameraSurvey> cameras;
    std::vector<LampSurvey> lamps;
    std::vector<AccessSurvey> access;
    std::vector<FoldContact> folding;
    std::vector<TravelContact> travels; ///< one for each pair that comes too near, the worst place of it
    std::vector<SlideSurvey> slides;
    std::vector<LineShadow> shadows;          ///< between senders' and listeners' antennas, only where something stands
    std::vector<PairHelp> radioHelp;          ///< of pairs that are not well
    std::vector<CompassHelp> compassHelp;     ///< of those that are turned by more than the practice notes
    std::vector<PlaceHelp> placeHelp;         ///< of the first that hang; the rest get theirs when these are held
    std::vector<TurnHelp> turnHelp;           ///< of what stands in a zone
    std::vector<RadioCoverage> coverages;     ///< of radios other than satellite receivers, whose sky is looked at
    std::shared_ptr<const AssemblyPlan> plan; ///< of the load case with most aboard; none: there is nothing to build
};

/// Everything above for a build and what was derived of it. Returns early, incomplete, once `stop` is set.
/// Deterministic. `memory`: null, or what earlier plans swept; the survey is the same with it.
Survey surveyOf(const Build &build, const Practice &practice, const Derived &derived,
                const std::atomic<bool> *stop = nullptr, SweepMemory *memory = nullptr);

/// Single looks, also for the live panels.
std::vector<AccessSurvey> accessOf(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                                   const Scene &scene, const std::atomic<bool> *stop = nullptr);
std::vector<FoldContact> foldContacts(const Build &build, const Practice &practice,
                                      const std::atomic<bool> *stop = nullptr);
/// Joints of parts over their whole travels, all of a part's joints together, and what sits on them; tails that a servo
/// tilts, 30 degrees either way (common practice, no source). What moves keeps the folding gap from what stays.
std::vector<TravelContact> travelContacts(const Build &build, const Practice &practice, const Scene &scene,
                                          const std::atomic<bool> *stop = nullptr);
AccessSurvey lookAtPort(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const Scene &scene, const Part &part, const Port &port, bool hand, int loadCase);

} // namespace waxis
