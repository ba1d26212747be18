#include "core/build/near_frame.h"

#include "core/build/frame_shapes.h"

#include <algorithm>

namespace waxis {

Aabb frameBounds(const Frame &frame) {
    Aabb box;
    for (const auto &plate : frame.plates)
        for (const auto &p : plate.outline_mm) {
            box.include(Vec3(p.x(), p.y(), plate.z_mm));
            box.include(Vec3(p.x(), p.y(), plate.z_mm + plate.thickness_mm));
        }
    for (const auto &arm : frame.arms) box.include(boundsOf(armShape(arm), armPose(arm)));
    for (const auto &post : frame.standoffs) box.include(boundsOf(standoffShape(post), standoffPose(post)));
    for (const auto &mount : frame.motorMounts) box.include(mount.position_mm);
    if (box.empty()) box.include(Vec3(Vec3::Zero()));
    return box;
}

double fromFrame_mm(const Frame &frame, const Aabb &box) { return std::max(0.0, boxGap(frameBounds(frame), box)); }

} // namespace waxis
