#include "core/placing/perch.h"

#include "core/base/units.h"
#include "core/build/group_edits.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

/// Collects candidates; the best rank wins, then the nearest.
class Nearest {
public:
    Nearest(const std::array<bool, 3> &shown, double reach_mm) : shown_(shown), reach_mm_(reach_mm) {}
    void offer(Perch perch, const Vec3 &off, int rank) {
        double squared = 0;
        for (int axis = 0; axis < 3; ++axis)
            if (shown_[std::size_t(axis)]) squared += off[axis] * off[axis];
        perch.away_mm = std::sqrt(squared);
        if (perch.away_mm > reach_mm_) return;
        if (best_ && (rank > rank_ || (rank == rank_ && perch.away_mm >= best_->away_mm))) return;
        best_ = std::move(perch);
        rank_ = rank;
    }
    std::optional<Perch> take() { return std::move(best_); }

private:
    std::array<bool, 3> shown_;
    double reach_mm_;
    std::optional<Perch> best_;
    int rank_ = 0;
};

/// The part's box about its own origin as it is turned.
Aabb boxAt(const PartType &type, const Quat &turn) {
    Aabb box;
    for (const auto &solid : type.solids)
        if (solid.role != SolidRole::soft)
            box.include(boundsOf(solid.shape, Pose{Vec3::Zero(), turn} * solid.X_PartSolid));
    if (box.empty()) box.include(Vec3::Zero());
    return box;
}

const PartType *adapterBetween(const TypeTable &types, const HolePattern &site, const HolePattern &part) {
    for (const auto &[id, type] : types)
        if (type.mounting && type.carries && linesUp(*type.mounting, site) && linesUp(*type.carries, part))
            return &type;
    return nullptr;
}

double topOf(const PartType &type) { return boxAt(type, Quat::Identity()).max_mm.z(); }

void offerSites(const Build &build, const Part &part, const PartType &type, const Pose &wanted,
                const TypeTable &adapters, Nearest &nearest) {
    for (const auto &site : build.frame->sites) {
        const Pose &seat = site.X_FrameSite;
        Perch perch;
        perch.on = perch.site = site.id;
        perch.X_FramePart = wanted;
        perch.X_FramePart.position_mm = seat.position_mm;
        if (seat.rotation.angularDistance(Quat::Identity()) > 1e-6) {
            // A leaning site gives its lean; the part keeps its turn about the upright.
            const double yaw = rollPitchYawFrom(wanted.rotation).yaw_deg;
            perch.X_FramePart.rotation = canonical(seat.rotation * quaternionFrom({0, 0, yaw}));
        }
        // Where the part sits there already, it keeps its height over the site.
        if (part.placement.site == site.id) perch.X_FramePart.position_mm.z() = wanted.position_mm.z();
        if (!site.on.empty()) perch.fastening.onto = {site.on};
        perch.fastening.insulated = part.fastening.insulated;
        const Vec3 off = wanted.position_mm - perch.X_FramePart.position_mm;
        if (site.pattern) {
            if (!type.mounting) continue;
            perch.fastening.method = FasteningMethod::screws;
            if (linesUp(*site.pattern, *type.mounting)) {
                perch.kind = PerchKind::pattern;
                nearest.offer(perch, off, 0);
            } else if (const PartType *adapter = adapterBetween(adapters, *site.pattern, *type.mounting)) {
                perch.kind = PerchKind::adapter;
                perch.adapter = adapter->id;
                perch.X_FramePart.position_mm += seat.rotation * Vec3(0, 0, topOf(*adapter));
                nearest.offer(perch, off, 1);
            }
            continue;
        }
        const bool pack = type.kind == PartKind::battery;
        if (site.kind == SiteKind::strap) {
            if (!pack) continue;
            perch.kind = PerchKind::strap;
            perch.fastening.method = FasteningMethod::strap;
        } else {
            perch.kind = site.kind == SiteKind::mast ? PerchKind::mast : PerchKind::face;
            perch.fastening.method = FasteningMethod::tape;
        }
        nearest.offer(perch, off, 2);
    }
}

