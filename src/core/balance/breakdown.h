// Where the grams are, what pulls which way, and what makes the craft slow to turn.
#pragma once

#include "core/balance/mass_kind.h"
#include "core/build/build.h"

#include <string>
#include <vector>

namespace waxis {

struct MassRow;
struct CaseBalance;

GramGroup gramGroupOf(const Build &build, const MassRow &row);

struct GroupMass {
    GramGroup group = GramGroup::power;
    double mass_g = 0, tolerance_g = 0; ///< tolerance: 2 sigma
    int rows = 0, unknown = 0;
};

/// One row's part in a load case.
struct RowShare {
    std::string id;
    GramGroup group = GramGroup::power;
    double mass_g = 0, tolerance_g = 0;
    Source source = Source::catalogue;
    Vec3 from_mm = Vec3::Zero();      ///< thrust centre to its centroid
    Vec2 moment_gmm = Vec2::Zero();   ///< forward and left positive, about the thrust centre
    Vec3 inertia_gmm2 = Vec3::Zero(); ///< about the axes through the CG: roll, pitch, yaw
    double doubtShare = 0;            ///< of the CG's variance in plan that its mass and place bring
};

struct Breakdown {
    std::vector<GroupMass> groups;  ///< heaviest first, those with anything aboard
    std::vector<RowShare> rows;     ///< heaviest first
    Vec2 moment_gmm = Vec2::Zero(); ///< sum: mass times offset
    Vec3 inertia_gmm2 = Vec3::Zero();
};

/// Empty where the case has no mass. Pieces of a folded arm count together.
Breakdown breakdownOf(const Build &build, const std::vector<MassRow> &rows, std::size_t caseIndex,
                      const CaseBalance &balance, const Vec3 &thrustCentre_mm);

} // namespace waxis
