// What one mass brings to the doubt about where the centre of gravity is, in plan.
#pragma once

#include "core/balance/mass_properties.h"

namespace waxis {

struct CaseBalance;

/// Shares of the plan variance of the CG, 0 to 1; 0 where nothing is in doubt.
struct DoubtShare {
    double byMass = 0, byPlace = 0;
    double sum() const { return byMass + byPlace; }
};

/// First order, as in propagate(): dc/dm = (c_i - c) / M, dc/dc_i = m_i / M along both axes. Standard deviations.
DoubtShare doubtShareOf(const CaseBalance &balance, const MassElement &element, double sigmaMass_g,
                        double sigmaPosition_mm);

} // namespace waxis
