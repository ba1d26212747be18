#include "core/wiring/arm_holes.h"

#include "core/build/frame_shapes.h"

#include <cmath>

namespace waxis {

std::optional<Vec3> throughHole(std::span<const Vec3> points, const Arm &arm, const ArmHole &hole) {
    const Pose own = armAxes(arm).inverse();
    const Vec3 size = armSize_mm(arm);
    const double along = hole.at_mm - size.x() / 2, reach = hole.diameter_mm / 2;
    const auto crosses = [&](int axis, double face) -> std::optional<Vec3> {
        for (std::size_t i = 0; i + 1 < points.size(); ++i) {
            const Vec3 a = own * points[i], b = own * points[i + 1];
            const double da = a[axis] - face, db = b[axis] - face;
            if (da * db > 0 || da == db) continue;
            const Vec3 p = a + da / (da - db) * (b - a);
            const double other = axis == 1 ? p.z() : p.y();
            if (std::abs(p.x() - along) <= reach && std::abs(other) <= reach) return armAxes(arm) * p;
        }
        return std::nullopt;
    };
    const double left = (size.y() - arm.wall_mm) / 2, top = (size.z() - arm.wall_mm) / 2;
    const bool both = hole.wall == ArmWall::both;
    std::optional<Vec3> at;
    if (both || hole.wall == ArmWall::left) at = crosses(1, left);
    if (!at && (both || hole.wall == ArmWall::right)) at = crosses(1, -left);
    if (!at && hole.wall == ArmWall::top) at = crosses(2, top);
    if (!at && hole.wall == ArmWall::bottom) at = crosses(2, -top);
    return at;
}

} // namespace waxis
