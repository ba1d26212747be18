// Where a dragged part would rather stand: perches (sites, hole patterns, arms, standoffs), plate edges and faces, the
// centre line.
#pragma once

#include "app/drawing/projection.h"
#include "core/build/edit_result.h"
#include "core/placing/perch.h"

#include <QLineF>
#include <QString>
#include <vector>

namespace waxis::place {

/// On the screen: nearer than this a place or an edge pulls.
inline constexpr double kSnapPixels = 7;

struct Snap {
    Pose X_FramePart;           ///< where the part ends up
    std::optional<Perch> perch; ///< it sits there, fastened as the perch says
    std::string plate;          ///< not empty: it stands on that plate's face
    std::vector<QLineF> guides; ///< in the view's scene coordinates
    QString text;               ///< what it snapped to
};

/// `wanted` is where the pointer would put the part. Anything within `reach_mm` on the screen attracts; perches win
/// over lines. `adapters`: types that may go between. With `lines` only: no perches, for parts that move together.
/// `level`: only places at the height of `wanted`, as chosen on the ladder.
Snap snap(const Build &build, const Part &part, const Pose &wanted, drawing::View view, double reach_mm,
          const TypeTable &adapters, bool linesOnly = false, bool level = false);

/// The build with the part where it snapped to, fastened there.
EditResult settle(const Build &build, const std::string &part, const Snap &snap, const TypeTable &adapters);

} // namespace waxis::place
