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
    double sleeve_mm = 0;           ///< diameter of the sleeve that goes over it; 0: none
    std::string inLine;             ///< what sits in this core and where: "5 A fuse at 40 mm"
};

/// Metres of sleeve of one size.
struct SleeveRow {
    double diameter_mm = 0, length_mm = 0;
    int pieces = 0;
};

/// Metres of one kind of wire.
struct StockRow {
    int gauge_AWG = 0;
    std::string colour;
    double metres = 0;
    int pieces = 0;
};

struct CutList {
    std::vector<CutRow> rows;       ///< in the order of Build::wires and their cores
    std::vector<StockRow> stock;    ///< thick first, then by colour; only what is cut from stock
    int ties = 0;                   ///< at tie points, and along arms every 40 mm
    std::vector<SleeveRow> sleeves; ///< thin first
    int grommets = 0;               ///< pass-throughs with one
    int splices = 0;
};

/// Inside diameter of braided sleeve that is sold and goes over a bundle, mm (common practice, no source): 2, 3, 4, 6,
/// 8, 10, 13, 16, 20, 25; thicker ones in steps of 5.
double sleeveFor_mm(double bundle_mm);

CutList cutList(const Build &build, const Practice &practice, const WiringReport &wiring);

} // namespace waxis
