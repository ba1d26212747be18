#include "core/derived/all_up.h"

#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/derived/derived.h"

namespace waxis {

const CompoundMass &allUp(const Derived &derived, std::size_t loadCase) { return derived.balance->at(loadCase).mass; }

const std::optional<Vec3> &offsetOf_mm(const Derived &derived, std::size_t loadCase) {
    return derived.balance->at(loadCase).offset_mm;
}

std::size_t allUpCount(const Derived &derived) { return derived.balance->size(); }

std::optional<double> hoverThrust_N(const Derived &derived, std::size_t loadCase, std::size_t mount) {
    if (loadCase >= derived.balance.size()) return {};
    const auto &thrusts = derived.balance[loadCase].hover.thrusts_N;
    return mount < thrusts.size() ? std::optional(thrusts[mount]) : std::nullopt;
}

std::optional<double> gramsOf(const Derived &derived, std::string_view id) {
    for (const auto &row : derived.massRows)
        if (row.id == id && row.known) return row.element.mass_g;
    return {};
}

std::vector<Allowance> wiresAsWeights(const Derived &derived, std::size_t loadCase) {
    std::vector<Allowance> weights;
    for (const auto &row : derived.massRows)
        if (row.kind == MassKind::wire && (row.cases >> loadCase & 1))
            weights.push_back(
                {"on-the-way-" + row.id, row.id, catalogueValue(row.element.mass_g), row.element.centroid_mm});
    return weights;
}

} // namespace waxis
