#include "core/layout/frame_report.h"

#include "core/build/frame_shapes.h"
#include "core/layout/layout.h"
#include "core/layout/numbering.h"

#include <cmath>

namespace waxis {

namespace {

/// The ring's nearest point to p.
Vec2 nearestOn(const Ring &ring, const Vec2 &p) {
    Vec2 best = ring.empty() ? p : ring.front();
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec2 &a = ring[i], d = ring[(i + 1) % ring.size()] - a;
        const double length2 = d.squaredNorm();
        const double share = length2 > 0 ? std::clamp((p - a).dot(d) / length2, 0.0, 1.0) : 0.0;
        const Vec2 q = a + d * share;
        if ((q - p).squaredNorm() < (best - p).squaredNorm()) best = q;
    }
    return best;
}

} // namespace

double motorDiagonal_mm(const Frame &frame) {
    double longest = 0;
    for (const auto &a : frame.motorMounts)
        for (const auto &b : frame.motorMounts)
            longest = std::max(longest, (a.position_mm - b.position_mm).head<2>().norm());
    return longest;
}

FrameReport frameReport(const Frame &frame) {
    FrameReport report;
    report.diagonal_mm = motorDiagonal_mm(frame);
    report.yawSurplus = yawSurplus(frame.motorMounts);
    for (const auto &mount : frame.motorMounts) {
        MotorReport motor;
        motor.mount = mount.id;
        motor.number = mount.number;
        motor.spin = mount.spin;
        motor.propDiameter_mm = mount.propDiameter_mm;
        const Vec3 centre = propCentre_mm(mount);
        const Vec2 p = centre.head<2>();
        const double radius = mount.propDiameter_mm / 2;
        auto towards = [&](const Vec2 &q) { // where the circle is nearest to q
            const Vec2 d = q - p;
            const Vec2 rim = d.norm() > 1e-9 ? Vec2(p + d.normalized() * radius) : Vec2(p + Vec2(radius, 0));
            return Vec3(rim.x(), rim.y(), centre.z());
        };
        for (const auto &other : frame.motorMounts) {
            const Vec3 otherCentre = propCentre_mm(other);
            const double apart = (otherCentre - centre).head<2>().norm();
            if (&other == &mount || apart <= 1.0) continue;
            const double gap = apart - radius - other.propDiameter_mm / 2;
            if (motor.tipGap_mm && gap >= *motor.tipGap_mm) continue;
            motor.tipGap_mm = gap;
            motor.tipNeighbour = other.id;
            motor.tipFrom_mm = towards(otherCentre.head<2>());
            const Vec2 back = (p - otherCentre.head<2>()).normalized() * (other.propDiameter_mm / 2);
            motor.tipTo_mm = otherCentre + Vec3(back.x(), back.y(), 0);
        }
        auto offer = [&](const std::string &piece, double gap, const Vec2 &at) {
            if (motor.frameGap_mm && gap >= *motor.frameGap_mm) return;
            motor.frameGap_mm = gap;
            motor.framePiece = piece;
            motor.frameFrom_mm = towards(at);
            motor.frameTo_mm = {at.x(), at.y(), centre.z()};
        };
        for (const auto &plate : frame.plates) {
            const Ring &ring = plate.outline_mm;
            if (contains({ring, {}}, p)) continue; // the plate carries the motor, as one-piece frames do
            const Vec2 near = nearestOn(ring, p);
            offer(plate.id, (near - p).norm() - radius, near);
        }
        for (const auto &standoff : frame.standoffs) {
            if (standoff.role == StandoffRole::foot) continue;
            const Vec2 axis = standoff.base_mm.head<2>(), d = axis - p;
            if (d.norm() < 1e-9) continue;
            offer(standoff.id, d.norm() - standoff.diameter_mm / 2 - radius,
                  axis - d.normalized() * (standoff.diameter_mm / 2));
        }
        report.motors.push_back(std::move(motor));
    }
    for (const auto &plate : frame.plates) {
        const ShapeProperties properties = shapeProperties(plateShape(plate));
        PlateReport entry;
        entry.plate = plate.id;
        entry.area_mm2 = properties.volume_mm3 / plate.thickness_mm;
        entry.centroid_mm = properties.centroid_mm + Vec3(0, 0, plate.z_mm);
        entry.holes = int(plate.holes.size());
        if (const Material *material = findMaterial(plate.material, frame.materials))
            entry.mass_g = properties.volume_mm3 * material->density_g_cm3 * 1e-3;
        report.plates.push_back(entry);
    }
    return report;
}

} // namespace waxis
