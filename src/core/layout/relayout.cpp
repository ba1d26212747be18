#include "core/layout/relayout.h"

#include "core/base/by_id.h"
#include "core/build/arm_of.h"
#include "core/build/chain.h"
#include "core/build/frame_screws.h"
#include "core/build/frame_shapes.h"
#include "core/edits/wire_edits.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace waxis {

namespace {

/// Three-way: `base` is what the generator made before, `fresh` what it makes now, `own` what the build holds.
template <class Thing>
std::vector<Thing> merged(const std::vector<Thing> &base, const std::vector<Thing> &fresh,
                          const std::vector<Thing> &own) {
    std::vector<Thing> result;
    for (const auto &thing : own) {
        const Thing *was = byId(base, thing.id), *now = byId(fresh, thing.id);
        if (!was || !(*was == thing))
            result.push_back(thing); // added or changed by hand
        else if (now)
            result.push_back(*now);
    }
    for (const auto &thing : fresh)
        if (!byId(base, thing.id) && !byId(own, thing.id)) result.push_back(thing);
    return result;
}

/// Motors follow the generator; numbers, spins and other fields that were set by hand stay.
std::vector<MotorMount> mergedMounts(const std::vector<MotorMount> &base, const std::vector<MotorMount> &fresh,
                                     const std::vector<MotorMount> &own) {
    std::vector<MotorMount> result;
    for (const auto &mount : fresh) {
        MotorMount next = mount;
        const MotorMount *was = byId(base, mount.id), *is = byId(own, mount.id);
        if (was && is) {
            if (is->number != was->number) next.number = is->number;
            if (is->spin != was->spin) next.spin = is->spin;
            if (!(is->pattern == was->pattern)) next.pattern = is->pattern;
            if (is->propDiameter_mm != was->propDiameter_mm) next.propDiameter_mm = is->propDiameter_mm;
            if (is->propPlane_mm != was->propPlane_mm) next.propPlane_mm = is->propPlane_mm;
            next.flexUp_mm = is->flexUp_mm;
            next.flexDown_mm = is->flexDown_mm;
        }
        if (was && !is) continue; // taken away by hand
        result.push_back(next);
    }
    for (const auto &mount : own)
        if (!byId(base, mount.id) && !byId(fresh, mount.id)) result.push_back(mount);
    return result;
}

Pose armEnd(const Arm &arm, bool tip) { return {tip ? arm.tip_mm : arm.root_mm, armAxes(arm).rotation}; }

/// How a frame member moved, as a motion of space; none when the id is no member of both frames. Arms move with the end
/// that is nearer to `p`.
std::optional<Pose> motionOf(const Frame &before, const Frame &after, const std::string &id, const Vec3 &p) {
    auto shift = [](const Vec3 &from, const Vec3 &to) { return Pose{to - from, Quat::Identity()}; };
    if (const auto *a = byId(before.arms, id))
        if (const auto *b = byId(after.arms, id)) {
            const bool tip = (p - a->tip_mm).norm() < (p - a->root_mm).norm();
            return armEnd(*b, tip) * armEnd(*a, tip).inverse();
        }
    if (const auto *a = byId(before.plates, id))
        if (const auto *b = byId(after.plates, id)) {
            // What stands above goes with the upper face, what hangs below with the lower one.
            const bool above = p.z() > a->z_mm + a->thickness_mm / 2;
            const double from = a->z_mm + (above ? a->thickness_mm : 0), to = b->z_mm + (above ? b->thickness_mm : 0);
            return shift({0, 0, from}, {0, 0, to});
        }
    if (const auto *a = byId(before.standoffs, id))
        if (const auto *b = byId(after.standoffs, id)) return shift(a->base_mm, b->base_mm);
    if (const auto *a = byId(before.motorMounts, id))
        if (const auto *b = byId(after.motorMounts, id)) return shift(a->position_mm, b->position_mm);
    return std::nullopt;
}

bool isSeat(const Frame &frame, const std::string &id) { return sitePose(frame, id).has_value(); }

/// The motion that a part takes part in: that of the first thing it is fastened onto, through other parts if need be.
std::optional<Pose> motionOfPart(const Build &before, const Frame &after, const Part &part,
                                 std::set<std::string> &seen) {
    if (!seen.insert(part.id).second) return std::nullopt;
    if (!part.placement.site.empty()) {
        const auto a = sitePose(*before.frame, part.placement.site), b = sitePose(after, part.placement.site);
        return a && b ? std::optional(*b * a->inverse()) : std::nullopt;
    }
    const Vec3 p = part.placement.pose.position_mm;
    for (const auto &id : part.fastening.onto)
        if (const auto motion = motionOf(*before.frame, after, id, p)) return motion;
    for (const auto &id : part.fastening.onto)
        if (const Part *carrier = findPart(before, id))
            if (const auto motion = motionOfPart(before, after, *carrier, seen)) return motion;
    return std::nullopt;
}

/// The build on another frame: parts that hang on what moved go along; seats that are gone leave the part in space.
Build onFrame(const Build &build, const Frame &frame) {
    Build next = build;
    next.frame = frame;
    tidyScrews(next);
    // Stacks whose site is gone come apart; what was in them stays where it stood.
    for (const auto &stack : build.stacks) {
        if (isSeat(frame, stack.on) || findPart(build, stack.on)) continue;
        for (auto &part : next.parts)
            if (const auto place = stackPlaceOf(build, part); place && place->stack == &stack) {
                part.placement.pose = framePose(build, *findPart(build, part.id));
                part.placement.site.clear();
                part.fastening.method = FasteningMethod::none;
            }
        std::erase_if(next.stacks, [&](const Stack &s) { return s.id == stack.id; });
    }
    for (auto &part : next.parts) {
        if (stackPlaceOf(next, part)) continue; // stands where its layers put it
        if (!part.placement.site.empty()) {
            if (!isSeat(frame, part.placement.site)) {
                part.placement.pose = framePose(build, *findPart(build, part.id));
                part.placement.site.clear();
            }
            continue;
        }
        std::set<std::string> seen;
        const auto motion = motionOfPart(build, frame, part, seen);
        if (!motion || *motion == Pose{}) continue;
        part.placement.pose = *motion * part.placement.pose;
        part.placement.pose.rotation = canonical(part.placement.pose.rotation);
    }
    // Nothing may name what is no longer there.
    const auto ids = allIds(next);
    const std::set<std::string> present(ids.begin(), ids.end());
    for (auto &part : next.parts)
        std::erase_if(part.fastening.onto, [&](const std::string &id) { return !present.contains(id); });
    for (auto &stack : next.stacks)
        if (!present.contains(stack.through)) stack.through.clear();
    next.frame.edit([&](Frame &f) {
        for (auto &site : f.sites)
            if (!site.on.empty() && !present.contains(site.on)) site.on.clear();
        std::erase_if(f.passThroughs, [&](const PassThrough &p) { return !byId(f.plates, p.plate); });
    });
    dropLostStops(next);
    return next;
}

/// A new member must not carry an id that a part or load case has.
Result<Frame, EditError> withFreeIds(const Build &build, Frame frame) {
    std::set<std::string> taken;
    for (const auto &part : build.parts) taken.insert(part.id);
    for (const auto &stack : build.stacks) taken.insert(stack.id);
    for (const auto &allowance : build.allowances) taken.insert(allowance.id);
    for (const auto &loadCase : build.loadCases) taken.insert(loadCase.id);
    Build probe;
    probe.frame = frame;
    for (const auto &id : allIds(probe))
        if (taken.contains(id))
            return Failure{
                EditError{fmt::format("A part is called \"{}\" as the new frame's piece is; rename it first.", id)}};
    return frame;
}

} // namespace

