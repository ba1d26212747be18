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

double armHoles_mm3(const Arm &arm) {
    double taken = 0;
    if (!isHollow(arm)) return 0;
    for (const auto &hole : arm.holes)
        taken += (hole.wall == ArmWall::both ? 2 : 1) * kPi / 4 * hole.diameter_mm * hole.diameter_mm * arm.wall_mm;
    return taken;
}

namespace {

/// The section with its wall open, `half` mm either way of the middle of some walls. x points to the arm's left, y up.
std::vector<Polygon> openSection(const Arm &arm, double half, bool left, bool right, bool top, bool bottom) {
    const double wx = arm.width_mm / 2, wy = arm.thickness_mm / 2, deep = arm.wall_mm;
    std::vector<Polygon> pieces; // convex, so that they are quick to measure
    if (arm.section == ArmSection::tube) {
        const Ring outer = sectionRing(arm, 0), inner = sectionRing(arm, deep);
        for (std::size_t i = 0; i < outer.size(); ++i) {
            const std::size_t next = (i + 1) % outer.size();
            const Vec2 middle = (outer[i] + outer[next]) / 2;
            const bool beside = std::abs(middle.y()) < half, over = std::abs(middle.x()) < half;
            if ((beside && (middle.x() > 0 ? left : right)) || (over && (middle.y() > 0 ? top : bottom))) continue;
            pieces.push_back({{outer[i], outer[next], inner[next], inner[i]}, {}});
        }
        return pieces;
    }
    const auto put = [&](double x0, double x1, double y0, double y1) {
        if (x1 - x0 > 1e-9 && y1 - y0 > 1e-9) pieces.push_back({{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}, {}});
    };
    const double ky = std::min(half, wy - deep), kx = std::min(half, wx - deep);
    for (const double side : {1.0, -1.0}) { // left wall at +x, right wall at -x
        const double x0 = side > 0 ? wx - deep : -wx, x1 = x0 + deep;
        if (side > 0 ? left : right) {
            put(x0, x1, -wy, -ky);
            put(x0, x1, ky, wy);
        } else
            put(x0, x1, -wy, wy);
    }
    for (const double side : {1.0, -1.0}) {
        const double y0 = side > 0 ? wy - deep : -wy, y1 = y0 + deep;
        if (side > 0 ? top : bottom) {
            put(-wx + deep, -kx, y0, y1);
            put(kx, wx - deep, y0, y1);
        } else
            put(-wx + deep, wx - deep, y0, y1);
    }
    return pieces;
}

} // namespace

std::vector<std::pair<Shape, Pose>> armWalls(const Arm &arm) {
    std::vector<std::pair<Shape, Pose>> walls;
    if (!isHollow(arm) || arm.holes.empty()) return walls;
    const double length = armSize_mm(arm).x();
    const auto halfOf = [](const ArmHole &hole) { return hole.diameter_mm * std::sqrt(kPi) / 4; };
    std::vector<double> cuts{0, length};
    for (const auto &hole : arm.holes)
        for (const double end : {hole.at_mm - halfOf(hole), hole.at_mm + halfOf(hole)})
            if (end > 0 && end < length) cuts.push_back(end);
    std::sort(cuts.begin(), cuts.end());
    const Pose start = armPose(arm);
    for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
        const double from = cuts[i], to = cuts[i + 1], middle = (from + to) / 2;
        if (to - from < 1e-6) continue;
        bool left = false, right = false, top = false, bottom = false;
        double half = 0;
        for (const auto &hole : arm.holes) {
            if (std::abs(hole.at_mm - middle) >= halfOf(hole)) continue;
            half = std::max(half, halfOf(hole));
            left |= hole.wall == ArmWall::left || hole.wall == ArmWall::both;
            right |= hole.wall == ArmWall::right || hole.wall == ArmWall::both;
            top |= hole.wall == ArmWall::top;
            bottom |= hole.wall == ArmWall::bottom;
        }
        const Pose pose{start * Vec3(0, 0, from), start.rotation};
        if (half <= 0)
            walls.emplace_back(Prism{{sectionRing(arm, 0), {sectionRing(arm, arm.wall_mm)}}, to - from}, pose);
        else
            for (auto &piece : openSection(arm, half, left, right, top, bottom))
                walls.emplace_back(Prism{std::move(piece), to - from}, pose);
    }
    return walls;
}

std::vector<std::pair<Shape, Pose>> armMouths(const Arm &arm) {
    std::vector<std::pair<Shape, Pose>> mouths;
    if (!isHollow(arm)) return mouths;
    const Pose axes = armAxes(arm);
    const Vec3 size = armSize_mm(arm);
    const auto put = [&](const ArmHole &hole, const Vec3 &out) {
        const Vec3 at = Vec3(hole.at_mm - size.x() / 2, 0, 0) + out * (std::abs(out.dot(size)) / 2 - arm.wall_mm / 2);
        mouths.emplace_back(Cylinder{hole.diameter_mm, arm.wall_mm},
                            Pose{axes * at, axes.rotation * Quat::FromTwoVectors(Vec3::UnitZ(), out)});
    };
    for (const auto &hole : arm.holes) {
        if (hole.wall == ArmWall::left || hole.wall == ArmWall::both) put(hole, Vec3::UnitY());
        if (hole.wall == ArmWall::right || hole.wall == ArmWall::both) put(hole, -Vec3::UnitY());
        if (hole.wall == ArmWall::top) put(hole, Vec3::UnitZ());
        if (hole.wall == ArmWall::bottom) put(hole, -Vec3::UnitZ());
    }
    return mouths;
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
