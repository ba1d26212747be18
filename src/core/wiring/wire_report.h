// Each wire in numbers: how long, what to cut, whether the lead in the bag will do, how heavy, and what it runs beside.
#pragma once

#include "core/build/build.h"
#include "core/pins/signal.h"
#include "core/practice/practice.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct BodyOwner;
struct MassRow;
struct WireRoute;

enum class LeadVerdict {
    unknown,   ///< an end is not there
    cut,       ///< from stock
    asItIs,    ///< supplied or ready made, and as long as it should be
    trim,      ///< supplied and longer
    shortBy,   ///< supplied and too short
    readyMade, ///< the shortest ready-made cable that reaches
    none       ///< no ready-made cable is long enough
};

struct WireReport {
    std::string wire;
    WireRole role = WireRole::signal;
    bool disturbs = false; ///< carries the pack's own current or a motor's
    bool minds = false;    ///< carries what such a wire beside it would be heard in
    int gauge_AWG = 28;    ///< the thickest core
    double outer_mm = 0;   ///< of the thickest core
    double bundle_mm = 0;  ///< of all cores together
    // The sum that the cut is.
    double route_mm = 0, corners_mm = 0, ends_mm = 0, resolder_mm = 0, slack_mm = 0;
    double twist = 1;                  ///< factor on route and corners
    double needed_mm = 0;              ///< what has to be between the ends
    double cut_mm = 0;                 ///< rounded up for the cut list, or what is used of the supplied lead
    std::optional<double> supplied_mm; ///< lead or ready-made cable at hand
    LeadVerdict verdict = LeadVerdict::unknown;
    double spare_mm = 0;               ///< supplied less needed
    std::string leadOf;                ///< part that the supplied lead came with
    std::string leadPlug;              ///< on its far end
    std::vector<std::string> slackFor; ///< "sway", "open", "own"
    double mass_g = 0; ///< beyond what is in its parts' own masses: negative when a supplied lead is trimmed
    Vec3 centroid_mm = Vec3::Zero();
    double tightest_mm = 0; ///< radius of the tightest bend that the route leaves room for, inside; 0: no bend
    double bendLimit_mm = 0;
    Vec3 tightestAt_mm = Vec3::Zero();
};

/// A piece of two wires that run side by side, or the place where they cross.
struct WireMeeting {
    int a = 0, b = 0;       ///< indices in Build::wires; a carries the current
    double together_mm = 0; ///< length of b within the limit of a
    double apart_mm = 0;    ///< least distance
    double angle_deg = 0;   ///< between them where they are nearest
    Vec3 at_mm = Vec3::Zero();
    bool eased = false; ///< twisted, shielded, coax or leading there together
};

/// What goes through one pass-through.
struct HoleUse {
    std::string pass;
    std::vector<int> wires;
    double hole_mm = 0; ///< diameter of the largest circle in it
    double area_mm2 = 0;
    double fill = 0, limit = 0;
    double bundle_mm = 0; ///< all wires together
};

struct WiringReport {
    std::vector<WireReport> wires; ///< by Build::wires
    std::vector<WireMeeting> meetings;
    std::vector<HoleUse> holes;
};

/// Lengths that plug-to-plug cables are sold in, mm; common practice, no source.
std::span<const double> readyMadeLengths_mm(WireLay lay);

/// Whether an end is soldered (pads) or plugged.
bool isSoldered(const Build &build, const WireEnd &end);

/// What is known already: the report of a build that differed in nothing but where its parts stood.
struct WiringBefore {
    const WiringReport &report;
    const std::vector<WireRoute> &routes;
};
/// `before`: null, or what of it still holds is taken over: wires that run as they did.
WiringReport wiringReport(const Build &build, const Practice &practice, const std::vector<WireRoute> &routes,
                          const std::vector<BodyOwner> &owners, const WiringBefore *before = nullptr);

/// Wires as rows of weight; id is the wire's.
MassRow massRowOf(const Build &build, const Wire &wire, const WireReport &report, const Practice &practice,
                  const std::vector<LoadCase> &loadCases);

} // namespace waxis
