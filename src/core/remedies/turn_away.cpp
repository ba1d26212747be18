#include "core/remedies/turn_away.h"

#include "core/base/units.h"
#include "core/clearance/clearance_world.h"

#include <algorithm>
#include <cmath>

namespace waxis {

std::vector<Fix> turnsAway(const Build &build, const Scene &scene, int body, int zone, double wanted_mm) {
    const BodyOwner &owner = scene.owners[std::size_t(scene.traits[std::size_t(body)].owner)];
    const Part *part = owner.kind == OwnerKind::part ? findPart(build, owner.id) : nullptr;
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    if (!type || part->pinned || (type->kind != PartKind::antenna && type->kind != PartKind::tube)) return {};
    constexpr double kStep_deg = 15, kMost_deg = 90;
    const Body &zoneBody = scene.world->bodies()[std::size_t(zone)];
    const Vec3 about = framePose(build, *part).position_mm;
    std::vector<PartTurn> turns;
    for (const Vec3 &axis : {Vec3(Vec3::UnitZ()), Vec3(Vec3::UnitY()), Vec3(Vec3::UnitX())})
        for (const double way : {1.0, -1.0})
            for (double angle = kStep_deg; angle <= kMost_deg; angle += kStep_deg) {
                Body turned = scene.world->bodies()[std::size_t(body)];
                const Quat by(Eigen::AngleAxisd(way * radiansFromDegrees(angle), axis));
                turned.X_FrameBody.position_mm = about + by * (turned.X_FrameBody.position_mm - about);
                turned.X_FrameBody.rotation = by * turned.X_FrameBody.rotation;
                if (measureGap(turned, zoneBody).distance_mm < wanted_mm) continue;
                turns.push_back({axis, way * angle});
                break;
            }
    std::stable_sort(turns.begin(), turns.end(), [](const PartTurn &a, const PartTurn &b) {
        return std::abs(a.angle_deg) < std::abs(b.angle_deg);
    });
    std::vector<Fix> fixes;
    for (const auto &turn : turns) fixes.push_back({part->id, turn, {}, {}});
    return fixes;
}

} // namespace waxis
