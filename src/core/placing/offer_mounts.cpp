// Motors on their mounts, propellers and nuts on the motors.
#include "core/base/units.h"
#include "core/placing/offers.h"
#include "core/placing/usual_hold.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

const Quat kOver(Eigen::AngleAxisd(kPi, Vec3::UnitX()));

/// What a mount's face belongs to: the arm whose end lies under it, else the plate; empty: neither.
std::string memberUnder(const Frame &frame, const MotorMount &mount) {
    constexpr double kLevel_mm = 1.0;
    std::string best;
    double nearest = 1e300;
    for (const auto &arm : frame.arms) {
        const Vec3 along = arm.tip_mm - arm.root_mm;
        const double t =
            std::clamp((mount.position_mm - arm.root_mm).dot(along) / std::max(along.squaredNorm(), 1e-9), 0.0, 1.0);
        const Vec3 off = mount.position_mm - (arm.root_mm + t * along);
        const double aside = off.head<2>().norm();
        const bool onFace = std::abs(off.z()) < kLevel_mm || std::abs(off.z() + arm.thickness_mm) < kLevel_mm;
        if (!onFace || aside > arm.width_mm || aside >= nearest) continue;
        nearest = aside;
        best = arm.id;
    }
    if (!best.empty()) return best;
    for (const auto &plate : frame.plates) {
        const double top = plate.z_mm + plate.thickness_mm, z = mount.position_mm.z();
        if (std::abs(z - top) > kLevel_mm && std::abs(z - plate.z_mm) > kLevel_mm) continue;
        if (contains({plate.outline_mm, {}}, mount.position_mm.head<2>())) return plate.id;
    }
    return {};
}

/// The mount's axes with z the way the motor points: motors under an arm are told by blades below it.
Pose motorAxes(const MotorMount &mount) {
    Pose axes{mount.position_mm, Quat::FromTwoVectors(Vec3::UnitZ(), mount.axis)};
    if (mount.propPlane_mm < 0) axes.rotation = axes.rotation * kOver;
    return axes;
}

const Part *partOn(const Build &build, const std::string &mount, PartKind kind, const std::string &except) {
    for (const auto &part : build.parts)
        if (part.placement.site == mount && part.id != except)
            if (const PartType *type = typeOf(build, part); type && type->kind == kind) return &part;
    return nullptr;
}

/// Where a propeller's hub stands on: the top of what is wider than a shaft.
double shoulder_mm(const PartType &motor) {
    double widest = 0;
    for (const auto &solid : motor.solids) {
        const Vec3 size = boundsOf(solid.shape, solid.X_PartSolid).size_mm();
        widest = std::max(widest, std::max(size.x(), size.y()));
    }
    double top = 0;
    for (const auto &solid : motor.solids) {
        const Aabb box = boundsOf(solid.shape, solid.X_PartSolid);
        if (std::max(box.size_mm().x(), box.size_mm().y()) > 0.5 * widest) top = std::max(top, box.max_mm.z());
    }
    return top;
}

/// The motor is turned so that its leads come out towards the craft's middle, along the arm.
Quat leadsInwards(const Frame &frame, const MotorMount &mount, const Pose &axes, const std::string &member,
                  const PartType &type) {
    Vec3 leads = -Vec3::UnitX();
    for (const auto &port : type.ports)
        if (port.kind == PortKind::pads || port.kind == PortKind::plug) {
            leads = port.direction;
            break;
        }
    Vec3 inwards = -mount.position_mm;
    for (const auto &arm : frame.arms)
        if (arm.id == member) inwards = arm.root_mm - arm.tip_mm;
    const Vec3 there = axes.rotation.conjugate() * inwards;
    if (there.head<2>().norm() < 1e-6 || leads.head<2>().norm() < 1e-6) return axes.rotation;
    const double yaw = std::atan2(there.y(), there.x()) - std::atan2(leads.y(), leads.x());
    return canonical(axes.rotation * Quat(Eigen::AngleAxisd(yaw, Vec3::UnitZ())));
}

Vec3 offOf(const Asked &asked, const Vec3 &at) {
    return asked.everywhere ? Vec3(Vec3::Zero()) : Vec3(asked.wanted.position_mm - at);
}

} // namespace

void offerMounts(const Asked &asked) {
    if (asked.type.kind != PartKind::motor) return;
    const Frame &frame = *asked.build.frame;
    for (const auto &mount : frame.motorMounts) {
        if (partOn(asked.build, mount.id, PartKind::motor, asked.part.id)) continue;
        Perch perch;
        perch.kind = PerchKind::motorMount;
        perch.site = mount.id;
        const std::string member = memberUnder(frame, mount);
        perch.on = member.empty() ? mount.id : member;
        perch.linesUp =
            !asked.type.mounting || mount.pattern.size_mm <= 0 || linesUp(mount.pattern, *asked.type.mounting);
        const Pose axes = motorAxes(mount);
        perch.X_FramePart.position_mm = axes.position_mm;
        perch.X_FramePart.rotation = asked.part.placement.site == mount.id
                                         ? asked.wanted.rotation
                                         : leadsInwards(frame, mount, axes, member, asked.type);
        perch.fastening.method = FasteningMethod::screws;
        if (!member.empty()) perch.fastening.onto = {member};
        asked.offer(perch, offOf(asked, perch.X_FramePart.position_mm));
    }
}

void offerShafts(const Asked &asked) {
    const bool nut = isPropellerNut(asked.type);
    if (asked.type.kind != PartKind::propeller && !nut) return;
    for (const auto &mount : asked.build.frame->motorMounts) {
        const Part *motor = partOn(asked.build, mount.id, PartKind::motor, {});
        const PartType *motorType = motor ? typeOf(asked.build, *motor) : nullptr;
        if (!motorType) continue;
        const Part *propeller = partOn(asked.build, mount.id, PartKind::propeller, nut ? "" : asked.part.id);
        if (!nut && propeller) continue;
        if (nut && (!propeller || std::any_of(asked.build.parts.begin(), asked.build.parts.end(), [&](const Part &p) {
                const PartType *type = typeOf(asked.build, p);
                return p.id != asked.part.id && p.placement.site == mount.id && type && isPropellerNut(*type);
            })))
            continue;
        const Pose axes = motorAxes(mount);
        const Pose seat = framePose(asked.build, *motor);
        double foot = shoulder_mm(*motorType);
        if (nut) {
            const PartType *hub = typeOf(asked.build, *propeller);
            const Vec3 at = axes.inverse() * framePose(asked.build, *propeller).position_mm;
            foot = at.z() + (hub ? boxAt(*hub, Quat::Identity()).max_mm.z() : 0);
        } else {
            foot += (axes.inverse() * seat.position_mm).z();
        }
        Perch perch;
        perch.kind = PerchKind::shaft;
        perch.site = mount.id;
        perch.on = motor->id;
        perch.X_FramePart.rotation = axes.rotation;
        perch.X_FramePart.position_mm = axes * Vec3(0, 0, foot - boxAt(asked.type, Quat::Identity()).min_mm.z());
        perch.fastening.method = nut ? FasteningMethod::screws : FasteningMethod::pressed;
        perch.fastening.onto = {motor->id};
        if (nut) perch.fastening.onto.push_back(propeller->id);
        asked.offer(perch, offOf(asked, perch.X_FramePart.position_mm));
    }
}

} // namespace waxis
