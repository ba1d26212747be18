#include "core/sequence/order_keeper.h"

#include <algorithm>

namespace waxis {

bool OrderKeeper::add(const OperationOrder &order) {
    const bool ahead = order.first < order.second;
    if (order.first == order.second || (!(forward_ && ahead) && isBefore(order.second, order.first))) return false;
    forward_ &= ahead;
    const auto [at, isNew] = edges_.try_emplace({order.first, order.second}, order);
    if (!isNew && order.reason < at->second.reason) at->second = order;
    after_[order.first].insert(order.second);
    return true;
}

bool OrderKeeper::isBefore(std::size_t first, std::size_t second) const {
    std::vector<bool> seen(after_.size(), false);
    std::vector<std::size_t> open{first};
    while (!open.empty()) {
        const std::size_t at = open.back();
        open.pop_back();
        for (const std::size_t next : after_[at]) {
            if (next == second) return true;
            if (!seen[next]) {
                seen[next] = true;
                open.push_back(next);
            }
        }
    }
    return false;
}

std::vector<bool> OrderKeeper::allAfter(std::size_t first) const {
    std::vector<bool> seen(after_.size(), false);
    std::vector<std::size_t> open{first};
    while (!open.empty()) {
        const std::size_t at = open.back();
        open.pop_back();
        for (const std::size_t next : after_[at])
            if (!seen[next]) {
                seen[next] = true;
                open.push_back(next);
            }
    }
    return seen;
}

void OrderKeeper::drop(std::size_t first, std::size_t second) {
    edges_.erase({first, second});
    after_[first].erase(second);
}

std::vector<OperationOrder> OrderKeeper::edges() const {
    // All that comes after each, from the last ones backwards.
    std::vector<std::vector<bool>> reach(after_.size());
    std::vector<std::size_t> open;
    for (std::size_t start = 0; start < after_.size(); ++start) {
        open.push_back(start);
        while (!open.empty()) {
            const std::size_t at = open.back();
            if (!reach[at].empty()) {
                open.pop_back();
                continue;
            }
            bool ready = true;
            for (const std::size_t next : after_[at])
                if (reach[next].empty()) {
                    open.push_back(next);
                    ready = false;
                }
            if (!ready) continue;
            open.pop_back();
            reach[at].assign(after_.size(), false);
            for (const std::size_t next : after_[at]) {
                reach[at][next] = true;
                for (std::size_t k = 0; k < after_.size(); ++k)
                    if (reach[next][k]) reach[at][k] = true;
            }
        }
    }
    // An edge follows from others where its second is reached from another one of its first's.
    std::vector<OperationOrder> kept;
    for (const auto &[ends, order] : edges_) {
        const auto &beside = after_[ends.first];
        const bool follows = std::any_of(beside.begin(), beside.end(), [&, last = ends.second](std::size_t between) {
            return between != last && reach[between][last];
        });
        if (!follows) kept.push_back(order);
    }
    return kept;
}

} // namespace waxis
