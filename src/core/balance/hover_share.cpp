#include "core/balance/hover_share.h"

#include "core/balance/statics.h"
#include "core/base/units.h"
#include "core/build/frame_shapes.h"
#include "core/build/on_mount.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace waxis {

namespace {

/// Reaction on the frame per thrust: a propeller that turns clockwise, seen from above, turns the craft to the left.
/// Power at a thrust goes as T^1.5 / D and turns as sqrt(T / C_T) / D^2, so torque per thrust as D sqrt(C_T); C_T as
/// pitch over diameter times blades, where all of them state these (momentum theory with one figure of merit and thin
/// blades: rough, good to tell unlike propellers from like ones).
std::vector<double> torquesPerThrust(const Build &build, const LoadCase &loadCase) {
    const auto &mounts = build.frame->motorMounts;
    std::vector<const PartType *> propellers;
    bool stated = true;
    for (const auto &mount : mounts) {
        propellers.push_back(typeOn(build, mount.id, PartKind::propeller, &loadCase));
        const PartType *type = propellers.back();
        stated = stated && type && type->propDiameter_mm && type->propPitch_mm && *type->propPitch_mm > 0;
    }
    std::vector<double> torques;
    for (std::size_t i = 0; i < mounts.size(); ++i) {
        const PartType *type = propellers[i];
        double arm = type && type->propDiameter_mm ? *type->propDiameter_mm : mounts[i].propDiameter_mm;
        if (!(arm > 0)) arm = 1;
        if (stated) arm *= std::sqrt(*type->propPitch_mm / arm * type->propBlades.value_or(2));
        torques.push_back((mounts[i].spin == Spin::clockwise ? 1 : -1) * arm);
    }
    return torques;
}

} // namespace

HoverShare hoverShare(const Build &build, const LoadCase &loadCase, const Vec3 &cg_mm, double mass_g) {
    HoverShare share;
    const auto &mounts = build.frame->motorMounts;
    std::vector<Thruster> motors;
    motors.reserve(mounts.size());
    for (const auto &mount : mounts) {
        motors.push_back({propCentre_mm(mount), mount.axis});
        const PartType *motor = typeOn(build, mount.id, PartKind::motor, &loadCase);
        share.most_N.push_back(motor && motor->maxThrust_gf.known()
                                   ? std::optional(newtonsFromGrams(*motor->maxThrust_gf.value))
                                   : std::nullopt);
    }
    share.yawServo = std::any_of(build.parts.begin(), build.parts.end(), [&](const Part &part) {
        const PartType *type = typeOf(build, part);
        return type && type->kind == PartKind::servo && isAboard(part, loadCase);
    });
    const auto split = tiltedSplit(motors, cg_mm, kilogramsFromGrams(mass_g), kStandardGravity_m_s2);
    if (!split) return share;
    share.thrusts_N = *split;
    for (std::size_t i = 0; i < mounts.size(); ++i) share.aside_N += share.thrusts_N[i] * mounts[i].axis.head<2>();
    share.lean_deg =
        degreesFromRadians(std::atan2(share.aside_N.norm(), kilogramsFromGrams(mass_g) * kStandardGravity_m_s2));
    const auto torques = torquesPerThrust(build, loadCase);
    if (const auto trimmed = tiltedSplit(motors, cg_mm, kilogramsFromGrams(mass_g), kStandardGravity_m_s2, &torques))
        share.yawBalanced_N = *trimmed;
    double left = 0, all = 0;
    for (std::size_t i = 0; i < mounts.size(); ++i) {
        left += torques[i] * share.thrusts_N[i];
        all += std::abs(torques[i] * share.thrusts_N[i]);
    }
    if (all > 0) share.yawLeft = left / all;
    const double mean =
        std::accumulate(share.thrusts_N.begin(), share.thrusts_N.end(), 0.0) / double(share.thrusts_N.size());
    share.mostLoaded = int(std::max_element(share.thrusts_N.begin(), share.thrusts_N.end()) - share.thrusts_N.begin());
    share.mostOverMean = share.thrusts_N[std::size_t(share.mostLoaded)] / mean;
    for (std::size_t i = 0; i < mounts.size(); ++i) {
        if (!share.most_N[i] || !(*share.most_N[i] > 0)) {
            share.tightest = -1;
            break;
        }
        const double used = share.thrusts_N[i] / *share.most_N[i];
        if (share.tightest < 0 || used > share.tightestShare) {
            share.tightest = int(i);
            share.tightestShare = used;
        }
    }
    return share;
}

} // namespace waxis