bool isGenerated(const Frame &frame) {
    const auto *layout = findLayout(frame.layout);
    return layout && bool(generateFrame(layout->kind, frame.layoutParameters));
}

EditResult relayout(const Build &build, LayoutKind kind, const LayoutValues &values) {
    auto fresh = generateFrame(kind, values);
    if (!fresh) return Failure{EditError{fresh.error().text()}};
    const Frame &own = *build.frame;
    Frame next = *fresh;
    const auto *before = findLayout(own.layout);
    if (before && before->kind == kind)
        if (const auto base = generateFrame(before->kind, own.layoutParameters)) {
            next.motorMounts = mergedMounts(base->motorMounts, fresh->motorMounts, own.motorMounts);
            next.arms = merged(base->arms, fresh->arms, own.arms);
            next.plates = merged(base->plates, fresh->plates, own.plates);
            next.standoffs = merged(base->standoffs, fresh->standoffs, own.standoffs);
            next.screws = merged(base->screws, fresh->screws, own.screws);
            next.sites = merged(base->sites, fresh->sites, own.sites);
            next.passThroughs = merged(base->passThroughs, fresh->passThroughs, own.passThroughs);
            next.numbering = own.numbering;
            if (own.name != base->name) next.name = own.name;
        }
    next.materials = own.materials;
    const auto checked = withFreeIds(build, next);
    if (!checked) return Failure{checked.error()};
    return onFrame(build, *checked);
}

