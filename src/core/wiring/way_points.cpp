#include "core/wiring/way_points.h"

#include "core/build/frame_shapes.h"
#include "core/geometry/polygon.h"

#include <algorithm>
#include <array>

namespace waxis {

const Arm *armUnder(const Build &build, const Part &part) {
    const Frame &frame = *build.frame;
    for (const auto &id : part.fastening.onto)
        for (const auto &arm : frame.arms)
            if (arm.id == id) return &arm;
    for (const auto &mount : frame.motorMounts) {
        if (mount.id != part.placement.site) continue;
        const Arm *nearest = nullptr;
        double least = 30;
        for (const auto &arm : frame.arms) {
            const double away = (arm.tip_mm - mount.position_mm).head<2>().norm();
            if (away < least) {
                least = away;
                nearest = &arm;
            }
        }
        return nearest;
    }
    return nullptr;
}

Vec3 middleOf(const PassThrough &pass, const Plate &plate) {
    Vec2 middle = Vec2::Zero();
    for (const Vec2 &corner : pass.outline_mm) middle += corner / double(pass.outline_mm.size());
    return {middle.x(), middle.y(), plate.z_mm + plate.thickness_mm / 2};
}

Vec2 sidesOf_mm(const PassThrough &pass) {
    Aabb box;
    for (const Vec2 &p : pass.outline_mm) box.include(Vec3(p.x(), p.y(), 0));
    return box.empty() ? Vec2(Vec2::Zero()) : Vec2(box.size_mm().head<2>());
}

namespace {

/// Lines beside an arm that a wire may be laid along, in the order in which they are tried.
struct ArmLine {
    Vec3 root_mm, tip_mm;
    bool inside = false; ///< in the bore: it comes out at the arm's ends
};
/// Whether a place lies in the bore of a hollow arm.
bool isInside(const Arm &arm, const Vec3 &p) {
    if (!isHollow(arm)) return false;
    const Vec3 own = armAxes(arm).inverse() * p, room = armSize_mm(arm) / 2 - Vec3(0, arm.wall_mm, arm.wall_mm);
    return (own.cwiseAbs().array() <= room.array()).all();
}

/// What begins in an arm runs in it.
std::vector<ArmLine> linesAlong(const Arm &arm, bool flat, bool inside, const Vec3 &near_mm, double away_mm) {
    const Vec3 along = (arm.tip_mm - arm.root_mm).normalized();
    const Vec3 up = (Vec3::UnitZ() - along.z() * along).normalized(), aside = up.cross(along);
    const double side = (near_mm - arm.root_mm).dot(aside) < 0 ? -1 : 1;
    const Vec3 top = up * away_mm, down = up * (-arm.thickness_mm / 2);
    const Vec3 here = down + aside * side * (arm.width_mm / 2 + away_mm),
               there = down - aside * side * (arm.width_mm / 2 + away_mm);
    const std::array<Vec3, 3> offsets =
        flat ? std::array<Vec3, 3>{top, here, there} : std::array<Vec3, 3>{here, there, top};
    std::vector<ArmLine> lines;
    if (inside) lines.push_back({arm.root_mm + down, arm.tip_mm + down, true});
    for (const Vec3 &o : offsets) lines.push_back({arm.root_mm + o, arm.tip_mm + o, false});
    return lines;
}

} // namespace

std::vector<Vec3> WayPoints::pointsOf(const Wire &wire, const PortExit &from, const PortExit &to,
                                      double clearance_mm) const {
    std::vector<Vec3> points{from.position_mm, from.exit_mm};
    if (wire.stops.empty())
        alongArms(wire, from.exit_mm, to.exit_mm, clearance_mm, points);
    else
        for (const auto &stop : wire.stops) byStop(stop, from.exit_mm, to.exit_mm, clearance_mm, points);
    points.push_back(to.exit_mm);
    points.push_back(to.position_mm);
    return points;
}

bool WayPoints::isClear(const Vec3 &p, double clearance_mm) const {
    constexpr double kHair = 0.5;
    return field_.tenthsAt(p) + kHair >= clearance_mm * 10;
}

bool WayPoints::isCovered(const Vec3 &p, double towards_mm) const {
    const double low = std::min(p.z(), towards_mm), high = std::max(p.z(), towards_mm);
    return std::any_of(build_.frame->plates.begin(), build_.frame->plates.end(), [&](const Plate &plate) {
        return plate.z_mm + plate.thickness_mm > low && plate.z_mm < high &&
               contains(Polygon{plate.outline_mm, {}}, p.head<2>());
    });
}

std::vector<Vec3> WayPoints::alongArm(const Arm &arm, const Vec3 &outer, const Vec3 &inner, double clearance_mm) const {
    constexpr double kStep_mm = 2.5, kLattice_mm = 0.3;
    const bool flat = practice_.follows("motor-wires", "flat");
    for (const auto &line : linesAlong(arm, flat, isInside(arm, outer), outer, clearance_mm + kLattice_mm)) {
        const Vec3 along = line.tip_mm - line.root_mm;
        const double length = along.norm();
        const Vec3 unit = along / length;
        double a = std::clamp((outer - line.root_mm).dot(unit), 0.0, length), b = 0;
        while (a > 0 && !isClear(line.root_mm + a * unit, clearance_mm)) a -= kStep_mm;
        while (b < a && !isClear(line.root_mm + b * unit, clearance_mm)) b += kStep_mm;
        // Under a plate the wire could not come out again to the other end: it leaves the arm before.
        double open = b;
        while (!line.inside && open < a && isCovered(line.root_mm + open * unit, inner.z())) open += kStep_mm;
        if (open < a) b = open;
        if (a - b > 10) return {line.root_mm + a * unit, line.root_mm + b * unit};
    }
    return {};
}

std::vector<Vec3> WayPoints::betweenOnArm(const Arm &arm, const Vec3 &from, const Vec3 &to, double clearance_mm) const {
    constexpr double kStep_mm = 2.5, kLattice_mm = 0.3;
    for (const auto &line : linesAlong(arm, practice_.follows("motor-wires", "flat"),
                                       isInside(arm, from) || isInside(arm, to), from, clearance_mm + kLattice_mm)) {
        const Vec3 along = line.tip_mm - line.root_mm;
        const double length = along.norm();
        const Vec3 unit = along / length;
        double a = std::clamp((from - line.root_mm).dot(unit), 0.0, length),
               b = std::clamp((to - line.root_mm).dot(unit), 0.0, length);
        const double way = b < a ? -1 : 1;
        while ((b - a) * way > 0 && !isClear(line.root_mm + a * unit, clearance_mm)) a += way * kStep_mm;
        while ((b - a) * way > 0 && !isClear(line.root_mm + b * unit, clearance_mm)) b -= way * kStep_mm;
        if ((b - a) * way > 10) return {line.root_mm + a * unit, line.root_mm + b * unit};
    }
    return {};
}

void WayPoints::alongArms(const Wire &wire, const Vec3 &from, const Vec3 &to, double clearance_mm,
                          std::vector<Vec3> &points) const {
    const Part *a = findPart(build_, wire.from.part), *b = findPart(build_, wire.to.part);
    const Arm *first = a ? armUnder(build_, *a) : nullptr, *second = b ? armUnder(build_, *b) : nullptr;
    if (first && first == second)
        for (const Vec3 &p : betweenOnArm(*first, from, to, clearance_mm)) points.push_back(p);
    if (first == second) return; // both on one arm, or none on any
    if (first)
        for (const Vec3 &p : alongArm(*first, from, to, clearance_mm)) points.push_back(p);
    if (!second) return;
    auto back = alongArm(*second, to, from, clearance_mm);
    std::reverse(back.begin(), back.end());
    for (const Vec3 &p : back) points.push_back(p);
}

void WayPoints::byStop(const RouteStop &stop, const Vec3 &from, const Vec3 &to, double clearance_mm,
                       std::vector<Vec3> &points) const {
    if (stop.at.empty()) {
        points.push_back(stop.point_mm);
        return;
    }
    const Frame &frame = *build_.frame;
    for (const auto &tie : build_.ties)
        if (tie.id == stop.at) points.push_back(tie.position_mm);
    for (const auto &pass : frame.passThroughs)
        if (pass.id == stop.at)
            for (const auto &plate : frame.plates)
                if (plate.id == pass.plate) points.push_back(middleOf(pass, plate));
    for (const auto &arm : frame.arms)
        if (arm.id == stop.at) {
            const bool outwards = (points.back() - arm.tip_mm).norm() > (to - arm.tip_mm).norm();
            auto along = alongArm(arm, outwards ? to : from, outwards ? from : to, clearance_mm);
            if (outwards) std::reverse(along.begin(), along.end());
            for (const Vec3 &p : along) points.push_back(p);
        }
}

} // namespace waxis
