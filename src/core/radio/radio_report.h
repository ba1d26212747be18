// Who disturbs whom, by how much: every sender and source of noise against every listener.
#pragma once

#include "core/magnetics/current_paths.h"
#include "core/radio/coupling.h"
#include "core/radio/products.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct PowerReport;
struct Scene;
struct WireRoute;
struct WiringReport;

/// What disturbs: a sender, the noise of a board, a magnet, or all steady currents together.
enum class DisturberKind { sender, noise, magnet, currents };
struct Disturber {
    DisturberKind kind = DisturberKind::sender;
    std::string id; ///< RadioUse::id(), part id, or "currents"
    int radio = -1; ///< index in RadioReport::radios
};
/// What is disturbed: a listening radio or a compass.
struct Listener {
    std::string id;   ///< RadioUse::id(), or the part's with "/compass"
    int radio = -1;   ///< index in RadioReport::radios
    int compass = -1; ///< index in RadioReport::compasses
};

/// One sender or source against one listener. Levels at the listener's connector, dBm.
struct RadioCell {
    bool counts = false; ///< false: nothing to say (own link, never aboard together, no antenna)
    bool own = false;    ///< the same radio
    double distance_mm = 0;
    std::optional<Limit> practiceLimit;
    std::optional<double> practice_mm; ///< the distance that builders keep
    std::optional<Coupling> coupling;  ///< at the sender's frequency
    int fromAntenna = 0, toAntenna = 0;
    double arrives_dBm = 0;
    bool inBand = false;                ///< the sender's channel lies in the listener's
    double rejection_dB = 0;            ///< by the listener, out of its band
    double heard_dBm = 0;               ///< arrives less rejection
    double spilled_dBm = 0;             ///< the sender's noise in the listener's bandwidth
    std::optional<double> products_dBm; ///< harmonics and mixing products of this sender in the listener's band
    double sum_dBm = 0, floor_dBm = 0;
    double rise_dB = 0;           ///< of the noise floor
    double margin_dB = 0;         ///< until the rise that the practice watches; negative: over it
    double blockingMargin_dB = 0; ///< until the listener is overloaded
    double heading_deg = 0;       ///< compasses: worst heading error
    double field_uT = 0;          ///< compasses: horizontal
};

/// A multiple of a clock inside a listener's band.
struct ClockHit {
    std::string part, clock;
    int listener = 0; ///< index in RadioReport::radios
    int order = 1;
    double frequency_MHz = 0;
    double distance_mm = 0; ///< nearest body of the part to the antenna
};

/// What stands near one antenna.
struct AntennaSurroundings {
    int radio = 0, antenna = 0;
    double lambda_mm = 0;
    std::string conductor; ///< nearest thing that conducts; empty: none within a wavelength
    double conductor_mm = 0;
    Vec3 nearestOnElement_mm = Vec3::Zero();
    std::optional<double> edge_deg; ///< straight element: angle to the nearest carbon edge within that distance
    std::string edge;               ///< plate or arm
};

struct DiversityPair {
    int radio = 0, first = 0, second = 0;
    double angle_deg = 0; ///< between the elements, 0 to 90
};

/// One link to the ground.
struct RangeReport {
    std::string ground; ///< id of GroundStation
    int radio = 0;
    bool down = true; ///< from the craft to the ground
    double gainHere_dBi = 0, polarisation_dB = 0, cable_dB = 0;
    double distance_m = 0;
    double power_dBm = 0, freeSpace_dB = 0, arrives_dBm = 0, noise_dBm = 0, sensitivity_dBm = 0, margin_dB = 0;
    double elevation_deg = 0; ///< of the ground station as the level craft sees it; negative: below
    double overhead_dB = 0;   ///< margin with the craft straight above the station, through the antenna's underside
    double ceiling_m = 0;     ///< where the margin is used up, free space
    double kept_m = 0;        ///< where the practice's margin is left
    double fresnel_m = 0;     ///< radius at the middle
    double clearance_m = 0;   ///< of the straight line over flat ground there
    bool sameHand = true;
    std::vector<std::string> assumed;
};

/// Products of two senders at each listener are work by the cube of their number: a craft has some ten.
inline constexpr std::size_t kMostRadios = 60;

struct RadioReport {
    std::vector<RadioUse> radios;  ///< the first kMostRadios bands of the build
    std::size_t radiosLeftOut = 0; ///< beyond them: nothing is said of those
    std::vector<CompassReport> compasses;
    std::vector<Disturber> rows;
    std::vector<Listener> columns;
    std::vector<RadioCell> cells; ///< rows x columns
    std::vector<HarmonicProduct> harmonics;
    std::vector<MixProduct> mixes;
    std::vector<ClockHit> clocks;
    std::vector<AntennaSurroundings> surroundings;
    std::vector<DiversityPair> diversity;
    std::vector<RangeReport> ranges;
    FieldSources sources;

    const RadioCell &cell(std::size_t row, std::size_t column) const { return cells[row * columns.size() + column]; }
};

/// What a report on radios is made of beside the build.
struct RadioInputs {
    const std::vector<LoadCase> &loadCases;
    const Scene &scene;
    const std::vector<WireRoute> &routes;
    const WiringReport &wiring;
    const PowerReport &power;
    const std::vector<LineShadow> &shadows; ///< that somebody looked for (core/coverage); empty: not yet, or none
};
RadioReport radioReport(const Build &build, const Practice &practice, const RadioInputs &in);

/// The part of the report that follows from radios alone: cells between senders and listeners, harmonics, mixes. For
/// trying another channel, place or turn without a new build.
void judgeRadios(RadioReport &report, const Practice &practice, const std::vector<LineShadow> &shadows);

/// One sender against one listener, without products. `shadows` may be empty.
RadioCell cellBetween(const RadioUse &sender, const RadioUse &listener, const Practice &practice,
                      const std::vector<LineShadow> &shadows);

/// Highest level that raises a floor by no more than `rise_dB`.
double allowedLevel_dBm(double floor_dBm, double rise_dB);
/// How much more than at its edge a listener rejects a sender: the practice's slope for each octave between them, dB.
double farRejection_dB(const RadioUse &sender, const RadioUse &listener, const Practice &practice);

} // namespace waxis
