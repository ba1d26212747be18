// Sites, arms and posts of the frame.
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/placing/offers.h"
#include "core/placing/usual_hold.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

const PartType *adapterBetween(const TypeTable &types, const HolePattern &site, const HolePattern &part) {
    for (const auto &[id, type] : types)
        if (type.mounting && type.carries && linesUp(*type.mounting, site) && linesUp(*type.carries, part))
            return &type;
    return nullptr;
}

double topOf(const PartType &type) { return boxAt(type, Quat::Identity()).max_mm.z(); }

/// An adapter plate that lies on the site already and carries this part.
const Part *adapterOn(const Build &build, const std::string &site, const HolePattern &own) {
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (part.placement.site == site && type && type->carries && linesUp(*type->carries, own)) return &part;
    }
    return nullptr;
}

/// A board or stack stands there: an adapter plate belongs into its column, by hand.
bool isTaken(const Asked &asked, const std::string &site) {
    const auto &build = asked.build;
    return std::any_of(build.stacks.begin(), build.stacks.end(), [&](const Stack &s) { return s.on == site; }) ||
           std::any_of(build.parts.begin(), build.parts.end(), [&](const Part &p) {
               const PartType *type = typeOf(build, p);
               return p.id != asked.part.id && p.placement.site == site && type && type->mounting;
           });
}

/// What leans rests on its rim: so far from the site that nothing of it stands in what carries it.
Vec3 liftOf(const PartType &type, const Pose &seat, const Quat &turn) {
    const Quat onSeat = seat.rotation.conjugate() * turn;
    const bool leans = (onSeat * Vec3::UnitZ()).z() < 1 - 1e-6;
    return seat.rotation * Vec3(0, 0, leans ? std::max(0.0, -boxAt(type, onSeat).min_mm.z()) : 0.0);
}

} // namespace

bool isCameraCage(const Frame &frame, const Site &site) {
    for (const auto &plate : frame.plates)
        if (plate.id == site.on) {
            const double z = site.X_FrameSite.position_mm.z();
            return site.kind == SiteKind::face && z > plate.z_mm + plate.thickness_mm + 2;
        }
    return false;
}

void offerSites(const Asked &asked, const TypeTable &adapters) {
    const auto &type = asked.type;
    for (const auto &site : asked.build.frame->sites) {
        const Pose &seat = site.X_FrameSite;
        Perch perch;
        perch.on = perch.site = site.id;
        perch.X_FramePart = asked.wanted;
        perch.X_FramePart.position_mm = seat.position_mm;
        if (seat.rotation.angularDistance(Quat::Identity()) > 1e-6) {
            // A leaning site gives its lean; the part keeps its turn about the upright.
            const double yaw = rollPitchYawFrom(asked.wanted.rotation).yaw_deg;
            perch.X_FramePart.rotation = canonical(seat.rotation * quaternionFrom({0, 0, yaw}));
        }
        perch.X_FramePart.position_mm += liftOf(type, seat, perch.X_FramePart.rotation);
        // Where the part sits there already, it keeps its height over the site.
        if (asked.part.placement.site == site.id && !asked.everywhere)
            perch.X_FramePart.position_mm.z() = asked.wanted.position_mm.z();
        if (!site.on.empty()) perch.fastening.onto = {site.on};
        perch.fastening.insulated = asked.part.fastening.insulated;
        auto offer = [&] {
            const Vec3 off =
                asked.everywhere ? Vec3(Vec3::Zero()) : Vec3(asked.wanted.position_mm - perch.X_FramePart.position_mm);
            asked.offer(perch, off);
        };
        if (site.pattern) {
            if (!type.mounting || type.kind == PartKind::motor) continue;
            perch.fastening.method = FasteningMethod::screws;
            if (linesUp(*site.pattern, *type.mounting)) {
                perch.kind = PerchKind::pattern;
                offer();
            } else if (const Part *lies = adapterOn(asked.build, site.id, *type.mounting)) {
                perch.kind = PerchKind::adapter; // one carries both: the second stands on the first
                perch.X_FramePart.position_mm =
                    framePose(asked.build, *lies) * Vec3(0, 0, topOf(*typeOf(asked.build, *lies)));
                perch.fastening.onto = {lies->id};
                offer();
            } else if (const PartType *adapter = adapterBetween(adapters, *site.pattern, *type.mounting);
                       adapter && !isTaken(asked, site.id)) {
                perch.kind = PerchKind::adapter;
                perch.adapter = adapter->id;
                perch.X_FramePart.position_mm += seat.rotation * Vec3(0, 0, topOf(*adapter));
                offer();
            }
            continue;
        }
        const bool pack = type.kind == PartKind::battery;
        if (isCameraCage(*asked.build.frame, site)) {
            if (type.kind != PartKind::flightCamera) continue;
            perch.kind = PerchKind::cage;
            perch.fastening.method = FasteningMethod::screws;
        } else if (site.kind == SiteKind::strap) {
            const bool under = type.kind == PartKind::pad || type.kind == PartKind::strap;
            if (!pack && !under) continue;
            perch.kind = PerchKind::strap;
            perch.fastening.method = under ? usualHold(type) : FasteningMethod::strap;
        } else {
            if (pack || type.kind == PartKind::motor || type.kind == PartKind::propeller) continue;
            perch.kind = site.kind == SiteKind::mast ? PerchKind::mast : PerchKind::face;
            perch.fastening.method =
                usualHold(type) == FasteningMethod::screws && type.mounting ? FasteningMethod::tape : usualHold(type);
        }
        offer();
    }
}

