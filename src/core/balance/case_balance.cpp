#include "core/balance/case_balance.h"

#include "core/balance/ring_chance.h"

#include <algorithm>
#include <cmath>

namespace waxis {

CaseBalance caseBalance(const Build &build, const std::vector<MassRow> &rows, const std::vector<LoadCase> &loadCases,
                        std::size_t caseIndex, const Vec3 &thrustCentre_mm, double ring_mm) {
    CaseBalance balance;
    balance.loadCase = loadCases[caseIndex];
    const CaseMasses in = massesIn(build, rows, caseIndex, balance.loadCase.folded);
    balance.notWeighed = in.notWeighed;
    std::vector<MassElement> elements;
    std::vector<UncertainMass> doubts;
    for (const auto &m : in.masses) {
        elements.push_back(m.element);
        doubts.push_back({m.element.mass_g, m.sigmaMass_g, m.element.centroid_mm, m.sigmaPosition_mm, m.group});
    }
    balance.mass = rollUp(elements);
    const CgUncertainty doubt = propagate(doubts);
    balance.tolerance_g = 2 * doubt.sigmaMass_g;
    balance.cgCovariance_mm2 = doubt.covariance_mm2;
    balance.principal = principalAxes(balance.mass.inertia_gmm2);
    const auto &mounts = build.frame->motorMounts;
    if (!balance.mass.cg_mm || mounts.empty()) return balance;
    balance.offset_mm = *balance.mass.cg_mm - thrustCentre_mm;
    balance.insideChance =
        chanceInRing(balance.offset_mm->head<2>(), balance.cgCovariance_mm2.topLeftCorner<2, 2>(), ring_mm);
    const bool folds = std::any_of(build.frame->arms.begin(), build.frame->arms.end(),
                                   [](const Arm &arm) { return arm.foldJoint_mm.has_value(); });
    if (balance.loadCase.folded)
        balance.foldedCg_mm = balance.mass.cg_mm;
    else if (folds) {
        const CaseMasses away = massesIn(build, rows, caseIndex, true);
        double mass = 0;
        Vec3 moment = Vec3::Zero();
        for (const auto &m : away.masses) {
            mass += m.element.mass_g;
            moment += m.element.mass_g * m.element.centroid_mm;
        }
        balance.foldedCg_mm = moment / mass;
    }

    double thrust_gf = 0;
    bool everyThrustKnown = true;
    std::size_t motors = 0;
    for (const auto &part : build.parts) {
        const PartType *type = typeOf(build, part);
        if (!type || type->kind != PartKind::motor || !isAboard(part, balance.loadCase)) continue;
        ++motors;
        everyThrustKnown &= type->maxThrust_gf.known();
        thrust_gf += type->maxThrust_gf.value.value_or(0);
    }
    // A craft with some of its motors flies nowhere: no figure for it.
    const bool whole = motors > 0 && motors >= build.frame->motorMounts.size();
    if (whole && everyThrustKnown) balance.thrustToWeight = thrust_gf / balance.mass.mass_g;
    balance.hover = hoverShare(build, balance.loadCase, *balance.mass.cg_mm, balance.mass.mass_g);
    return balance;
}

double cgTolerance_mm(const Frame &frame, const Practice &practice) {
    if (!practice.follows("balance", "by-size")) return practice[Limit::cgOffset];
    double diagonal = 0;
    for (const auto &a : frame.motorMounts)
        for (const auto &b : frame.motorMounts)
            diagonal = std::max(diagonal, (a.position_mm - b.position_mm).head<2>().norm());
    return diagonal > 0 ? diagonal * practice[Limit::cgShare] / 100 : practice[Limit::cgOffset];
}

} // namespace waxis
