// What would help one pair: farther, turned, another channel. Tried on the radios alone, so it is quick.
#pragma once

#include "core/findings/finding.h"
#include "core/scene/scene.h"

namespace waxis {

struct CompassReport;
struct FieldSources;
struct LineShadow;
struct RadioReport;

/// One thing to try and what it does to the pair.
struct RadioHelp {
    Fix fix;
    double margin_dB = 0; ///< of the cell afterwards
    double distance_mm = 0;
    bool cures = false;  ///< distance, noise and blocking are inside the practice then
    bool silent = false; ///< the sender is off wherever the listener works: no margin to tell
};

/// Proposals for one sender (index in RadioReport::radios) and one listener, the smallest change first: shifts of
/// either antenna along free directions, quarter turns, other channels, less power. Places where the part would stand
/// in something are left out; antennas on a coax also led out to other places that hold them; the sender off where it
/// is not needed; a shield under a module that listens. Empty when the pair is well already.
std::vector<RadioHelp> helpFor(const Build &build, const Practice &practice, const Scene &scene,
                               const RadioReport &report, const std::vector<LineShadow> &shadows, int sender,
                               int listener);

/// Proposals for one pair that is not well.
struct PairHelp {
    std::string sender, listener; ///< RadioUse::id()
    std::vector<RadioHelp> helps;
};
/// For every such pair; takes some ten milliseconds each.
std::vector<PairHelp> helpForAll(const Build &build, const Practice &practice, const Scene &scene,
                                 const RadioReport &report, const std::vector<LineShadow> &shadows);

/// The same for a magnet or the currents against a compass: shifts of the compass part and of the magnet.
std::vector<Fix> helpForCompass(const Build &build, const Practice &practice, const Scene &scene,
                                const FieldSources &sources, const CompassReport &compass, const std::string &magnet);

/// For currents against a compass: its leads twisted, the compass part moved level with what carries it, or both.
std::vector<Fix> helpForCurrents(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                                 const Scene &scene, const FieldSources &sources, const CompassReport &compass);

/// Whether a part's solids would stand free when shifted; what it is fastened to and soft matter do not count.
bool standsFree(const Scene &scene, const std::string &part, const Vec3 &shift_mm);

} // namespace waxis
