// The faces of the frame that a part can stand on or hang under at one point of the plan: the rungs of the height
// ladder.
#pragma once

#include "core/build/build.h"

#include <optional>
#include <vector>

namespace waxis {

/// One face of a plate above or below a point.
struct Face {
    std::string plate;
    bool under = false;            ///< its lower face: what sits there hangs
    double z_mm = 0;               ///< height of the face
    std::optional<double> room_mm; ///< free height before the next plate; none: open
    bool operator==(const Face &) const = default;
};

/// All faces at a point of the plan, from the lowest to the highest. Empty where there is no plate. Cut-outs count as
/// no plate, round holes do not.
std::vector<Face> facesAt(const Frame &frame, const Vec2 &point_mm);

/// Where a part stands on (or hangs under) the face: the pose with its height changed so that its firm bodies touch.
Pose onFace(const PartType &type, const Pose &wanted, const Face &face);

/// The rung nearest to where the part stands now; -1 without faces.
int rungOf(const std::vector<Face> &faces, const PartType &type, const Pose &pose);

} // namespace waxis
