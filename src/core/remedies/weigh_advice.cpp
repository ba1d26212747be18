#include "core/remedies/weigh_advice.h"

#include "core/balance/case_balance.h"
#include "core/balance/doubt_share.h"
#include "core/balance/mass_rows.h"

#include <algorithm>
#include <cmath>
#include <string_view>
#include <unordered_map>

namespace waxis {

WeighAdvice weighAdvice(const std::vector<MassRow> &rows, const std::vector<CaseBalance> &balances,
                        std::size_t loadCase) {
    WeighAdvice advice;
    if (loadCase >= balances.size()) return advice;
    const CaseBalance &balance = balances[loadCase];
    if (!balance.mass.cg_mm || !(balance.mass.mass_g > 0)) return advice;
    advice.total_g = balance.mass.mass_g;
    const double total = balance.cgCovariance_mm2(0, 0) + balance.cgCovariance_mm2(1, 1);
    advice.sigma_mm = std::sqrt(std::max(total, 0.0));
    const auto shares = doubtSharesOf(balance, rows, loadCase);
    std::unordered_map<std::string_view, std::size_t> alike; // one of them on the scale mends them all
    for (std::size_t r = 0; r < rows.size(); ++r) {
        const MassRow &row = rows[r];
        if (!(row.cases >> loadCase & 1) || !row.known || row.source == Source::measured) continue;
        advice.unweighed_g += row.element.mass_g;
        const double share = shares[r].byMass;
        const auto [at, isNew] =
            row.alike.empty() ? std::pair(alike.end(), true) : alike.try_emplace(row.alike, advice.next.size());
        if (isNew)
            advice.next.push_back({row.id, row.element.mass_g, row.tolerance_g, share});
        else {
            advice.next[at->second].share += share;
            ++advice.next[at->second].pieces;
        }
        advice.unweighedShare += share;
    }
    std::erase_if(advice.next, [](const WeighNext &next) { return !(next.share > 1e-12); });
    std::stable_sort(advice.next.begin(), advice.next.end(),
                     [](const WeighNext &a, const WeighNext &b) { return a.share > b.share; });
    return advice;
}

} // namespace waxis