void offerArms(const Asked &asked) {
    const auto &type = asked.type;
    for (const auto &arm : asked.build.frame->arms) {
        const Vec3 along = arm.tip_mm - arm.root_mm;
        const double length = along.norm();
        if (!(length > 0)) continue;
        const Vec3 out = along / length, left = Vec3::UnitZ().cross(out).normalized();
        // The outer half of the arm is free of the body.
        const double reach = asked.everywhere ? length * 0.55 : (asked.wanted.position_mm - arm.root_mm).dot(out);
        if (reach < 0 || reach > length) continue;
        Perch perch;
        perch.on = arm.id;
        // Lengthways on the arm: what was turned by some angle before ends up along it, the nearer way round.
        double yaw = std::atan2(out.y(), out.x());
        const double was = radiansFromDegrees(rollPitchYawFrom(asked.wanted.rotation).yaw_deg);
        if (std::cos(was - yaw) < 0 && !asked.everywhere) yaw += kPi;
        const RollPitchYaw angles = rollPitchYawFrom(asked.wanted.rotation);
        const Quat upright = quaternionFrom({angles.roll_deg, angles.pitch_deg, 0});
        perch.X_FramePart.rotation = canonical(Quat(Eigen::AngleAxisd(yaw, Vec3::UnitZ())) * upright);
        const Aabb box = boxAt(type, perch.X_FramePart.rotation);
        const Aabb own = boxAt(type, upright);
        const Vec3 onAxis = arm.root_mm + reach * out; // top centre line
        perch.fastening.onto = {arm.id};
        perch.fastening.insulated = asked.part.fastening.insulated;
        const bool flat = own.size_mm().z() < 4;
        auto offer = [&](PerchKind kind, const Vec3 &at, FasteningMethod method) {
            Perch here = perch;
            here.kind = kind;
            here.fastening.method = method;
            here.X_FramePart.position_mm = at;
            // Along the arm the part stays where it is wanted.
            Vec3 off = asked.wanted.position_mm - at;
            off -= off.dot(out) * out;
            asked.offer(here, asked.everywhere ? Vec3(Vec3::Zero()) : off);
        };
        const FasteningMethod hold = flat && type.kind != PartKind::esc ? FasteningMethod::tape : FasteningMethod::ties;
        const Vec3 top = onAxis - Vec3(0, 0, box.min_mm.z());
        const Vec3 under = onAxis - Vec3(0, 0, arm.thickness_mm + box.max_mm.z());
        const bool low = asked.wanted.position_mm.z() < onAxis.z() - arm.thickness_mm / 2;
        if (asked.everywhere || asked.shown[2] || !low) offer(PerchKind::armTop, top, hold);
        if (asked.everywhere || asked.shown[2] || low) offer(PerchKind::armUnder, under, hold);
        if (asked.everywhere) continue; // beside and inside are found by dragging
        const double aside = arm.width_mm / 2 + own.size_mm().y() / 2;
        const double middle = (box.max_mm.z() + box.min_mm.z()) / 2;
        const Vec3 level = onAxis - Vec3(0, 0, arm.thickness_mm / 2 + middle);
        for (double side : {-1.0, 1.0}) offer(PerchKind::armSide, level + side * aside * left, FasteningMethod::ties);
        const double room_mm = std::min(arm.thickness_mm - own.size_mm().z(), arm.width_mm - own.size_mm().y());
        if (asked.shown[2] && isHollow(arm) && room_mm > 2 * arm.wall_mm)
            offer(PerchKind::armInside, level, FasteningMethod::ties);
    }
}

void offerStandoffs(const Asked &asked) {
    const Aabb box = boxAt(asked.type, asked.wanted.rotation);
    for (const auto &standoff : asked.build.frame->standoffs) {
        if (asked.everywhere && standoff.role == StandoffRole::bobbin) continue; // it gives way
        // Asked for everywhere, it stands on what the post stands on, on its outer side.
        const Vec3 foot = standoff.base_mm - Vec3(0, 0, box.min_mm.z());
        const Vec3 wanted =
            asked.everywhere ? Vec3(foot + Vec3(0, standoff.base_mm.y() < 0 ? -1 : 1, 0)) : asked.wanted.position_mm;
        Vec3 aside = wanted - standoff.base_mm;
        const double height = aside.z();
        aside.z() = 0;
        if (height < -box.size_mm().z() || height > standoff.height_mm + box.size_mm().z()) continue;
        if (aside.norm() < 1e-6) aside = Vec3::UnitX();
        // Against its side, along the axis that it is wanted on.
        const int axis = std::abs(aside.x()) >= std::abs(aside.y()) ? 0 : 1;
        const double sign = aside[axis] >= 0 ? 1 : -1;
        Perch perch;
        perch.kind = standoff.role == StandoffRole::bobbin ? PerchKind::bobbin : PerchKind::standoff;
        perch.on = standoff.id;
        perch.X_FramePart = {wanted, asked.wanted.rotation};
        perch.X_FramePart.position_mm.head<2>() = standoff.base_mm.head<2>();
        perch.X_FramePart.position_mm[axis] +=
            sign * (standoff.diameter_mm / 2) - (sign > 0 ? box.min_mm[axis] : box.max_mm[axis]);
        perch.fastening.method = FasteningMethod::ties;
        perch.fastening.onto = {standoff.id};
        perch.fastening.insulated = asked.part.fastening.insulated;
        asked.offer(perch, asked.everywhere ? Vec3(Vec3::Zero()) : Vec3(wanted - perch.X_FramePart.position_mm));
    }
}

} // namespace waxis
