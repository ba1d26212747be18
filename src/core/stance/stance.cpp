#include "core/stance/stance.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>

namespace waxis {

Stance stanceOf(const Build &build) {
    struct Foot {
        Vec2 at;
        double z;
    };
    std::vector<Foot> feet;
    for (const auto &standoff : build.frame->standoffs)
        if (standoff.role == StandoffRole::foot) feet.push_back({standoff.base_mm.head<2>(), standoff.base_mm.z()});
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::landingFoot || part.optional) continue;
        const Pose pose = framePose(build, part);
        for (const auto &solid : type->solids) {
            const Pose X = pose * solid.X_PartSolid;
            const Aabb box = boundsOf(solid.shape, X);
            // Skids touch along their length: both ends count.
            const Vec3 size = box.size_mm(), middle = (box.min_mm + box.max_mm) / 2;
            if (size.x() > 4 * size.y() || size.y() > 4 * size.x()) {
                const int axis = size.x() > size.y() ? 0 : 1;
                for (double end : {box.min_mm[axis], box.max_mm[axis]}) {
                    Vec3 p = middle;
                    p[axis] = end;
                    feet.push_back({p.head<2>(), box.min_mm.z()});
                }
            } else
                feet.push_back({middle.head<2>(), box.min_mm.z()});
        }
    }
    Stance ground;
    for (const auto &foot : feet) ground.z_mm = std::min(ground.z_mm, foot.z);
    constexpr double kLevel_mm = 1.0;
    for (const auto &foot : feet)
        if (foot.z < ground.z_mm + kLevel_mm) ground.feet.push_back(foot.at);
    return ground;
}

std::optional<TipOver> tipOver(const Stance &stance, const Vec3 &cg_mm) {
    const auto hull = stance.hull();
    if (hull.size() < 3) return std::nullopt;
    TipOver tip;
    tip.inside_mm = 1e300; // least distance to an edge, negative outside
    for (std::size_t i = 0; i < hull.size(); ++i) {
        const Vec2 along = (hull[(i + 1) % hull.size()] - hull[i]).normalized();
        const Vec2 off = cg_mm.head<2>() - hull[i];
        tip.inside_mm = std::min(tip.inside_mm, along.x() * off.y() - along.y() * off.x());
    }
    tip.height_mm = std::max(cg_mm.z() - stance.z_mm, 1e-3);
    tip.angle_deg = degreesFromRadians(std::atan2(tip.inside_mm, tip.height_mm));
    return tip;
}

} // namespace waxis
