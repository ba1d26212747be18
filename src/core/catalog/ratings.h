// What a part type draws, gives, sends, hears, sees and disturbs. Units stand in the names; what is not stated is
// unknown.
#pragma once

#include "core/base/measured.h"
#include "core/geometry/pose.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

/// A rail that the part feeds.
struct PowerOutput {
    std::string id;
    double voltage_V = 0;
    double limit_A = 0;               ///< continuous
    std::optional<double> efficiency; ///< 0 to 1; none for a linear regulator
    bool operator==(const PowerOutput &) const = default;
};

/// How the current of an input goes with its voltage.
enum class Draw {
    constantCurrent, ///< linear inputs, and what nobody stated
    constantPower    ///< switching inputs: more current from a lower voltage
};

struct Electrical {
    std::optional<double> supplyMin_V, supplyMax_V;
    Measured typical_A, peak_A; ///< at the supply
    Draw draw = Draw::constantCurrent;
    std::optional<double> drawnAt_V; ///< constant power: the voltage at which the currents are stated
    std::vector<PowerOutput> outputs;
    std::optional<double> continuous_A;            ///< what an ESC, plug or pack carries without end
    std::optional<int> cells;                      ///< packs: cells in series
    std::optional<double> capacity_mAh;            ///< packs
    std::optional<double> cellFull_V;              ///< packs: 4.20, 4.35
    std::optional<double> capacitance_uF, rated_V; ///< capacitors
    std::optional<double> resistance_Ohm, rated_W; ///< resistors, and what a switch or sensor puts in the way
    std::optional<double> forward_V;               ///< diodes: what is lost on the way
    bool operator==(const Electrical &) const = default;
};

/// A channel that can be chosen, by its centre.
struct RadioChannel {
    std::string name;
    double centre_MHz = 0;
    bool operator==(const RadioChannel &) const = default;
};

/// One band in which the part sends or listens.
struct RadioBand {
    double low_MHz = 0, high_MHz = 0;
    std::optional<double> power_dBm; ///< sends with; none: only listens
    bool listens = false;
    std::optional<double> bandwidth_MHz;          ///< of one channel
    std::optional<double> noiseFigure_dB;         ///< listening
    std::optional<double> selectivity_dB;         ///< listening, out of band
    std::optional<double> harmonicSuppression_dB; ///< sending
    std::optional<double> filter_dB;              ///< what its own filter takes off what is far from the band
    std::optional<double> intercept_dBm;          ///< sending: third order, at the output
    std::optional<double> blocking_dBm;           ///< listening: what overloads it
    std::optional<double> needed_dB;              ///< listening: signal over noise
    std::vector<RadioChannel> channels;           ///< to choose from; none: hops over the whole band
    std::string port;                             ///< id of the antenna port; empty: antenna on the board
    bool operator==(const RadioBand &) const = default;
};

enum class AntennaKind { dipole, monopole, teeElement, helical, circularOmni, patch, ceramicPatch, loadedDipole };
enum class Polarisation { linear, rightCircular, leftCircular };

/// Gain at an angle off the antenna's axis, for patterns given as a table.
struct PatternPoint {
    double angle_deg = 0, gain_dBi = 0;
    bool operator==(const PatternPoint &) const = default;
};

struct Antenna {
    AntennaKind kind = AntennaKind::dipole;
    double low_MHz = 0, high_MHz = 0;
    double gain_dBi = 0;
    Polarisation polarisation = Polarisation::linear;
    Vec3 phaseCentre_mm = Vec3::Zero();
    Vec3 axis = Vec3::UnitZ(); ///< along the element, or out of the patch
    double pigtail_mm = 0;
    std::string connector;               ///< "RP-SMA", "SMA", "micro-coax snap plug", "soldered"
    std::string coax;                    ///< of the pigtail: "rg178", "rg316", "micro-1.13"; empty: not stated
    std::optional<double> axialRatio_dB; ///< of circular ones
    std::vector<PatternPoint> pattern;   ///< measured, angles ascending; empty: that of the kind
    bool operator==(const Antenna &) const = default;
};

struct Camera {
    Vec3 lens_mm = Vec3::Zero();
    Vec3 axis = Vec3::UnitX();
    double horizontalView_deg = 0, verticalView_deg = 0;
    double tiltMin_deg = 0, tiltMax_deg = 0; ///< upwards, in its bracket
    bool operator==(const Camera &) const = default;
};

/// A steady frequency inside the part: camera pixels, a converter.
struct Clock {
    std::string name;
    double frequency_MHz = 0;
    bool operator==(const Clock &) const = default;
};

struct Magnetics {
    Vec3 dipole_mAm2 = Vec3::Zero();     ///< permanent moment, milliampere square metres
    bool ferrous = false;                ///< steel: bends the earth's field
    std::optional<Vec3> compass_mm = {}; ///< where its magnetic sensor sits; none: it has no compass
    double compassTurn_deg = 0;          ///< how the chip lies in the module: to the left, seen from above
    bool compassOnItsBack = false;       ///< and whether it looks down
    bool operator==(const Magnetics &) const = default;
};

/// A lead that comes with the part.
struct SuppliedLead {
    std::string port;
    double length_mm = 0;
    int gauge_AWG = 0;
    std::string plug;                                 ///< what is on its far end; empty: bare
    std::vector<std::string> pins = {}, colours = {}; ///< at the far end, as they lie in the plug
    std::optional<Vec3> plugSize_mm = {};             ///< along the lead, across, in height
    bool operator==(const SuppliedLead &) const = default;
};

} // namespace waxis
