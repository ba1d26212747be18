#include "core/rules/sequence_cures.h"

#include "core/base/by_id.h"
#include "core/build/chain.h"
#include "core/catalog/part_type.h"

#include <algorithm>

namespace waxis {

namespace {

/// What looks, shines or radiates some way, or is held by its shape, is not turned for a plug.
bool mayBeTurned(const Build &build, const Part &part) {
    const PartType *type = typeOf(build, part);
    if (!type || part.pinned) return false;
    switch (type->kind) {
    case PartKind::antenna:
    case PartKind::gps:
    case PartKind::flightCamera:
    case PartKind::payloadCamera:
    case PartKind::gimbal:
    case PartKind::lamp:
    case PartKind::motor:
    case PartKind::propeller:
    case PartKind::fastener:
    case PartKind::mount:
    case PartKind::strap: return false;
    default: return true;
    }
}

} // namespace

std::vector<Fix> fromTheOtherFace(const Build &build, const std::string &id) {
    const FrameScrew *screw = byId(build.frame->screws, id);
    if (!screw) return {};
    FrameScrewChange change{*screw};
    change.to.fromAbove = !change.to.fromAbove;
    return {Fix(id, change)};
}

std::vector<Fix> turnedOnItsPlace(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    if (!part || !mayBeTurned(build, *part)) return {};
    const Vec3 upright = framePose(build, *part).rotation * Vec3::UnitZ();
    std::vector<Fix> fixes;
    for (const double angle_deg : {180.0, 90.0, -90.0}) fixes.emplace_back(id, PartTurn{upright, angle_deg});
    return fixes;
}

std::vector<Fix> onTheOtherSide(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    if (!part || !mayBeTurned(build, *part) || stackPlaceOf(build, *part)) return {};
    for (const auto &onto : part->fastening.onto)
        if (const Plate *plate = byId(build.frame->plates, onto)) {
            const double middle_mm = plate->z_mm + plate->thickness_mm / 2;
            const double off_mm = framePose(build, *part).position_mm.z() - middle_mm;
            Fix turn(id, PartTurn{Vec3::UnitX(), 180});
            turn.then.emplace_back(id, PartShift{Vec3(0, 0, -2 * off_mm)});
            return {turn};
        }
    return {};
}

std::vector<Fix> shorterPosts(const Build &build, const std::vector<std::string> &things) {
    constexpr double kBy_mm = 5, kLeast_mm = 5;
    std::vector<Fix> fixes;
    for (const auto &id : things)
        if (const Standoff *post = byId(build.frame->standoffs, id); post && post->height_mm >= kBy_mm + kLeast_mm)
            fixes.emplace_back(id, PostHeight{post->height_mm - kBy_mm});
    return fixes;
}

std::vector<Fix> movedAwayFrom(const Build &build, const std::string &id, const std::string &from, double by_mm) {
    const Part *part = findPart(build, id), *other = findPart(build, from);
    if (!part || !other || part->pinned || !(by_mm > 0)) return {};
    Vec3 away = framePose(build, *part).position_mm - framePose(build, *other).position_mm;
    away.z() = 0;
    if (away.norm() < 1e-6) away = Vec3::UnitX();
    return {Fix(id, PartShift{by_mm * away.normalized()})};
}

} // namespace waxis
