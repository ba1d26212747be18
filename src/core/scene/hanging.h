// What hangs in the air: parts that nothing holds, or that do not touch what should hold them.
#pragma once

#include "core/practice/practice.h"
#include "core/scene/scene.h"

namespace waxis {

enum class HangingKind {
    far,     ///< farther from the frame than a craft reaches
    nothing, ///< fastened to nothing
    apart,   ///< does not touch what should hold it
    island   ///< holds on to something that nothing holds
};

struct Hanging {
    std::size_t part = 0; ///< index in Build::parts
    HangingKind kind = HangingKind::nothing;
    int other = -1;     ///< apart, island: the owner that should hold it
    double away_mm = 0; ///< far: from the frame; apart: from that owner
    Vec3 at_mm = Vec3::Zero();
};

struct HangingReport {
    std::vector<int> looseMembers; ///< owners: frame members that nothing joins to the arms
    std::vector<Hanging> parts;
};

/// Nothing without a frame: there is nothing yet that could hold anything. Read off the gaps that are kept anyway.
HangingReport whatHangs(const Build &build, const Practice &practice, const Scene &scene);

} // namespace waxis
