// What hangs in the balance of one load case: every mass aboard with its doubt, arms folded where they are.
#pragma once

#include "core/balance/mass_properties.h"
#include "core/build/build.h"

namespace waxis {

struct MassRow;

/// A mass row, or the piece of an arm's row on one side of its joint.
struct CaseMass {
    std::size_t row = 0; ///< index in the mass rows
    MassElement element; ///< where it is in this case
    double sigmaMass_g = 0, sigmaPosition_mm = 0;
    int group = -1; ///< rows that are wrong together (MassRow::alike), and the pieces of one arm
};

struct CaseMasses {
    std::vector<CaseMass> masses;
    std::vector<std::size_t> unknown;    ///< rows aboard without a weight
    std::vector<std::string> notWeighed; ///< their ids
};

/// `folded` overrides the load case's own say. Rows follow Derived::massRows.
CaseMasses massesIn(const Build &build, const std::vector<MassRow> &rows, std::size_t caseIndex, bool folded);

} // namespace waxis
