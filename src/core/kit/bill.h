// Bill of hardware: every screw, nut, spacer, damper, tie and strap of the build, counted and weighed.
#pragma once

#include "core/build/build.h"
#include "core/practice/practice.h"

#include <map>

namespace waxis {

struct BillRow {
    std::string item; ///< kit item
    std::string name;
    std::string material; ///< empty: not stated
    int pieces = 0;
    double piece_g = 0; ///< mean of one piece
    bool known = true;  ///< its mass is known
};

struct HardwareBill {
    std::vector<BillRow> rows; ///< by name
    std::map<std::string, double> byMaterial_g;
    double total_g = 0;
    int pieces = 0;
};

/// Placed fasteners, dampers, straps, and what holds parts without being drawn. Weighed in the kit beats the type's
/// mass. Sets count their pieces.
HardwareBill hardwareBill(const Build &build, const Practice &practice);

} // namespace waxis
