#include "core/balance/case_masses.h"

#include "core/balance/mass_rows.h"
#include "core/build/folding.h"

#include <cmath>
#include <map>
#include <string_view>
#include <unordered_map>

namespace waxis {

namespace {

/// How rows move when the arms are folded: by id of the part or arm. An arm's row is cut at its joint.
struct Folded {
    std::map<std::string, Pose, std::less<>> motion;
    struct Cut {
        double outerShare = 0;
        Vec3 innerCentre_mm = Vec3::Zero(), outerCentre_mm = Vec3::Zero();
    };
    std::map<std::string, Cut, std::less<>> arms;
};

Folded foldedOf(const Build &build) {
    Folded folded;
    for (const auto &arm : foldingArms(build)) {
        const Pose motion = foldMotion(arm, 1);
        for (const auto &id : arm.parts) {
            folded.motion.emplace(id, motion);
            folded.motion.emplace(id + "/fastening", motion);
        }
        for (const auto &a : build.frame->arms)
            if (a.id == arm.arm) {
                const Vec3 down(0, 0, -a.thickness_mm / 2), along = a.tip_mm - a.root_mm;
                const double share = *a.foldJoint_mm / along.norm();
                const Vec3 cut = a.root_mm + share * along;
                folded.arms[a.id] = {1 - share, (a.root_mm + cut) / 2 + down,
                                     motion * Vec3((cut + a.tip_mm) / 2 + down)};
            }
    }
    return folded;
}

MassElement moved(const MassElement &element, const Pose &motion) {
    const Mat3 turn = motion.rotation.toRotationMatrix();
    return {element.mass_g, motion * element.centroid_mm, turn * element.inertia_gmm2 * turn.transpose()};
}

} // namespace

CaseMasses massesIn(const Build &build, const std::vector<MassRow> &rows, std::size_t caseIndex, bool isFolded) {
    CaseMasses result;
    const Folded folded = isFolded ? foldedOf(build) : Folded{};
    const CaseMask bit = CaseMask(1) << caseIndex;
    std::unordered_map<std::string_view, int> groups;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const MassRow &row = rows[r];
        if (!(row.cases & bit)) continue;
        if (!row.known) {
            result.unknown.push_back(r);
            result.notWeighed.push_back(rows[r].id);
            continue;
        }
        auto take = [&](const MassElement &element, double share) {
            const std::string &name = row.alike.empty() && share < 1 ? row.id : row.alike;
            const int group = name.empty() ? -1 : groups.try_emplace(name, int(groups.size())).first->second;
            result.masses.push_back({r, element, share * row.tolerance_g / 2, row.sigmaPosition_mm, group});
        };
        const auto motion = folded.motion.find(row.id);
        const auto cut = row.kind == MassKind::arm ? folded.arms.find(row.id) : folded.arms.end();
        if (cut != folded.arms.end()) { // each piece as a thin rod of its own would turn: close enough for inertia
            const double outer = cut->second.outerShare;
            take({row.element.mass_g * (1 - outer), cut->second.innerCentre_mm,
                  row.element.inertia_gmm2 * std::pow(1 - outer, 3)},
                 1 - outer);
            take(
                {row.element.mass_g * outer, cut->second.outerCentre_mm, row.element.inertia_gmm2 * std::pow(outer, 3)},
                outer);
        } else
            take(motion == folded.motion.end() ? row.element : moved(row.element, motion->second), 1);
    }
    return result;
}

} // namespace waxis
