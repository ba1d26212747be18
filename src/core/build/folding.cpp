#include "core/build/folding.h"

#include "core/base/units.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace waxis {

double usualFoldAngle_deg(const Arm &arm) {
    if (arm.foldsDown) return 90;
    return arm.tip_mm.y() - arm.root_mm.y() >= 0 ? 90 : -90;
}

std::string innerPieceId(const std::string &arm) { return arm + "-root"; }

Pose foldMotion(const FoldingArm &arm, double fraction) {
    const Quat turn(Eigen::AngleAxisd(radiansFromDegrees(arm.angle_deg * fraction), arm.axis));
    return {arm.joint_mm - turn * arm.joint_mm, turn};
}

std::vector<FoldingArm> foldingArms(const Build &build) {
    std::vector<FoldingArm> all;
    const Frame &frame = *build.frame;
    for (const auto &arm : frame.arms) {
        const Vec3 along = arm.tip_mm - arm.root_mm;
        const double length = along.norm();
        if (!arm.foldJoint_mm || !(*arm.foldJoint_mm > 0) || !(*arm.foldJoint_mm < length)) continue;
        const Vec3 out = along / length;
        auto beyond = [&](const Vec3 &p) { return (p - arm.root_mm).dot(out) > *arm.foldJoint_mm; };
        FoldingArm folding;
        folding.arm = arm.id;
        folding.joint_mm = arm.root_mm + out * *arm.foldJoint_mm;
        folding.angle_deg = arm.foldAngle_deg.value_or(usualFoldAngle_deg(arm));
        if (arm.foldsDown) {
            folding.axis = Vec3::UnitZ().cross(out).normalized(); // right-handed: the tip goes down
            folding.joint_mm.z() -= arm.thickness_mm;
        }
        std::set<std::string> carried;
        for (const auto &mount : frame.motorMounts) {
            const Vec3 off = mount.position_mm - arm.root_mm;
            const Vec3 aside = off - off.dot(out) * out;
            constexpr double kPad_mm = 10; // the motor's pad reaches past the arm's end
            if (!beyond(mount.position_mm) || off.dot(out) > length + kPad_mm) continue;
            if (std::hypot(aside.x(), aside.y()) > arm.width_mm / 2 + 2) continue;
            folding.mounts.push_back(mount.id);
            carried.insert(mount.id);
        }
        for (const auto &site : frame.sites)
            if (site.on == arm.id && beyond(site.X_FrameSite.position_mm)) {
                folding.sites.push_back(site.id);
                carried.insert(site.id);
            }
        for (bool more = true; more;) { // parts on parts on the arm
            more = false;
            for (const auto &part : build.parts) {
                if (carried.contains(part.id)) continue;
                const bool onSeat = !part.placement.site.empty() && carried.contains(part.placement.site);
                const bool onArm =
                    !part.fastening.onto.empty() && part.placement.site.empty() &&
                    (part.fastening.onto.front() == arm.id || carried.contains(part.fastening.onto.front())) &&
                    beyond(framePose(build, part).position_mm);
                if (!onSeat && !onArm) continue;
                carried.insert(part.id);
                folding.parts.push_back(part.id);
                more = true;
            }
        }
        all.push_back(std::move(folding));
    }
    return all;
}

Build foldedBuild(const Build &build, double fraction) {
    if (!(fraction > 0)) return build;
    const auto arms = foldingArms(build);
    if (arms.empty()) return build;
    Build folded = build;
    folded.frame.edit([&](Frame &frame) {
        for (const auto &folding : arms) {
            const Pose motion = foldMotion(folding, fraction);
            const auto at =
                std::find_if(frame.arms.begin(), frame.arms.end(), [&](const Arm &a) { return a.id == folding.arm; });
            Arm inner = *at;
            inner.id = innerPieceId(at->id);
            const Vec3 cut = at->root_mm + (at->tip_mm - at->root_mm).normalized() * *at->foldJoint_mm;
            inner.tip_mm = cut;
            inner.foldJoint_mm.reset();
            const double share = (cut - at->root_mm).norm() / (at->tip_mm - at->root_mm).norm();
            if (at->mass_g.known()) {
                inner.mass_g.value = *at->mass_g.value * share;
                at->mass_g.value = *at->mass_g.value * (1 - share);
            }
            at->root_mm = motion * cut;
            at->tip_mm = motion * at->tip_mm;
            at->foldJoint_mm.reset();
            frame.arms.push_back(std::move(inner));
            for (auto &mount : frame.motorMounts)
                if (std::find(folding.mounts.begin(), folding.mounts.end(), mount.id) != folding.mounts.end()) {
                    mount.position_mm = motion * mount.position_mm;
                    mount.axis = motion.rotation * mount.axis;
                }
            for (auto &site : frame.sites)
                if (std::find(folding.sites.begin(), folding.sites.end(), site.id) != folding.sites.end())
                    site.X_FrameSite = motion * site.X_FrameSite;
        }
    });
    for (const auto &folding : arms) {
        const Pose motion = foldMotion(folding, fraction);
        for (auto &part : folded.parts) {
            if (std::find(folding.parts.begin(), folding.parts.end(), part.id) == folding.parts.end()) continue;
            const bool rides =
                std::find(folding.mounts.begin(), folding.mounts.end(), part.placement.site) != folding.mounts.end() ||
                std::find(folding.sites.begin(), folding.sites.end(), part.placement.site) != folding.sites.end();
            // On a mount or site it turns with it. A mount's axes are found anew from its axis, so the turn about that
            // axis is not in them.
            const bool onMount =
                std::find(folding.mounts.begin(), folding.mounts.end(), part.placement.site) != folding.mounts.end();
            if (rides && !onMount) continue;
            const Pose before = framePose(build, part), after = motion * before;
            part.placement.pose = placementAxes(folded, part).inverse() * after;
        }
    }
    return folded;
}

} // namespace waxis
