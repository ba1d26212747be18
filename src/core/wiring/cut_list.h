// What to cut, strip, crimp and twist, and what stock it takes.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"

#include <map>

namespace waxis {

struct WiringReport;

struct CutRow {
    std::string label; ///< "w-gps 2": the wire's id and its core's number
    std::string wire;
    std::string name; ///< the wire's
    std::string colour;
    int gauge_AWG = 0;
    double length_mm = 0;           ///< of this core, as cut
    std::string cut;                ///< "cut", "trim", "as it is", "ready made", "too short"
    std::string stripFrom, stripTo; ///< "strip 3, tin" or "strip 2, crimp" (mm)
    std::string twistGroup;         ///< wires twisted together share it; empty: none
    std::string from, to;           ///< "GPS with compass, serial: TX"
    bool sleeved = false;
};

/// Metres of one kind of wire.
struct StockRow {
    int gauge_AWG = 0;
    std::string colour;
    double metres = 0;
    int pieces = 0;
};

struct CutList {
    std::vector<CutRow> rows;    ///< in the order of Build::wires and their cores
    std::vector<StockRow> stock; ///< thick first, then by colour; only what is cut from stock
    int ties = 0;                ///< at tie points, and along arms every 40 mm
    double sleeve_mm = 0;
    int grommets = 0; ///< pass-throughs with one
    int splices = 0;
};

CutList cutList(const Build &build, const Practice &practice, const WiringReport &wiring);

} // namespace waxis
