#include "core/edits/group_edits.h"

#include "core/build/arm_of.h"
#include "core/build/chain.h"
#include "core/build/frame_shapes.h"
#include "core/edits/part_edits.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <set>

namespace waxis {

namespace {

Failure<EditError> refuse(std::string why) { return Failure{EditError{std::move(why)}}; }

/// The named parts in their order, without pinned ones; or what is wrong.
Result<std::vector<const Part *>, EditError> partsNamed(const Build &build, const std::vector<std::string> &ids) {
    std::vector<const Part *> parts;
    for (const auto &id : ids) {
        const Part *part = findPart(build, id);
        if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
        parts.push_back(part);
    }
    return parts;
}

/// One edit after another; the first that is refused is the answer.
template <class List, class Edit>
EditResult each(const Build &build, const List &list, Edit &&edit) {
    Build next = build;
    for (const auto &item : list) {
        auto result = edit(next, item);
        if (!result) return result;
        next = std::move(*result);
    }
    return next;
}

/// The turn of a thing's mirror image across y = 0, for a thing that looks the same from its own left and right.
Quat mirroredTurn(const Quat &turn) { return canonical(Quat(turn.w(), -turn.x(), turn.y(), -turn.z())); }

Pose mirrored(const Pose &pose) {
    return {Vec3(pose.position_mm.x(), -pose.position_mm.y(), pose.position_mm.z()), mirroredTurn(pose.rotation)};
}

/// The site or mount that stands where the mirror image of `id` stands.
std::string seatOpposite(const Build &build, const std::string &id) {
    const auto here = sitePose(*build.frame, id);
    if (!here) return {};
    const Vec3 there(here->position_mm.x(), -here->position_mm.y(), here->position_mm.z());
    constexpr double kSame_mm = 0.5;
    for (const auto &site : build.frame->sites)
        if ((site.X_FrameSite.position_mm - there).norm() < kSame_mm) return site.id;
    for (const auto &mount : build.frame->motorMounts)
        if ((mount.position_mm - there).norm() < kSame_mm) return mount.id;
    return {};
}

EditResult place(const Build &build, const std::string &id, const Pose &X_FramePart, const std::string &seat) {
    const auto at = sitePose(*build.frame, seat);
    return at ? seatPart(build, id, seat, at->inverse() * X_FramePart) : movePart(build, id, X_FramePart);
}

/// What a member's mirror image is fastened to: the arm, standoff or part across the centre line where there is one.
std::vector<std::string> oppositeOf(const Build &build, const std::vector<std::string> &onto) {
    std::vector<std::string> out;
    const Frame &frame = *build.frame;
    for (const auto &id : onto) {
        std::string other = id;
        for (const auto &arm : frame.arms) {
            if (arm.id != id) continue;
            const Vec3 tip(arm.tip_mm.x(), -arm.tip_mm.y(), arm.tip_mm.z());
            for (const auto &candidate : frame.arms)
                if ((candidate.tip_mm - tip).norm() < 1) other = candidate.id;
        }
        for (const auto &standoff : frame.standoffs) {
            if (standoff.id != id) continue;
            const Vec3 base(standoff.base_mm.x(), -standoff.base_mm.y(), standoff.base_mm.z());
            for (const auto &candidate : frame.standoffs)
                if ((candidate.base_mm - base).norm() < 1) other = candidate.id;
        }
        out.push_back(other);
    }
    return out;
}

Build withCopy(const Build &build, const Part &part, const Pose &pose, const std::string &seat,
               std::vector<std::string> onto, std::string *id) {
    Build next = build;
    Part copy = part;
    copy.id = freshId(build, part.id);
    copy.mass_g = {}; // weighed was the other one
    const auto at = sitePose(*build.frame, seat);
    copy.placement.site = at ? seat : std::string();
    copy.placement.pose = at ? at->inverse() * pose : pose;
    copy.fastening.onto = std::move(onto);
    *id = copy.id;
    for (auto &loadCase : next.loadCases) {
        auto &aboard = loadCase.aboard;
        if (std::find(aboard.begin(), aboard.end(), part.id) != aboard.end()) aboard.push_back(copy.id);
    }
    next.parts.push_back(std::move(copy));
    return next;
}

} // namespace

EditResult alignParts(const Build &build, const std::vector<std::string> &ids, int axis, AlignTo to) {
    const auto parts = partsNamed(build, ids);
    if (!parts) return Failure{parts.error()};
    if (parts->size() < 2) return refuse("Choose two or more parts to align; the first one stays.");
    auto edge = [&](const Part &part) {
        const Aabb box = partBounds(build, part);
        switch (to) {
        case AlignTo::low: return box.min_mm[axis];
        case AlignTo::middle: return (box.min_mm[axis] + box.max_mm[axis]) / 2;
        case AlignTo::high: return box.max_mm[axis];
        }
        return 0.0;
    };
    const double wanted = edge(*parts->front());
    return each(build, *parts, [&](const Build &b, const Part *part) -> EditResult {
        const double off = wanted - edge(*part);
        if (part->pinned || std::abs(off) < 1e-12) return b;
        Vec3 shift = Vec3::Zero();
        shift[axis] = off;
        return shiftPart(b, part->id, shift);
    });
}

EditResult distributeParts(const Build &build, const std::vector<std::string> &ids, int axis) {
    const auto parts = partsNamed(build, ids);
    if (!parts) return Failure{parts.error()};
    if (parts->size() < 3) return refuse("Choose three or more parts to distribute.");
    auto middle = [&](const Part *part) {
        const Aabb box = partBounds(build, *part);
        return (box.min_mm[axis] + box.max_mm[axis]) / 2;
    };
    auto order = *parts;
    std::stable_sort(order.begin(), order.end(), [&](auto *a, auto *b) { return middle(a) < middle(b); });
    const double first = middle(order.front()), step = (middle(order.back()) - first) / double(order.size() - 1);
    std::vector<std::pair<const Part *, double>> wanted;
    for (std::size_t i = 0; i < order.size(); ++i) wanted.emplace_back(order[i], first + step * double(i));
    return each(build, wanted, [&](const Build &b, const auto &wish) -> EditResult {
        if (wish.first->pinned) return b;
        Vec3 shift = Vec3::Zero();
        shift[axis] = wish.second - middle(wish.first);
        return shiftPart(b, wish.first->id, shift);
    });
}

EditResult mirrorParts(const Build &build, const std::vector<std::string> &ids) {
    const auto parts = partsNamed(build, ids);
    if (!parts) return Failure{parts.error()};
    if (parts->empty()) return refuse("Choose a part to mirror.");
    return each(build, *parts, [&](const Build &b, const Part *part) -> EditResult {
        if (part->pinned) return refuse(fmt::format("{} is pinned.", displayName(b, part->id)));
        auto moved = place(b, part->id, mirrored(framePose(build, *part)), seatOpposite(build, part->placement.site));
        if (!moved) return moved;
        Fastening fastening = part->fastening;
        fastening.onto = oppositeOf(build, fastening.onto);
        return fastenPart(*moved, part->id, fastening);
    });
}

EditResult mirrorCopies(const Build &build, const std::vector<std::string> &ids, std::vector<std::string> *added) {
    const auto parts = partsNamed(build, ids);
    if (!parts) return Failure{parts.error()};
    Build next = build;
    for (const Part *part : *parts) {
        const Pose pose = framePose(build, *part);
        if (std::abs(pose.position_mm.y()) < 0.05) continue; // its mirror image is itself
        std::string id;
        next = withCopy(next, *part, mirrored(pose), seatOpposite(build, part->placement.site),
                        oppositeOf(build, part->fastening.onto), &id);
        if (added) added->push_back(id);
    }
    if (next.parts.size() == build.parts.size()) return refuse("These parts stand on the centre line.");
    return next;
}

namespace {

/// An arm's own axes: x outwards, z up, origin at its root.
Pose standsOnArm(const Arm &arm) {
    const Vec3 out = (arm.tip_mm - arm.root_mm).normalized();
    const Vec3 left = Vec3::UnitZ().cross(out).normalized();
    Mat3 turn;
    turn << out, left, out.cross(left);
    return Pose{arm.root_mm, Quat(turn)};
}

double distanceFromArm_mm(const Arm &arm, const Vec3 &point) {
    const Vec2 along = (arm.tip_mm - arm.root_mm).head<2>(), to = (point - arm.root_mm).head<2>();
    const double t = std::clamp(to.dot(along) / std::max(along.squaredNorm(), 1e-9), 0.0, 1.0);
    return (to - t * along).norm();
}

const Arm *nearestArm(const Frame &frame, const Vec3 &point) {
    const Arm *best = nullptr;
    for (const auto &arm : frame.arms)
        if (!best || distanceFromArm_mm(arm, point) < distanceFromArm_mm(*best, point)) best = &arm;
    return best;
}

/// The arm that a part belongs to: the one it is fastened onto, by way of other parts too, the one whose motor mount it
/// sits on, the one that it lies over. Null for parts of the body.
const Arm *armOf(const Build &build, const Part &part, int depth = 0) {
    const Frame &frame = *build.frame;
    for (const auto &id : part.fastening.onto)
        for (const auto &arm : frame.arms)
            if (arm.id == id) return &arm;
    for (const auto &mount : frame.motorMounts)
        if (mount.id == part.placement.site) return nearestArm(frame, mount.position_mm);
    constexpr int kDeepest = 4;
    if (depth < kDeepest)
        for (const auto &id : part.fastening.onto)
            if (const Part *other = findPart(build, id))
                if (const Arm *arm = armOf(build, *other, depth + 1)) return arm;
    const Vec3 at = framePose(build, part).position_mm;
    const Arm *arm = nearestArm(frame, at);
    const bool outside = arm && part.placement.site.empty() && (standsOnArm(*arm).inverse() * at).x() > 0;
    return outside && distanceFromArm_mm(*arm, at) < 1.5 * arm->width_mm ? arm : nullptr;
}

/// What stands on an arm's place of the same kind as `part` stands on its own: the motor of the other arm.
std::string twinOn(const Build &build, const Part &part, const Arm &own, const Arm &arm) {
    constexpr double kSame_mm = 1.0;
    const Vec3 there = standsOnArm(arm) * (standsOnArm(own).inverse() * framePose(build, part).position_mm);
    for (const auto &other : build.parts)
        if (other.type == part.type && other.id != part.id &&
            (framePose(build, other).position_mm - there).norm() < kSame_mm)
            return other.id;
    return {};
}

} // namespace

EditResult copyToOtherArms(const Build &build, const std::string &id, std::vector<std::string> *added) {
    const Part *part = findPart(build, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    const Frame &frame = *build.frame;
    const Arm *own = armOf(build, *part);
    if (!own)
        return refuse(
            fmt::format("{} belongs to no arm: it lies over none and is fastened to none.", displayName(build, id)));
    const Pose inArm = standsOnArm(*own).inverse() * framePose(build, *part);
    const auto mountAt = [&](const Arm &arm) -> const MotorMount * {
        for (const auto &mount : frame.motorMounts)
            if (nearestArm(frame, mount.position_mm) == &arm) return &mount;
        return nullptr;
    };
    const bool onMount = std::any_of(frame.motorMounts.begin(), frame.motorMounts.end(),
                                     [&](const MotorMount &m) { return m.id == part->placement.site; });
    const std::string ownName = displayName(build, own->id);
    const std::string quarter = ownName.substr(0, ownName.rfind(' '));
    Build next = build;
    for (const auto &arm : frame.arms) {
        if (arm.id == own->id || !twinOn(build, *part, *own, arm).empty()) continue;
        const MotorMount *mount = onMount ? mountAt(arm) : nullptr;
        if (onMount && !mount) continue;
        Pose there = standsOnArm(arm) * inArm;
        there.rotation = canonical(there.rotation);
        if (mount)
            there.position_mm.head<2>() =
                mount->position_mm.head<2>() +
                (there.position_mm - (standsOnArm(arm) * (standsOnArm(*own).inverse() *
                                                          sitePose(frame, part->placement.site)->position_mm)))
                    .head<2>();
        std::vector<std::string> onto;
        for (const auto &other : part->fastening.onto) {
            const Part *holder = findPart(build, other);
            // What else it hangs on there is not known, unless the like of it stands there.
            const std::string twin = holder ? twinOn(build, *holder, *own, arm) : other == own->id ? arm.id : other;
            if (!twin.empty()) onto.push_back(twin);
        }
        std::string copy;
        next = withCopy(next, *part, there, mount ? mount->id : std::string(), std::move(onto), &copy);
        Part &made = next.parts.back();
        if (mount && made.turns) made.turns = mount->spin;
        const std::string armName = displayName(build, arm.id);
        if (made.name.starts_with(quarter + " "))
            made.name.replace(0, quarter.size(), armName.substr(0, armName.rfind(' ')));
        if (added) added->push_back(copy);
    }
    if (next.parts.size() == build.parts.size()) return refuse("Every other arm has one there already.");
    return next;
}

EditResult overturnPart(const Build &build, const std::string &id) {
    const Part *part = findPart(build, id);
    if (!part) return refuse(fmt::format("There is no part \"{}\" in this build.", id));
    const double foot = partBounds(build, *part).min_mm.z();
    auto turned = turnPart(build, id, Vec3::UnitX(), 180);
    if (!turned || stackPlaceOf(build, *part)) return turned;
    return shiftPart(*turned, id, Vec3(0, 0, foot - partBounds(*turned, *findPart(*turned, id)).min_mm.z()));
}

EditResult shiftParts(const Build &build, const std::vector<std::string> &ids, const Vec3 &shift_mm) {
    return each(build, ids, [&](const Build &b, const std::string &id) -> EditResult {
        const Part *part = findPart(b, id);
        if (part && part->pinned) return b;
        return shiftPart(b, id, shift_mm);
    });
}

EditResult removeParts(const Build &build, const std::vector<std::string> &ids) {
    return each(build, ids, [](const Build &b, const std::string &id) { return removePart(b, id); });
}

EditResult fastenPart(const Build &build, const std::string &id, const Fastening &fastening) {
    const auto ids = allIds(build);
    for (const auto &onto : fastening.onto)
        if (std::find(ids.begin(), ids.end(), onto) == ids.end() || onto == id)
            return refuse(fmt::format("There is nothing called \"{}\" to fasten it to.", onto));
    if (fastening.pieces && *fastening.pieces < 0) return refuse("Pieces cannot be fewer than none.");
    Build next = build;
    for (auto &part : next.parts)
        if (part.id == id) {
            // Held otherwise, it lies in no stack any more and stays where it was.
            if (fastening.method != FasteningMethod::stack && stackPlaceOf(build, part)) {
                const Pose X_FramePart = framePose(build, part);
                const auto site = sitePose(*build.frame, part.placement.site);
                part.placement.pose = site ? site->inverse() * X_FramePart : X_FramePart;
                leaveStacks(next, id);
            }
            part.fastening = fastening;
            return next;
        }
    return refuse(fmt::format("There is no part \"{}\" in this build.", id));
}

EditResult shiftPlate(const Build &build, const std::string &id, const Vec3 &shift_mm) {
    if (!shift_mm.allFinite()) return refuse("The shift is not a finite number.");
    const auto &plates = build.frame->plates;
    if (std::none_of(plates.begin(), plates.end(), [&](const Plate &p) { return p.id == id; }))
        return refuse(fmt::format("There is no plate \"{}\" in this frame.", id));
    Build next = build;
    std::set<std::string> carried{id};
    next.frame.edit([&](Frame &frame) {
        const Vec2 aside = shift_mm.head<2>();
        for (auto &plate : frame.plates) {
            if (plate.id != id) continue;
            for (auto &p : plate.outline_mm) p += aside;
            for (auto &hole : plate.holes) hole.centre_mm += aside;
            for (auto &cutout : plate.cutouts_mm)
                for (auto &p : cutout) p += aside;
            plate.z_mm += shift_mm.z();
        }
        for (auto &pass : frame.passThroughs)
            if (pass.plate == id)
                for (auto &p : pass.outline_mm) p += aside;
        for (auto &site : frame.sites)
            if (site.on == id) {
                site.X_FrameSite.position_mm += shift_mm;
                carried.insert(site.id);
            }
    });
    // Parts on its sites go with them; parts fastened first of all onto it, or onto what it carries, are moved.
    for (bool more = true; more;) {
        more = false;
        for (auto &part : next.parts) {
            if (carried.contains(part.id) || stackPlaceOf(next, part)) continue;
            if (carried.contains(part.placement.site)) {
                carried.insert(part.id);
                more = true;
            } else if (part.placement.site.empty() && !part.fastening.onto.empty() &&
                       carried.contains(part.fastening.onto.front())) {
                part.placement.pose.position_mm += shift_mm;
                carried.insert(part.id);
                more = true;
            }
        }
    }
    return next;
}

} // namespace waxis