EditResult setLayoutValue(const Build &build, const std::string &parameter, double value) {
    const auto *layout = findLayout(build.frame->layout);
    if (!layout) return Failure{EditError{"This frame was not made from a layout."}};
    LayoutValues values = build.frame->layoutParameters;
    const LayoutValues usualBefore = usualSection(values);
    values[parameter] = value;
    // A section that was the usual one for the arm's size stays the usual one for its new size.
    for (const auto &[key, usual] : usualSection(values))
        if (key != parameter && (!values.contains(key) || values[key] == usualBefore.at(key))) values[key] = usual;
    return relayout(build, layout->kind, values);
}

EditResult moveMotor(const Build &build, const std::string &id, const Vec2 &position_mm) {
    const MotorMount *mount = byId(build.frame->motorMounts, id);
    if (!mount) return Failure{EditError{fmt::format("There is no motor mount \"{}\" in this frame.", id)}};
    if (!position_mm.allFinite()) return Failure{EditError{"The position is not a finite number."}};
    const Arm *arm = armOf(*build.frame, *mount);
    Frame next = *build.frame;
    const Vec2 from = mount->position_mm.head<2>();
    for (auto &other : next.motorMounts)
        if ((other.position_mm.head<2>() - from).norm() < 1.0) other.position_mm.head<2>() = position_mm;
    if (arm)
        for (auto &candidate : next.arms)
            if (candidate.id == arm->id) {
                const Vec2 root = arm->root_mm.head<2>(), out = position_mm - root;
                const double beyond = (arm->tip_mm.head<2>() - from).norm();
                if (!(out.norm() > 5)) return Failure{EditError{"The motor would stand on the arm's root."}};
                const Vec2 tip = position_mm + out.normalized() * beyond;
                candidate.tip_mm.head<2>() = tip;
            }
    return onFrame(build, next);
}

EditResult extendArms(const Build &build, double by_mm) {
    Build next = build;
    std::set<std::string> done;
    for (const auto &mount : build.frame->motorMounts) {
        const MotorMount *now = byId(next.frame->motorMounts, mount.id);
        const Arm *arm = armOf(*next.frame, *now);
        if (!arm || !done.insert(arm->id).second) continue;
        const Vec2 out = (now->position_mm - arm->root_mm).head<2>().normalized();
        auto moved = moveMotor(next, mount.id, now->position_mm.head<2>() + out * by_mm);
        if (!moved) return moved;
        next = *moved;
    }
    return next;
}

EditResult replaceFrame(const Build &build, const Frame &frame) {
    const auto checked = withFreeIds(build, frame);
    if (!checked) return Failure{checked.error()};
    return onFrame(build, *checked);
}

EditResult setPlate(const Build &build, const Plate &plate) {
    if (!(plate.thickness_mm > 0)) return Failure{EditError{"A plate needs a thickness."}};
    const Polygon polygon = platePolygon(plate);
    if (!(areaProperties(polygon).area_mm2 > 0)) return Failure{EditError{"The plate's outline encloses no area."}};
    if (const auto fault = faultOf(polygon); !fault.empty())
        return Failure{EditError{fmt::format("The plate cannot be cut like that: {}.", fault)}};
    Frame next = *build.frame;
    const auto at =
        std::find_if(next.plates.begin(), next.plates.end(), [&](const Plate &p) { return p.id == plate.id; });
    if (at == next.plates.end()) {
        const auto ids = allIds(build);
        if (std::find(ids.begin(), ids.end(), plate.id) != ids.end())
            return Failure{EditError{fmt::format("The id \"{}\" is taken.", plate.id)}};
        next.plates.push_back(plate);
        return onFrame(build, next);
    }
    const double rise = plate.z_mm + plate.thickness_mm - at->z_mm - at->thickness_mm;
    *at = plate;
    for (auto &site : next.sites)
        if (site.on == plate.id) site.X_FrameSite.position_mm.z() += rise;
    return onFrame(build, next);
}

EditResult removePlate(const Build &build, const std::string &plate) {
    Frame next = *build.frame;
    if (std::erase_if(next.plates, [&](const Plate &p) { return p.id == plate; }) == 0)
        return Failure{EditError{fmt::format("There is no plate \"{}\".", plate)}};
    return onFrame(build, next);
}

} // namespace waxis
