#include "core/analysis/thing_gap.h"

namespace waxis {

std::optional<BodyGap> gapBetween(const Derived &derived, const std::string &a, const std::string &b) {
    auto bodiesOf = [&](const std::string &id) {
        std::vector<int> bodies;
        for (std::size_t i = 0; i < derived.traits.size(); ++i) {
            const BodyOwner &owner = derived.owners[std::size_t(derived.traits[i].owner)];
            if (owner.kind != OwnerKind::disc && owner.id == id) bodies.push_back(int(i));
        }
        return bodies;
    };
    std::optional<BodyGap> best;
    const auto others = bodiesOf(b);
    for (const int i : bodiesOf(a))
        for (const int j : others) {
            const BodyGap gap = derived.world->measure(i, j);
            if (!best || gap.distance_mm < best->distance_mm) best = gap;
        }
    return best;
}

} // namespace waxis
