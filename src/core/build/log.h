// What was measured and seen, kept beside what was planned: sessions, entries, trials, named states of the build.
#pragma once

#include "core/base/shared_value.h"
#include "core/geometry/pose.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class SkyAround { open, trees, houses };

/// A day or an hour at one place.
struct Session {
    std::string id;
    std::string name; ///< empty: the day
    std::string at;   ///< "2026-05-14T10:20:00+02:00": with its zone
    std::string place;
    std::optional<double> height_m; ///< over the sea
    std::optional<double> field_uT; ///< the earth's, whole
    std::optional<double> air_C;
    std::string wind; ///< in words
    std::optional<SkyAround> sky;
    std::string loadCase;    ///< id; empty: the first
    std::string fingerprint; ///< of the build as it was (core/log/fingerprint.h); empty: nobody knows
    std::string state;       ///< the builder's word for it: "as first flown"
    std::string note;
    std::vector<std::string> pictures; ///< paths relative to the build's file
    bool operator==(const Session &) const = default;
};

/// What an entry says; its table with units and words is core/log/quantities.h.
enum class Quantity {
    partWeight,
    craftWeight,
    craftBalance,
    size,
    leadCut,
    leadTrimmed,
    leadShort,
    idleCurrent,
    hoverCurrent,
    hoverThrottle,
    restVoltage,
    hoverVoltage,
    flight,
    temperature,
    satellites,
    headingLifted,
    headingTurned,
    rangeWalk,
    sag,
    fieldOfPlace,
    seen,
    fault,
    setting,
    motorReversed,
    takenOut,
    putIn,
    spareUsed,
    damage,
    openEnd
};

/// One line of the log: what was measured, seen or done.
struct Entry {
    std::string id;
    std::string session;
    Quantity quantity = Quantity::partWeight;
    std::vector<std::string> subjects; ///< ids of parts, wires, plates; for weights and sizes also a kit item's
    std::vector<double> values;        ///< as the quantity's table says how many and in which units
    std::optional<double> tolerance;   ///< of the first value, +- 2 sigma; none: the instrument's usual
    std::string word;                  ///< seen: from the list; setting: which; motorReversed: how
    std::string text;                  ///< the builder's own words
    std::string cure;                  ///< fault, damage, open end: what mended it; empty: still open
    bool blocks = false;               ///< open end, fault: no flight before it is mended
    bool packFull = true;              ///< flight: the pack was full at its start
    bool setAside = false;             ///< kept, and not counted
    std::string loadCase;              ///< id; empty: the session's
    std::string instrument;            ///< empty: by hand
    std::string raw;                   ///< what the instrument sent
    std::string at;                    ///< as Session::at; empty: some time in it
    bool operator==(const Entry &) const = default;
};

/// What a trial measures. In brackets: the unit.
enum class TrialQuantity {
    secondsToSatellites, ///< from power to the trial's number of satellites in use
    secondsToFix,        ///< from power to the first place
    satellitesUsed,      ///< at the end of the try
    carrierToNoise,      ///< mean of the four best, median over the try (dB-Hz)
    dilution,            ///< horizontal, median over the try
    headingError,        ///< (deg), without its sign
    rangeReached,        ///< (m)
    temperature,         ///< (deg C)
    other                ///< in the trial's own unit
};

/// Where a part stood, in the frame's axes.
struct StoodAt {
    Pose X_FramePart;
    bool operator==(const StoodAt &) const = default;
};

/// One of the ways that a trial compares.
struct TrialSetup {
    std::string id;
    std::string name;
    std::optional<StoodAt> stood; ///< where the trial's part stood; none: not said, or not what is compared
    std::string specimen, under, lead, shield, others, supply, start; ///< in words; empty: not said
    std::optional<double> lead_mm;
    bool fan = false;
    std::string note;
    bool operator==(const TrialSetup &) const = default;
};

/// What a receiver heard, thinned: one point every ten seconds.
struct TryPoint {
    double at_s = 0;
    int used = 0, inView = 0;
    std::optional<double> best4_dBHz, dilution;
    bool operator==(const TryPoint &) const = default;
};

/// One satellite of a try.
struct HeardSatellite {
    std::string system; ///< "GP", "GL", "GA", "GB", "GQ"
    int number = 0;
    double elevation_deg = 0, azimuth_deg = 0; ///< azimuth from north, turning east
    std::optional<double> ratio_dBHz;          ///< median over the try; none: in view and never heard
    bool operator==(const HeardSatellite &) const = default;
};

/// One try of one set-up.
struct Try {
    std::string id;
    std::string setup;   ///< TrialSetup::id
    std::string session; ///< Session::id; empty: none
    std::string at;      ///< as Session::at
    std::optional<double> value;
    bool reached = true;           ///< false: given up at `value`, or at watched_s, without getting there
    double watched_s = 0;          ///< of a receiver: how long
    std::optional<double> fix_s;   ///< from power to the first place
    std::vector<double> reached_s; ///< [n]: from power to n + 1 satellites in use, for the first time
    std::vector<TryPoint> series;
    std::vector<HeardSatellite> heard;
    std::optional<double> nose_deg; ///< where the nose pointed, from north turning east
    std::string instrument;         ///< empty: by hand
    std::string rawFile;            ///< path of the kept bytes, relative to the build's file
    bool setAside = false;
    std::string note;
    bool operator==(const Try &) const = default;
};

/// A question with two or more ways, measured several times each.
struct Trial {
    std::string id;
    std::string question;
    std::string part; ///< whose place or fastening is asked about; empty: none
    TrialQuantity quantity = TrialQuantity::secondsToSatellites;
    int satellites = 8;        ///< secondsToSatellites: how many
    double longest_s = 600;    ///< a try is given up after that
    std::string unit;          ///< other: its unit
    bool moreIsBetter = false; ///< other: which way
    std::vector<TrialSetup> setups;
    std::vector<Try> tries;
    std::string note;
    bool operator==(const Trial &) const = default;
};

/// A named state of the build that can be gone back to.
struct Snapshot {
    std::string id;
    std::string name;
    std::string at;
    std::string note;
    std::string fingerprint;
    /// All of the build but its log, as its file would hold it. Files keep only the difference to the state after.
    SharedValue<std::string> document;
    bool operator==(const Snapshot &) const = default;
};

struct Log {
    std::vector<Session> sessions; ///< oldest first
    std::vector<Entry> entries;
    std::vector<Trial> trials;
    std::vector<Snapshot> snapshots; ///< oldest first
    bool operator==(const Log &) const = default;
};

} // namespace waxis
