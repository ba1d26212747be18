// What takes too long to look at on every mouse move: views, access, folding. Taken on a copy, in the background.
#pragma once

#include "core/coverage/coverage.h"
#include "core/practice/practice.h"
#include "core/remedies/radio_help.h"
#include "core/sight/camera_view.h"
#include "core/sight/lamp_view.h"
#include "core/sky/sky_view.h"

#include <atomic>

namespace waxis {

struct Derived;

struct SkySurvey {
    std::string part;
    std::string loadCase; ///< the one in which most is hidden
    AntennaPlace place;
    SkyView level, cruise;
};

struct TiltStep {
    double tilt_deg = 0, hidden = 0, propellers = 0;
};

struct CameraSurvey {
    std::string part;
    std::string loadCase; ///< the one in which most is hidden as it stands
    CameraView now;
    std::vector<TiltStep> tilts;        ///< over the tilt allowed, ascending
    std::optional<double> overshoot_mm; ///< lensOvershoot_mm
    /// The widest run of tilts in which no more than the practice's share is hidden; none: nowhere.
    std::optional<double> bestFrom_deg, bestTo_deg;
};

struct LampSurvey {
    std::string part, port; ///< port empty: the part is a lamp itself
    std::string loadCase;
    LampView view;
};

struct AccessSurvey {
    std::string part, port;
    std::string loadCase;
    bool hand = false;               ///< must stay reachable; else a plug's own room
    Vec3 fullSize_mm = Vec3::Zero(); ///< of the corridor
    Pose X_FrameCorridor;            ///< its middle, x outwards
    std::vector<std::string> blockers;
    std::optional<std::vector<std::string>> takeOff; ///< the fewest found, in order; none: not by taking things off
};

struct FoldContact {
    std::string a, b;    ///< a moves
    double fraction = 0; ///< of the way at which they first meet
    double depth_mm = 0; ///< there, or at the end
    bool folded = false; ///< they still meet when folded
    Vec3 at_mm = Vec3::Zero();
};

struct SlideSurvey {
    std::string part;
    double free_min_mm = 0, free_max_mm = 0; ///< how far it gets before it meets something, from where it is
    std::string stopAft, stopFore;           ///< what it meets, or the strap that it would slip out of; empty: the
                                             ///< end of its range
};

/// What would help a compass.
struct CompassHelp {
    std::string compass; ///< part
    std::string magnet;  ///< part; empty: against currents
    std::vector<Fix> fixes;
};

/// How a part that bends may be turned out of a propeller's zone.
struct TurnHelp {
    std::string part, mount;
    std::vector<Fix> fixes;
};

/// Where a part that hangs in the air could sit.
struct PlaceHelp {
    std::string part;
    std::vector<Fix> fixes;
};

struct Survey {
    Build build; ///< what it was taken of
    Practice practice;
    std::vector<SkySurvey> skies;
    std::vector<CameraSurvey> cameras;
    std::vector<LampSurvey> lamps;
    std::vector<AccessSurvey> access;
    std::vector<FoldContact> folding;
    std::vector<SlideSurvey> slides;
    std::vector<LineShadow> shadows;      ///< between senders' and listeners' antennas, only where something stands
    std::vector<PairHelp> radioHelp;      ///< of pairs that are not well
    std::vector<CompassHelp> compassHelp; ///< of those that are turned by more than the practice notes
    std::vector<PlaceHelp> placeHelp;     ///< of the first that hang; the rest get theirs when these are held
    std::vector<TurnHelp> turnHelp;       ///< of what stands in a zone
    std::vector<RadioCoverage> coverages; ///< of radios other than satellite receivers, whose sky is looked at
};

/// Everything above for a build and what was derived of it. Returns early, incomplete, once `stop` is set.
/// Deterministic.
Survey surveyOf(const Build &build, const Practice &practice, const Derived &derived,
                const std::atomic<bool> *stop = nullptr);

/// Whether everything but one part stands as it did: rays' worlds that leave that part out still hold.
bool othersStand(const Build &before, const Build &after, const std::string &but);

/// Single looks, also for the live panels.
std::vector<AccessSurvey> accessOf(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                                   const Scene &scene, const std::atomic<bool> *stop = nullptr);
std::vector<FoldContact> foldContacts(const Build &build, const Practice &practice,
                                      const std::atomic<bool> *stop = nullptr);
AccessSurvey lookAtPort(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const Scene &scene, const Part &part, const Port &port, bool hand, int loadCase);

} // namespace waxis
