// Who draws on what: rails from packs down to the last lamp, the current in every wire, and how long a pack lasts.
#pragma once

#include "core/build/build.h"
#include "core/pins/nets.h"
#include "core/practice/practice.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct CaseBalance;

/// A part that draws on a rail.
struct RailLoad {
    std::string part, supply;
    double typical_A = 0, peak_A = 0; ///< with what its own outputs feed, seen from this rail; in its worst case
    bool known = false;               ///< false: nothing is stated of its own current
    bool returns = true; ///< its ground is the source's; false: the plus alone is joined, and nothing flows
    std::optional<double> least_V, most_V;
    CaseMask cases = 0;     ///< in which it draws
    std::vector<int> wires; ///< from the source, indices in Build::wires
    double drop_V = 0;      ///< along those, there and back, at typical current
    double peakDrop_V = 0;
};

/// Everything joined to one source.
struct Rail {
    std::string part, output; ///< the source: pack and "BAT", or a part and its output
    double least_V = 0, nominal_V = 0, most_V = 0;
    std::optional<double> limit_A;
    double typical_A = 0, peak_A = 0;       ///< of the load case in which it is most
    int worstCase = -1, worstPeakCase = -1; ///< indices; -1: it never draws
    std::vector<double> typicalByCase_A;    ///< by load case; 0 where the source is not aboard or switched off
    double heat_W = 0;                      ///< lost in the regulator at typical load and full pack
    std::string feeds; ///< regulators: the rail that this one is fed from, as "part:output"; empty: none
    std::vector<RailLoad> loads;
    CaseMask cases = 0; ///< in which it gives: the source is aboard, and fed itself
    std::string id() const { return part + ":" + output; }
};

/// A plug, board or harness that a rail's current goes through.
struct Passage {
    std::string part;
    double typical_A = 0, peak_A = 0;
    std::optional<double> limit_A;
};

struct WireCurrent {
    double typical_A = 0, peak_A = 0;
    bool known = false; ///< some current was found for it
    int way = 0;        ///< in the supply cores: 1 from Wire::from to Wire::to, -1 back; 0: alternating, or not known
};

/// What a motor takes.
struct MotorCurrent {
    std::string mount, motor, esc; ///< esc: empty when no phase wires lead to one
    double hover_A = 0, full_A = 0;
};

/// One load case in hover.
struct HoverReport {
    std::string pack;
    double power_W = 0, current_A = 0;  ///< motors and everything else, at nominal voltage
    double least_min = 0, most_min = 0; ///< flight time down to the reserve, for figures of merit 0.1 apart either way
    std::optional<double> full_A;       ///< all motors at full thrust
    double alarm_V = 0;                 ///< per cell: time to land
    double turnBack_mAh = 0;            ///< half of what may be used
};

/// Who has a supply in a load case: parts that are aboard and want one.
struct CaseSupply {
    std::vector<std::string> alive, dark;
};

struct PowerReport {
    std::vector<Rail> rails;        ///< packs first, then outputs in file order
    std::vector<std::string> unfed; ///< parts that need a supply and have none
    std::vector<Passage> passages;
    std::vector<WireCurrent> wires;   ///< by Build::wires
    std::vector<MotorCurrent> motors; ///< of the first load case that hovers
    std::vector<HoverReport> hover;   ///< by load case; empty pack: cannot be worked out
    std::vector<CaseSupply> supplies; ///< by load case; nothing where all is switched off
    PowerNets nets;
};

/// What is not aboard in a load case draws nothing in it, and what is carried is switched off; motors draw where the
/// case flies. Rails, wires and what they pass are those of the worst case each. `cutLengths_mm` by wire, for drops;
/// `nets` where they are known already. Peak of a motor: momentum theory at its stated full thrust.
PowerReport powerReport(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const std::vector<CaseBalance> &balance, const std::vector<double> &cutLengths_mm,
                        const PowerNets *nets = nullptr);

/// Where a load is joined to a rail: a part and the name of its supply. A pack is tapped at the first board behind its
/// plug that has pads for it. Empty when there is nothing to solder to.
struct RailTap {
    std::string part, supply;
};
RailTap tapOf(const Build &build, const PowerReport &power, const Rail &rail);

/// Volts of one cell: empty under load, nominal, full; lithium polymer unless the pack says otherwise.
struct CellVolts {
    double empty_V = 3.3, nominal_V = 3.7, full_V = 4.2, land_V = 3.5;
};
CellVolts cellVolts(const Electrical &pack);

} // namespace waxis
