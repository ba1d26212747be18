// Where a dragged part would rather stand: sites, hole patterns, plate edges and faces, the centre line.
#pragma once

#include "app/drawing/projection.h"
#include "core/build/build.h"

#include <QLineF>
#include <QString>
#include <vector>

namespace waxis::place {

struct Snap {
    Pose X_FramePart;           ///< where the part ends up
    std::string site;           ///< not empty: it is seated there
    std::vector<QLineF> guides; ///< in the view's scene coordinates
    QString text;               ///< what it snapped to
};

/// `wanted` is where the pointer would put the part. Anything within `reach_mm` on the screen attracts; sites
/// whose hole pattern lines up with the part's win over lines.
Snap snap(const Build &build, const Part &part, const Pose &wanted, drawing::View view, double reach_mm);

} // namespace waxis::place
