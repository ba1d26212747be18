// What joints turn, over the whole of their travels: gimbals, landing gears, tails on a servo.
#include "core/base/by_id.h"
#include "core/base/units.h"
#include "core/build/arm_of.h"
#include "core/build/frame_shapes.h"
#include "core/clearance/clearance_world.h"
#include "core/scene/scene.h"
#include "core/scene/tilting.h"
#include "core/survey/reach.h"
#include "core/survey/survey.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace waxis {

namespace {

/// A turn about a line of the frame.
struct Joint {
    std::string name;
    Vec3 pivot_mm, axis;
    double from_deg, to_deg;
    int firstSolid;

    Pose at(double angle_deg) const {
        const Quat turn(Eigen::AngleAxisd(radiansFromDegrees(angle_deg), axis));
        return {pivot_mm - turn * pivot_mm, turn};
    }
};

/// One thing that moves: its joints from the outermost to the innermost, and what sits on it.
struct Mover {
    std::string part;
    std::vector<Joint> joints;
    std::set<int> riders; ///< owners that turn by all of the joints
    int own = -1;         ///< owner whose solids turn from each joint's first one on; -1: none does
    std::string mount;    ///< motor mount that turns along, with its propeller's zone; empty: none
};

/// Angles of a joint: its ends, how it is drawn, and steps of at most 15 degrees between, which a hand or head is
/// slower than.
std::vector<double> anglesOf(const Joint &joint) {
    constexpr double kStep_deg = 15;
    const double low = std::min(joint.from_deg, joint.to_deg), high = std::max(joint.from_deg, joint.to_deg);
    const int steps = std::clamp(int(std::ceil((high - low) / kStep_deg - 1e-9)), 1, 24);
    std::vector<double> angles;
    for (int i = 0; i <= steps; ++i) angles.push_back(low + (high - low) * i / steps);
    return angles;
}

/// All joints' angles combined; of more than two joints the inner ones by their ends and middle, so that a look stays
/// short.
std::vector<std::vector<double>> combinations(const std::vector<Joint> &joints) {
    std::vector<std::vector<double>> all{{}};
    for (std::size_t i = 0; i < joints.size(); ++i) {
        std::vector<double> angles = anglesOf(joints[i]);
        if (i >= 2 && angles.size() > 3) angles = {angles.front(), (angles.front() + angles.back()) / 2, angles.back()};
        std::vector<std::vector<double>> next;
        for (const auto &one : all)
            for (const double angle : angles) {
                next.push_back(one);
                next.back().push_back(angle);
            }
        all = std::move(next);
    }
    return all;
}

/// Owners that hang first of all on what turns, directly or through others.
std::set<int> ridersOn(const Build &build, const std::string &carrier, int own) {
    std::set<std::string> moving{carrier};
    std::set<int> riders;
    for (bool changed = true; changed;) {
        changed = false;
        for (std::size_t i = 0; i < build.parts.size(); ++i) {
            const Part &part = build.parts[i];
            if (int(i) == own || moving.contains(part.id)) continue;
            const bool sits = moving.contains(part.placement.site) ||
                              (!part.fastening.onto.empty() && moving.contains(part.fastening.onto.front()));
            if (!sits) continue;
            moving.insert(part.id);
            riders.insert(int(i));
            changed = true;
        }
    }
    return riders;
}

std::vector<Mover> moversOf(const Build &build) {
    std::vector<Mover> movers;
    for (std::size_t i = 0; i < build.parts.size(); ++i) {
        const Part &part = build.parts[i];
        const PartType *type = typeOf(build, part);
        if (!type || type->travels.empty()) continue;
        const Pose pose = framePose(build, part);
        Mover mover{part.id, {}, ridersOn(build, part.id, int(i)), int(i), {}};
        for (const auto &travel : type->travels)
            if (travel.axis.norm() > 1e-9 && travel.from_deg != travel.to_deg)
                mover.joints.push_back({travel.name, pose * travel.pivot_mm, pose.rotation * travel.axis.normalized(),
                                        travel.from_deg, travel.to_deg, travel.firstSolid});
        if (!mover.joints.empty()) movers.push_back(std::move(mover));
    }
    for (const auto &mount : build.frame->motorMounts) {
        const Part *servo = tiltingServo(build, mount);
        const Arm *arm = servo ? armOf(*build.frame, mount) : nullptr;
        if (!arm) continue;
        const Vec3 along = (arm->tip_mm - arm->root_mm).normalized();
        Mover mover{
            servo->id, {{"tail", arm->root_mm, along, -kServoTravel_deg, kServoTravel_deg, 0}}, {}, -1, mount.id};
        mover.riders = ridersOn(build, mount.id, -1);
        if (!mover.riders.empty()) movers.push_back(std::move(mover));
    }
    return movers;
}

/// The bodies that turn with a mover, and those that stay and that it can come near.
struct Split {
    std::vector<int> moving, staying;
};

Split splitBy(const Mover &mover, const Scene &scene, double gap_mm) {
    Split split;
    double reach = 0; // of what turns, from the outermost pivot
    const Vec3 pivot = mover.joints.front().pivot_mm;
    for (std::size_t b = 0; b < scene.traits.size(); ++b) {
        const BodyTraits &traits = scene.traits[b];
        const BodyOwner &owner = scene.owners[std::size_t(traits.owner)];
        if (traits.soft || owner.flexible) continue;
        const bool turns = mover.riders.contains(traits.owner) ||
                           (traits.owner == mover.own && traits.solid >= mover.joints.front().firstSolid);
        if (!turns) {
            if (traits.owner != mover.own) split.staying.push_back(int(b));
            continue;
        }
        if (owner.kind != OwnerKind::part) continue;
        split.moving.push_back(int(b));
        const Aabb box = scene.world->boundsOfBody(int(b));
        reach = std::max(reach, (box.max_mm - pivot).cwiseAbs().cwiseMax((box.min_mm - pivot).cwiseAbs()).norm());
    }
    std::erase_if(split.staying, [&](int b) {
        const Aabb box = scene.world->boundsOfBody(b);
        return (pivot - pivot.cwiseMax(box.min_mm).cwiseMin(box.max_mm)).norm() > reach + gap_mm;
    });
    return split;
}

/// A body as it stands with the joints at these angles, turned from the innermost outwards.
Body turnedBy(const Mover &mover, const std::vector<double> &angles, Body body, const BodyTraits &traits) {
    for (std::size_t j = mover.joints.size(); j-- > 0;) {
        if (traits.owner == mover.own && traits.solid < mover.joints[j].firstSolid) continue;
        const Pose motion = mover.joints[j].at(angles[j]);
        body.X_FrameBody = {motion * body.X_FrameBody.position_mm, motion.rotation * body.X_FrameBody.rotation};
    }
    return body;
}

/// Whether a contact of the two says anything: not of what turns along, nor in no load case, nor, of what the body is
/// fastened to, where it touches as drawn.
bool counts(const Mover &mover, const Scene &scene, int moving, int staying, double gap_mm) {
    const int other = scene.traits[std::size_t(staying)].owner;
    const BodyOwner &owner = scene.owners[std::size_t(scene.traits[std::size_t(moving)].owner)];
    const BodyOwner &met = scene.owners[std::size_t(other)];
    if (!(owner.cases & met.cases) || met.id == mover.part || met.id == mover.mount) return false;
    if (mover.own < 0 && met.kind == OwnerKind::arm) return false; // the motor turns with its arm
    if (std::find(owner.related.begin(), owner.related.end(), other) == owner.related.end()) return true;
    const auto &bodies = scene.world->bodies();
    return measureGap(bodies[std::size_t(moving)], bodies[std::size_t(staying)]).distance_mm > gap_mm;
}

/// The worst contact of each pair of owners.
class Worst {
public:
    void take(int owner, int other, TravelContact contact) {
        const auto [at, isNew] = known_.try_emplace({owner, other}, contacts.size());
        if (isNew) return contacts.push_back(std::move(contact));
        TravelContact &kept = contacts[at->second];
        if (contact.depth_mm > kept.depth_mm || (kept.depth_mm <= 0 && contact.gap_mm < kept.gap_mm))
            kept = std::move(contact);
    }
    std::vector<TravelContact> contacts;

private:
    std::map<std::pair<int, int>, std::size_t> known_;
};

/// What one mover meets with its joints at these angles.
void meet(const Mover &mover, const std::vector<double> &angles, const Split &split, const Scene &scene, double gap_mm,
          Worst &worst) {
    const auto &bodies = scene.world->bodies();
    // The joint that is farthest from how it is drawn speaks for the place.
    const auto widest = std::size_t(
        std::max_element(angles.begin(), angles.end(), [](double a, double b) { return std::abs(a) < std::abs(b); }) -
        angles.begin());
    for (const int b : split.moving) {
        const BodyTraits &traits = scene.traits[std::size_t(b)];
        const Body turned = turnedBy(mover, angles, bodies[std::size_t(b)], traits);
        const Aabb box = boundsOf(turned.shape, turned.X_FrameBody);
        for (const int s : split.staying) {
            if (boxGap(box, scene.world->boundsOfBody(s)) > gap_mm) continue;
            const BodyGap gap = measureGap(turned, bodies[std::size_t(s)]);
            if (gap.distance_mm > gap_mm || !counts(mover, scene, b, s, gap_mm)) continue;
            const int other = scene.traits[std::size_t(s)].owner;
            const BodyOwner &met = scene.owners[std::size_t(other)];
            worst.take(traits.owner, other,
                       {mover.part, scene.owners[std::size_t(traits.owner)].id, met.id, mover.joints[widest].name,
                        angles[widest], gap.depth_mm, gap.distance_mm, met.kind == OwnerKind::disc, gap.onB_mm});
        }
    }
}

} // namespace

std::vector<TravelContact> travelContacts(const Build &build, const Practice &practice, const Scene &scene,
                                          const std::atomic<bool> *stop) {
    std::vector<TravelContact> contacts;
    const double gap_mm = practice[Limit::foldGap];
    for (const Mover &mover : moversOf(build)) {
        const Split split = splitBy(mover, scene, gap_mm);
        Worst worst;
        for (const auto &angles : combinations(mover.joints)) {
            if (stop && stop->load(std::memory_order_relaxed)) break;
            meet(mover, angles, split, scene, gap_mm, worst);
        }
        contacts.insert(contacts.end(), worst.contacts.begin(), worst.contacts.end());
    }
    return contacts;
}

} // namespace waxis
