// A part's place against other places it might have: sky, separation, compass, wire, all at once.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// What a place is worth for a GPS module or compass. Values that the part has no use for are empty.
struct PlaceReport {
    std::string trial; ///< id of the trial place; empty: where it is
    std::string name;
    std::optional<double> skyLevel, skyCruise;               ///< hidden share of the sky
    std::optional<double> lean_deg;                          ///< antenna off the zenith, level
    std::optional<double> sender_mm;                         ///< nearest antenna that sends
    std::optional<double> rise_dB;                           ///< worst rise of its noise floor
    std::optional<double> constant_deg, hover_deg, full_deg; ///< heading errors
    std::optional<double> loud_mm;      ///< nearest sender's, camera's, regulator's or speed controller's body
    std::optional<double> magnet_mm;    ///< nearest magnet to the compass
    std::optional<double> steel_mm;     ///< nearest steel to it, within twice the practice's distance
    std::optional<double> leadSpare_mm; ///< of the supplied lead that is shortest for it; negative: does not reach
    double wire_mm = 0;                 ///< all wires to it, as cut
    bool wired = false;
    int stop = 0, watch = 0; ///< findings that name the part
    std::string meets;       ///< what it would stand in; empty: free
};

/// For the place that the part has and for each of its trial places; every one is a full analysis with views, some 100
/// ms. `stop` ends it early; `practice` overrides the build's own.
std::vector<PlaceReport> comparePlaces(const Build &build, const std::string &part, const std::function<bool()> &stop,
                                       const std::optional<Practice> &practice = {});

} // namespace waxis
