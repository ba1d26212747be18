#include "core/sequence/sweep_memory.h"

#include <algorithm>
#include <functional>

namespace waxis {

int SweepMemory::stateOf(const std::string &thing, std::vector<Body> bodies, const std::string &extra) {
    auto [at, isNew] = things_.try_emplace(thing);
    Kept &kept = at->second;
    const bool same =
        !isNew && kept.extra == extra &&
        std::equal(kept.bodies.begin(), kept.bodies.end(), bodies.begin(), bodies.end(),
                   [](const Body &a, const Body &b) { return a.shape == b.shape && a.X_FrameBody == b.X_FrameBody; });
    if (same) return kept.state;
    kept.bodies = std::move(bodies);
    kept.extra = extra;
    return kept.state = next_++;
}

void SweepMemory::trim() {
    constexpr std::size_t kMost = 400000; // some 40 MB
    if (known_.size() > kMost) known_.clear();
}

std::size_t SweepMemory::Hash::operator()(const Question &question) const {
    std::size_t hash = std::hash<int>()(question.mover) * 31 + std::hash<int>()(question.other);
    for (const double value : question.how)
        hash ^= std::hash<double>()(value) + 0x9e3779b97f4a7c15ull + (hash << 6) + (hash >> 2);
    return hash;
}

} // namespace waxis
