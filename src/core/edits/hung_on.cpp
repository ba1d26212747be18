#include "core/edits/hung_on.h"

#include "core/catalog/part_bounds.h"
#include "core/edits/part_edits.h"

#include <algorithm>
#include <cmath>

namespace waxis {

namespace {

bool contains(const std::vector<std::string> &ids, const std::string &id) {
    return std::find(ids.begin(), ids.end(), id) != ids.end();
}

bool isKind(const Build &build, const std::string &part, PartKind kind) {
    const Part *found = findPart(build, part);
    const PartType *type = found ? typeOf(build, *found) : nullptr;
    return type && type->kind == kind;
}

/// A tube and what is threaded through it are one thing in the hand.
bool isTubeWithAntenna(const Build &build, const std::string &a, const std::string &b) {
    const auto is = [&](const std::string &tube, const std::string &antenna) {
        return isKind(build, tube, PartKind::tube) && isKind(build, antenna, PartKind::antenna);
    };
    return is(a, b) || is(b, a);
}

bool goesAlong(const Build &build, const Part &part, const std::vector<std::string> &moved) {
    const Fastening &by = part.fastening;
    if (part.pinned || by.method == FasteningMethod::none || by.method == FasteningMethod::stack) return false;
    const auto inTube = [&](const std::string &id) {
        const Part *other = findPart(build, id);
        return isTubeWithAntenna(build, part.id, id) &&
               (contains(by.onto, id) || (other && contains(other->fastening.onto, part.id)));
    };
    if (std::any_of(moved.begin(), moved.end(), inTube)) return true;
    return !by.onto.empty() &&
           std::all_of(by.onto.begin(), by.onto.end(), [&](const std::string &id) { return contains(moved, id); });
}

} // namespace

std::vector<std::string> hungOn(const Build &build, const std::string &part) {
    std::vector<std::string> moved{part};
    for (bool more = true; more;) {
        more = false;
        for (const auto &other : build.parts)
            if (!contains(moved, other.id) && goesAlong(build, other, moved)) {
                moved.push_back(other.id);
                more = true;
            }
    }
    moved.erase(moved.begin());
    return moved;
}

std::string carrierOf(const Build &build, const std::string &part) {
    const Part *found = findPart(build, part);
    if (!found || found->fastening.onto.size() != 1) return part;
    const Part *holder = findPart(build, found->fastening.onto.front());
    if (!holder || holder->pinned || hungOn(build, holder->id) != std::vector<std::string>{part}) return part;
    const PartType *type = typeOf(build, *holder);
    return type && type->kind == PartKind::mount ? holder->id : part;
}

EditResult bringAlong(const Build &before, const EditResult &after, const std::string &part) {
    if (!after) return after;
    const Part *was = findPart(before, part), *is = findPart(*after, part);
    if (!was || !is) return after;
    const Pose X_FrameFrame = framePose(*after, *is) * framePose(before, *was).inverse();
    const std::string &from = was->placement.site, to = is->placement.site;
    EditResult all = after;
    for (const auto &id : hungOn(before, part)) {
        const Part &other = *findPart(before, id);
        const Pose pose = X_FrameFrame * framePose(before, other);
        if (from == to || other.placement.site != from)
            all = placePart(*all, id, pose);
        else if (const auto X_FrameSite = sitePose(*all->frame, to))
            all = seatPart(*all, id, to, X_FrameSite->inverse() * pose);
        else
            all = movePart(*all, id, pose);
        if (!all) return all;
    }
    return all;
}

/// The lowest point of a part's firm bodies in another one's axes, mm.
static double footOf(const PartType &type, const Pose &X_OtherPart) {
    const Aabb box = firmBounds(type);
    double least = 1e300;
    for (int corner = 0; corner < 8; ++corner) {
        Vec3 p;
        for (int k = 0; k < 3; ++k) p[k] = (corner >> k & 1 ? box.max_mm : box.min_mm)[k];
        least = std::min(least, (X_OtherPart * p).z());
    }
    return least;
}

EditResult replaceType(const Build &build, const std::string &part, const std::string &type) {
    EditResult changed = changeType(build, part, type);
    const Part *was = findPart(build, part);
    const PartType *oldType = was ? typeOf(build, *was) : nullptr;
    if (!changed || !oldType) return changed;
    const double top_mm = firmBounds(*oldType).max_mm.z();
    const double lift_mm = firmBounds(build.types->at(type)).max_mm.z() - top_mm;
    if (!std::isfinite(lift_mm) || std::abs(lift_mm) < 1e-6) return changed;
    constexpr double kLies_mm = 2; // tape and pads are thinner
    const Pose X_FramePart = framePose(build, *was);
    for (const auto &id : hungOn(build, part)) {
        const Part &other = *findPart(build, id);
        const PartType *own = typeOf(build, other);
        if (!own || footOf(*own, X_FramePart.inverse() * framePose(build, other)) < top_mm - kLies_mm) continue;
        if (changed) changed = shiftPart(*changed, id, X_FramePart.rotation * Vec3(0, 0, lift_mm));
    }
    return changed;
}

} // namespace waxis
