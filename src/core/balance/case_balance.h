// One load case in the balance: mass, centre of gravity, inertia, hover.
#pragma once

#include "core/balance/case_masses.h"
#include "core/balance/hover_share.h"
#include "core/practice/practice.h"

namespace waxis {

struct CaseBalance {
    LoadCase loadCase;
    CompoundMass mass;
    double tolerance_g = 0; ///< +- 2 sigma of the all-up mass
    Mat3 cgCovariance_mm2 = Mat3::Zero();
    PrincipalAxes principal;
    std::vector<std::string> notWeighed; ///< ids of the rows without a weight
    /// Thrust centre to CG: x forward, y left; z is CG above the mean propeller plane. None without mass or
    /// motors.
    std::optional<Vec3> offset_mm;
    /// CG with the arms folded; none where nothing folds.
    std::optional<Vec3> foldedCg_mm;
    /// Chance that the true CG lies inside the tolerance ring, first order; none without an offset.
    std::optional<double> insideChance;
    std::optional<double> thrustToWeight; ///< none unless every mount has a motor that states its thrust
    HoverShare hover;
};

/// `ring_mm` is the tolerance about the thrust centre.
CaseBalance caseBalance(const Build &build, const std::vector<MassRow> &rows, const std::vector<LoadCase> &loadCases,
                        std::size_t caseIndex, const Vec3 &thrustCentre_mm, double ring_mm);

/// How far the centre of gravity may lie off the thrust centre in plan, mm: the practice's limit, or its share of the
/// motor diagonal where the build follows that school.
double cgTolerance_mm(const Frame &frame, const Practice &practice);

} // namespace waxis
