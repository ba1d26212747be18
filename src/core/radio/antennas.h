// Which radios are aboard, on which channel, and which antennas they use, where.
#pragma once

#include "core/build/build.h"
#include "core/radio/coax.h"
#include "core/radio/pattern.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// An antenna as it stands in the craft, with what leads to it. Frame axes.
struct AntennaUse {
    std::string part; ///< the antenna, or the radio whose board carries one
    std::string port; ///< of the radio; empty: on its board
    std::string wire; ///< that leads there; empty: plugged straight on, or on the board
    Antenna antenna;
    AntennaPattern pattern;
    Vec3 centre_mm = Vec3::Zero(); ///< phase centre
    Vec3 axis = Vec3::UnitZ();
    double cable_mm = 0; ///< coax between board and element
    std::string coax;    ///< id of its kind
    int connectors = 0;  ///< mated pairs on the way
};

/// A band of a part aboard: what it sends and hears with the chosen channel and power.
struct RadioUse {
    std::string part;
    int band = 0; ///< index in PartType::radio
    PartKind kind = PartKind::other;
    std::string channel;              ///< name of the chosen one; empty: the whole band, or typed
    double low_MHz = 0, high_MHz = 0; ///< what it occupies
    double centre_MHz = 0;            ///< of that
    bool hops = false;                ///< all over its band
    std::optional<double> power_dBm;  ///< sends with
    bool listens = false;
    double bandwidth_MHz = 0, noiseFigure_dB = 0, selectivity_dB = 0, suppression_dB = 0, blocking_dBm = 0,
           needed_dB = 0;
    std::optional<double> filter_dB;     ///< stated: what its filter takes off what is far from the band
    std::optional<double> intercept_dBm; ///< sending: third order, at the output; none stated: over its full power
    double fullPower_dBm = 0;            ///< sending: whatever the setting
    std::vector<std::string> assumed;    ///< keys of those that the part does not state
    std::vector<AntennaUse> antennas;    ///< empty: none is connected
    std::uint64_t cases = 0;             ///< load cases in which it is aboard, a bit each

    bool sends() const { return power_dBm.has_value(); }
    /// A key for people and files: "vtx" or "vtx/1" for a second band.
    std::string id() const { return band == 0 ? part : part + "/" + std::to_string(band); }
};

/// `cutLengths_mm` by Build::wires: how long the coax is. In file order.
std::vector<RadioUse> radiosOf(const Build &build, const std::vector<LoadCase> &loadCases,
                               const std::vector<double> &cutLengths_mm);

/// What a setting leaves of a band: the channel and power in force.
RadioSetting settingOf(const Build &build, const std::string &part, int band);

/// Loss of cable and connectors on the way to an antenna, dB, positive.
double feedLoss_dB(const AntennaUse &use, double f_MHz);

} // namespace waxis
