// The list of everything that weighs something in a build.
#pragma once

#include "core/balance/mass_kind.h"
#include "core/balance/mass_properties.h"
#include "core/build/build.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/practice/practice.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

struct MassRow {
    std::string id; ///< of the part, plate, arm, standoff or allowance
    MassKind kind = MassKind::part;
    Family family = Family::structure;
    bool known = false; ///< false: the mass is not known and `element` is weightless
    Source source = Source::catalogue;
    double tolerance_g = 0; ///< +- 2 sigma; the practice's default where none is stated
    double sigmaPosition_mm = 0;
    std::string alike; ///< rows that are wrong together, by one factor: of one type, not weighed; empty: on its own
    MassElement element;
    CaseMask cases = 0; ///< load cases that it flies in
};

/// Mass, centroid and inertia of one part in the frame's axes. Weighed as this very part beats
/// weighed as one of its kind (kit), which beats the catalogue. The centroid is the
/// type's stated centre of mass, else that of its solids weighted by density (by volume where a material is
/// missing); the inertia is that of the solids scaled to the mass.
MassRow massRowOf(const Build &build, const Part &part, const Practice &practice, CaseMask cases);
/// The same for a seat in a stack that is known already.
MassRow massRowOf(const Build &build, const Part &part, const Practice &practice, CaseMask cases,
                  const std::optional<StackSeat> &seat);

/// Rows of plates (outline x thickness x density less holes), arms, standoffs and allowances; weighed values win.
std::vector<MassRow> structureMassRows(const Build &build, const Practice &practice, CaseMask allCases);

/// What holds a part and is not drawn: screws, tape, ties, straps, as one row at the part's own centroid; none when
/// there is nothing of the kind. Its id is the part's with "/fastening".
std::optional<MassRow> fasteningRowOf(const Build &build, const Part &part, const Practice &practice,
                                      const MassRow &partRow);

} // namespace waxis
