#include "core/balance/breakdown.h"

#include "core/balance/case_balance.h"
#include "core/balance/doubt_share.h"
#include "core/balance/mass_rows.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace waxis {

GramGroup gramGroupOf(const Build &build, const MassRow &row) {
    switch (row.kind) {
    case MassKind::plate:
    case MassKind::arm:
    case MassKind::standoff: return GramGroup::plates;
    case MassKind::allowance: return GramGroup::allowances;
    case MassKind::fastening: return GramGroup::hardware;
    case MassKind::wire: return GramGroup::wires;
    case MassKind::part: break;
    }
    if (const Part *part = findPart(build, row.id))
        if (const PartType *type = typeOf(build, *part))
            if (type->kind == PartKind::fastener || type->kind == PartKind::damper || type->kind == PartKind::strap ||
                type->kind == PartKind::pad)
                return GramGroup::hardware;
    switch (row.family) {
    case Family::power: return GramGroup::power;
    case Family::control: return GramGroup::control;
    case Family::radio: return GramGroup::radio;
    case Family::sensing: return GramGroup::sensing;
    case Family::imaging: return GramGroup::imaging;
    case Family::structure: return GramGroup::mounts;
    case Family::load: return GramGroup::load;
    }
    return GramGroup::mounts;
}

Breakdown breakdownOf(const Build &build, const std::vector<MassRow> &rows, std::size_t caseIndex,
                      const CaseBalance &balance, const Vec3 &thrustCentre_mm) {
    Breakdown out;
    if (!balance.mass.cg_mm) return out;
    const Vec3 cg = *balance.mass.cg_mm;
    const CaseMasses in = massesIn(build, rows, caseIndex, balance.loadCase.folded);
    std::map<GramGroup, GroupMass> groups;
    std::map<std::size_t, RowShare> shares;
    const auto doubts = doubtSharesOf(balance, in.masses);
    for (std::size_t i = 0; i < in.masses.size(); ++i) {
        const CaseMass &m = in.masses[i];
        const MassRow &row = rows[m.row];
        RowShare &share = shares[m.row];
        if (share.id.empty()) {
            share.id = row.id;
            share.group = gramGroupOf(build, row);
            share.tolerance_g = row.tolerance_g;
            share.source = row.source;
        }
        const double before = share.mass_g;
        share.mass_g += m.element.mass_g;
        if (share.mass_g != 0)
            share.from_mm =
                (share.from_mm * before + (m.element.centroid_mm - thrustCentre_mm) * m.element.mass_g) / share.mass_g;
        share.moment_gmm += m.element.mass_g * (m.element.centroid_mm - thrustCentre_mm).head<2>();
        const Vec3 d = m.element.centroid_mm - cg;
        share.inertia_gmm2 += m.element.inertia_gmm2.diagonal() +
                              m.element.mass_g * (Vec3::Constant(d.squaredNorm()) - d.cwiseProduct(d));
        share.doubtShare += doubts[i].sum();
    }
    for (const auto &[index, share] : shares) {
        GroupMass &group = groups[share.group];
        group.group = share.group;
        group.mass_g += share.mass_g;
        group.tolerance_g += share.tolerance_g * share.tolerance_g; // squared until the root below
        ++group.rows;
        out.moment_gmm += share.moment_gmm;
        out.inertia_gmm2 += share.inertia_gmm2;
        out.rows.push_back(share);
    }
    for (std::size_t r : in.unknown) {
        GroupMass &group = groups[gramGroupOf(build, rows[r])];
        group.group = gramGroupOf(build, rows[r]);
        ++group.rows;
        ++group.unknown;
    }
    for (auto &[group, mass] : groups) {
        mass.tolerance_g = std::sqrt(mass.tolerance_g);
        out.groups.push_back(mass);
    }
    std::stable_sort(out.groups.begin(), out.groups.end(),
                     [](const GroupMass &a, const GroupMass &b) { return a.mass_g > b.mass_g; });
    std::stable_sort(out.rows.begin(), out.rows.end(),
                     [](const RowShare &a, const RowShare &b) { return a.mass_g > b.mass_g; });
    return out;
}

} // namespace waxis
