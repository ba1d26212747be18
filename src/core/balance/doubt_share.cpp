#include "core/balance/doubt_share.h"

#include "core/balance/case_balance.h"
#include "core/balance/case_masses.h"
#include "core/balance/mass_rows.h"

#include <cmath>
#include <string_view>
#include <unordered_map>

namespace waxis {

std::vector<DoubtShare> doubtSharesOf(const CaseBalance &balance, std::span<const CaseMass> masses) {
    std::vector<DoubtShare> shares(masses.size());
    const double variance = balance.cgCovariance_mm2(0, 0) + balance.cgCovariance_mm2(1, 1);
    if (!balance.mass.cg_mm || !(variance > 0)) return shares;
    const auto shiftOf = [&](const CaseMass &m) -> Vec2 {
        return (m.element.centroid_mm - *balance.mass.cg_mm).head<2>() / balance.mass.mass_g * m.sigmaMass_g;
    };
    std::vector<Vec2> together;
    for (const auto &m : masses) {
        if (m.group < 0) continue;
        if (std::size_t(m.group) >= together.size()) together.resize(std::size_t(m.group) + 1, Vec2::Zero());
        together[std::size_t(m.group)] += shiftOf(m);
    }
    for (std::size_t i = 0; i < masses.size(); ++i) {
        const CaseMass &m = masses[i];
        const Vec2 own = shiftOf(m);
        shares[i] = {own.dot(m.group < 0 ? own : together[std::size_t(m.group)]) / variance,
                     2 * std::pow(m.element.mass_g / balance.mass.mass_g * m.sigmaPosition_mm, 2) / variance};
    }
    return shares;
}

std::vector<DoubtShare> doubtSharesOf(const CaseBalance &balance, std::span<const MassRow> rows,
                                      std::size_t caseIndex) {
    std::vector<CaseMass> masses;
    std::unordered_map<std::string_view, int> groups;
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const MassRow &row = rows[r];
        if (!(row.cases >> caseIndex & 1) || !row.known) continue;
        const int group = row.alike.empty() ? -1 : groups.try_emplace(row.alike, int(groups.size())).first->second;
        masses.push_back({r, row.element, row.tolerance_g / 2, row.sigmaPosition_mm, group});
    }
    const auto found = doubtSharesOf(balance, masses);
    std::vector<DoubtShare> shares(rows.size());
    for (std::size_t i = 0; i < masses.size(); ++i) shares[masses[i].row] = found[i];
    return shares;
}

} // namespace waxis
