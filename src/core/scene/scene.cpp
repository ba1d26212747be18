#include "core/scene/scene.h"

#include "core/clearance/clearance_world.h"

#include <algorithm>

namespace waxis {

std::vector<BodyGap> nearestThings(const Scene &scene, int owner, int loadCase, double reach_mm, std::size_t most) {
    if (!scene.world) return {};
    const auto &fastened = scene.owners[std::size_t(owner)].related;
    const int stack = scene.owners[std::size_t(owner)].stack; // its own column is looked at in Stack
    return scene.world->nearest(owner, reach_mm, most, [&](int body) {
        const BodyTraits &traits = scene.traits[std::size_t(body)];
        const BodyOwner &other = scene.owners[std::size_t(traits.owner)];
        if (stack >= 0 && other.stack == stack) return false;
        return other.kind != OwnerKind::disc && (other.cases >> loadCase & 1) && !traits.soft &&
               std::find(fastened.begin(), fastened.end(), traits.owner) == fastened.end();
    });
}

std::optional<BodyGap> gapBetween(const Scene &scene, const std::string &a, const std::string &b) {
    if (!scene.world) return std::nullopt;
    auto bodiesOf = [&](const std::string &id) {
        std::vector<int> bodies;
        for (std::size_t i = 0; i < scene.traits.size(); ++i) {
            const BodyOwner &owner = scene.owners[std::size_t(scene.traits[i].owner)];
            if (owner.kind != OwnerKind::disc && owner.id == id) bodies.push_back(int(i));
        }
        return bodies;
    };
    std::optional<BodyGap> best;
    const auto others = bodiesOf(b);
    for (const int i : bodiesOf(a))
        for (const int j : others) {
            const BodyGap gap = scene.world->measure(i, j);
            if (!best || gap.distance_mm < best->distance_mm) best = gap;
        }
    return best;
}

std::optional<int> firstCaseOf(const Scene &scene, const std::vector<LoadCase> &loadCases, int owner) {
    for (std::size_t c = 0; c < loadCases.size() && c < kMostLoadCases; ++c)
        if (!loadCases[c].folded && (scene.owners[std::size_t(owner)].cases >> c & 1)) return int(c);
    return std::nullopt;
}

} // namespace waxis