void offerArms(const Build &build, const Part &part, const PartType &type, const Pose &wanted,
               const std::array<bool, 3> &shown, Nearest &nearest) {
    for (const auto &arm : build.frame->arms) {
        const Vec3 along = arm.tip_mm - arm.root_mm;
        const double length = along.norm();
        const Vec3 out = along / length, left = Vec3::UnitZ().cross(out).normalized();
        const double reach = (wanted.position_mm - arm.root_mm).dot(out);
        if (reach < 0 || reach > length) continue;
        Perch perch;
        perch.on = arm.id;
        // Lengthways on the arm: what was turned by some angle before ends up along it, the nearer way round.
        double yaw = std::atan2(out.y(), out.x());
        const double was = radiansFromDegrees(rollPitchYawFrom(wanted.rotation).yaw_deg);
        if (std::cos(was - yaw) < 0) yaw += kPi;
        const RollPitchYaw angles = rollPitchYawFrom(wanted.rotation);
        const Quat upright = quaternionFrom({angles.roll_deg, angles.pitch_deg, 0});
        perch.X_FramePart.rotation = canonical(Quat(Eigen::AngleAxisd(yaw, Vec3::UnitZ())) * upright);
        const Aabb box = boxAt(type, perch.X_FramePart.rotation);
        const Aabb own = boxAt(type, upright);
        const Vec3 onAxis = arm.root_mm + reach * out; // top centre line
        perch.fastening.onto = {arm.id};
        perch.fastening.insulated = part.fastening.insulated;
        const bool flat = own.size_mm().z() < 4;
        auto offer = [&](PerchKind kind, const Vec3 &at, FasteningMethod method) {
            Perch here = perch;
            here.kind = kind;
            here.fastening.method = method;
            here.X_FramePart.position_mm = at;
            // Along the arm the part stays where it is wanted.
            Vec3 off = wanted.position_mm - at;
            off -= off.dot(out) * out;
            nearest.offer(here, off, 3);
        };
        const FasteningMethod hold = flat ? FasteningMethod::tape : FasteningMethod::ties;
        const Vec3 top = onAxis - Vec3(0, 0, box.min_mm.z());
        const Vec3 under = onAxis - Vec3(0, 0, arm.thickness_mm + box.max_mm.z());
        const bool low = wanted.position_mm.z() < onAxis.z() - arm.thickness_mm / 2;
        if (shown[2] || !low) offer(PerchKind::armTop, top, hold);
        if (shown[2] || low) offer(PerchKind::armUnder, under, hold);
        const double aside = arm.width_mm / 2 + own.size_mm().y() / 2;
        const double middle = (box.max_mm.z() + box.min_mm.z()) / 2;
        const Vec3 level = onAxis - Vec3(0, 0, arm.thickness_mm / 2 + middle);
        for (double side : {-1.0, 1.0}) offer(PerchKind::armSide, level + side * aside * left, FasteningMethod::ties);
        if (shown[2] && own.size_mm().z() < arm.thickness_mm && own.size_mm().y() < arm.width_mm)
            offer(PerchKind::armInside, level, FasteningMethod::ties);
    }
}

void offerStandoffs(const Build &build, const Part &part, const PartType &type, const Pose &wanted, Nearest &nearest) {
    const Aabb box = boxAt(type, wanted.rotation);
    for (const auto &standoff : build.frame->standoffs) {
        Vec3 aside = wanted.position_mm - standoff.base_mm;
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
        perch.X_FramePart = wanted;
        perch.X_FramePart.position_mm.head<2>() = standoff.base_mm.head<2>();
        perch.X_FramePart.position_mm[axis] +=
            sign * (standoff.diameter_mm / 2) - (sign > 0 ? box.min_mm[axis] : box.max_mm[axis]);
        perch.fastening.method = FasteningMethod::ties;
        perch.fastening.onto = {standoff.id};
        perch.fastening.insulated = part.fastening.insulated;
        nearest.offer(perch, wanted.position_mm - perch.X_FramePart.position_mm, 4);
    }
}

} // namespace

std::optional<Perch> nearestPerch(const Build &build, const Part &part, const Pose &wanted,
                                  const std::array<bool, 3> &shown, double reach_mm, const TypeTable &adapters) {
    const PartType *type = typeOf(build, part);
    if (!type) return std::nullopt;
    Nearest nearest(shown, reach_mm);
    offerSites(build, part, *type, wanted, adapters, nearest);
    // Boards sit on hole patterns; packs and other big things are not tied to arms and posts.
    constexpr double kSmall_mm = 60;
    const bool small = boxAt(*type, Quat::Identity()).size_mm().maxCoeff() < kSmall_mm;
    if (!type->mounting && type->kind != PartKind::battery && small) {
        offerArms(build, part, *type, wanted, shown, nearest);
        offerStandoffs(build, part, *type, wanted, nearest);
    }
    return nearest.take();
}

EditResult perchPart(const Build &build, const std::string &id, const Perch &perch, const TypeTable &adapters) {
    Build next = build;
    Fastening fastening = perch.fastening;
    const Part *part = findPart(build, id);
    if (!part) return Failure{EditError{"There is no part \"" + id + "\" in this build."}};
    if (!perch.adapter.empty()) {
        const auto type = adapters.find(perch.adapter);
        const auto seat = sitePose(*build.frame, perch.site);
        if (type == adapters.end() || !seat) return Failure{EditError{"The adapter plate is not in the library."}};
        auto added = addPart(next, type->second, perch.adapter, *seat);
        if (!added) return added;
        const std::string plate = added->parts.back().id;
        auto seated = seatPart(*added, plate, perch.site, Pose{});
        if (!seated) return seated;
        auto held = fastenPart(*seated, plate, perch.fastening);
        if (!held) return held;
        next = std::move(*held);
        fastening.onto = {plate};
    }
    const auto seat = sitePose(*next.frame, perch.site);
    auto placed = seat ? seatPart(next, id, perch.site, seat->inverse() * perch.X_FramePart)
                       : movePart(next, id, perch.X_FramePart);
    if (!placed) return placed;
    // A part that stays on its site keeps how it was fastened there: the stack's screws, its own ties.
    if (!perch.site.empty() && part->placement.site == perch.site) return placed;
    return fastenPart(*placed, id, fastening);
}

std::string_view perchWord(PerchKind kind) {
    switch (kind) {
    case PerchKind::pattern: return "screwed to";
    case PerchKind::adapter: return "with an adapter plate on";
    case PerchKind::face: return "on";
    case PerchKind::strap: return "strapped to";
    case PerchKind::mast: return "on top of";
    case PerchKind::armTop: return "on";
    case PerchKind::armUnder: return "under";
    case PerchKind::armSide: return "beside";
    case PerchKind::armInside: return "inside";
    case PerchKind::standoff: return "tied to";
    case PerchKind::bobbin: return "tied to";
    }
    return "on";
}

} // namespace waxis
