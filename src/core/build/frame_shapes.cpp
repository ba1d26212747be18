#include "core/build/frame_shapes.h"

#include "core/base/units.h"
#include "core/build/chain.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

/// Across the arm, x to its left, y up. Round ones are polygons of the same area with flats above, below and at the
/// sides, so that what lies on them touches.
Ring sectionRing(const Arm &arm, double inwards_mm) {
    const double x = arm.width_mm / 2 - inwards_mm, y = arm.thickness_mm / 2 - inwards_mm;
    if (arm.section != ArmSection::tube) return {{-x, -y}, {x, -y}, {x, y}, {-x, y}};
    constexpr int kSides = 24;
    const double grown = std::sqrt(2 * kPi / (kSides * std::sin(2 * kPi / kSides)));
    Ring ring;
    for (int i = 0; i < kSides; ++i) {
        const double angle = (i + 0.5) * 2 * kPi / kSides;
        ring.emplace_back(grown * x * std::cos(angle), grown * y * std::sin(angle));
    }
    return ring;
}

} // namespace

Vec3 armSize_mm(const Arm &arm) { return {(arm.tip_mm - arm.root_mm).norm(), arm.width_mm, arm.thickness_mm}; }

Shape armShape(const Arm &arm) {
    if (!isHollow(arm)) return Box{armSize_mm(arm)};
    return Prism{{sectionRing(arm, 0), {sectionRing(arm, arm.wall_mm)}}, armSize_mm(arm).x()};
}

Pose armPose(const Arm &arm) {
    const Pose axes = armAxes(arm);
    if (!isHollow(arm)) return axes;
    // A prism grows along its own z from its end: turn x, y, z into across, up, along.
    Mat3 turn;
    turn << Vec3::UnitY(), Vec3::UnitZ(), Vec3::UnitX();
    return {axes * Vec3(-armSize_mm(arm).x() / 2, 0, 0), axes.rotation * Quat(turn)};
}

Pose armAxes(const Arm &arm) {
    const Vec3 along = arm.tip_mm - arm.root_mm;
    const double level = std::hypot(along.x(), along.y());
    const Quat turn = Quat(Eigen::AngleAxisd(std::atan2(along.y(), along.x()), Vec3::UnitZ()) *
                           Eigen::AngleAxisd(-std::atan2(along.z(), level), Vec3::UnitY()));
    return {(arm.root_mm + arm.tip_mm) / 2 - turn * Vec3(0, 0, arm.thickness_mm / 2), turn};
}

namespace {

/// A polygon of the hole's area that stays within 0.03 mm of its circle: what drills are good for (common practice, no
/// source).
Ring holeRing(const RoundHole &hole) {
    constexpr double kOff_mm =
        0.06; // between the circles through the corners and along the sides; half of it either way
    const double step = std::acos(std::clamp(1 - kOff_mm / (hole.diameter_mm / 2), 0.0, 1.0));
    return circleRing(hole.centre_mm, hole.diameter_mm, std::clamp(int(std::ceil(kPi / step)), 8, 48));
}

} // namespace

Polygon platePolygon(const Plate &plate) {
    Polygon polygon{plate.outline_mm, plate.cutouts_mm};
    for (const auto &hole : plate.holes) polygon.holes.push_back(holeRing(hole));
    return polygon;
}

Shape plateShape(const Plate &plate) { return Prism{platePolygon(plate), plate.thickness_mm}; }

Shape standoffShape(const Standoff &standoff) { return Cylinder{standoff.diameter_mm, standoff.height_mm}; }

Pose standoffPose(const Standoff &standoff) {
    return {standoff.base_mm + Vec3(0, 0, standoff.height_mm / 2), Quat::Identity()};
}

BladeRoom bladeRoomOf(const MotorMount &mount, const BladeRoom &usual) {
    const double share = usual.for_mm > 0 ? std::clamp(mount.propDiameter_mm / usual.for_mm, 0.4, 3.0) : 1;
    return {mount.flexUp_mm.value_or(usual.up_mm * share), mount.flexDown_mm.value_or(usual.down_mm * share),
            mount.propDiameter_mm};
}

Shape discShape(const MotorMount &mount, const BladeRoom &usual) {
    const BladeRoom room = bladeRoomOf(mount, usual);
    return Cylinder{mount.propDiameter_mm, room.up_mm + room.down_mm};
}

Pose discPose(const MotorMount &mount, const BladeRoom &usual) {
    const BladeRoom room = bladeRoomOf(mount, usual);
    return {propCentre_mm(mount) + mount.axis * ((room.up_mm - room.down_mm) / 2),
            Quat::FromTwoVectors(Vec3::UnitZ(), mount.axis)};
}

Vec3 thrustCentre_mm(const Frame &frame) {
    Vec3 sum = Vec3::Zero();
    for (const auto &mount : frame.motorMounts) sum += propCentre_mm(mount);
    return frame.motorMounts.empty() ? sum : Vec3(sum / double(frame.motorMounts.size()));
}

Aabb partBounds(const Build &build, const Part &part) {
    Aabb bounds;
    const Pose pose = framePose(build, part);
    for (const auto &solid : placedSolids(build, part))
        if (solid.role != SolidRole::soft) bounds.include(boundsOf(solid.shape, pose * solid.X_PartSolid));
    if (bounds.empty()) bounds.include(pose.position_mm);
    return bounds;
}

} // namespace waxis
