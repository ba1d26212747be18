// Places where a part can sit, and how it is held there.
#pragma once

#include "core/build/edits.h"

#include <array>
#include <optional>

namespace waxis {

enum class PerchKind { pattern, adapter, face, strap, mast, armTop, armUnder, armSide, armInside, standoff, bobbin };

/// One place for one part: where it ends up and how it is fastened there.
struct Perch {
    PerchKind kind = PerchKind::face;
    std::string on;   ///< id of the site, arm or standoff
    std::string site; ///< not empty: it is seated there
    Pose X_FramePart;
    Fastening fastening;
    std::string adapter; ///< id of the type of the adapter plate that goes between
    double away_mm = 0;  ///< from where the part was wanted, in the directions looked at
};

/// The nearest place within `reach_mm` of where a part is wanted, measured along the axes that the drawing shows; sites
/// whose holes line up win over all others, then sites with an adapter out of `adapters`, then other sites, arms,
/// standoffs. A part keeps its turn, save that it takes the lean of a leaning site and the direction of an arm.
std::optional<Perch> nearestPerch(const Build &build, const Part &part, const Pose &wanted,
                                  const std::array<bool, 3> &shown, double reach_mm, const TypeTable &adapters = {});

/// Puts the part there, with its adapter plate where it needs one.
EditResult perchPart(const Build &build, const std::string &part, const Perch &perch, const TypeTable &adapters = {});

/// In a few words: "on", "under", "beside" ... for the drawing.
std::string_view perchWord(PerchKind kind);

} // namespace waxis
