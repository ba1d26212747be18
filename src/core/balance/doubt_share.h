// What one mass brings to the doubt about where the centre of gravity is, in plan.
#pragma once

#include "core/balance/mass_properties.h"

#include <span>
#include <vector>

namespace waxis {

struct CaseBalance;
struct CaseMass;
struct MassRow;

/// Shares of the plan variance of the CG; 0 where nothing is in doubt.
struct DoubtShare {
    double byMass = 0, byPlace = 0;
    double sum() const { return byMass + byPlace; }
};

/// First order, as in propagate(): dc/dm = (c_i - c) / M, dc/dc_i = m_i / M along both axes. Of masses that are wrong
/// together each gets its part of what they do together: below nothing for one that takes back what its fellows do.
std::vector<DoubtShare> doubtSharesOf(const CaseBalance &balance, std::span<const CaseMass> masses);

/// The same by mass row, where it is when unfolded; nothing for rows that are not aboard or not known.
std::vector<DoubtShare> doubtSharesOf(const CaseBalance &balance, std::span<const MassRow> rows, std::size_t caseIndex);

} // namespace waxis
