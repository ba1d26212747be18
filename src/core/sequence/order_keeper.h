// Edges of an order that has no circle.
#pragma once

#include "core/sequence/operation.h"

#include <map>
#include <set>
#include <vector>

namespace waxis {

class OrderKeeper {
public:
    explicit OrderKeeper(std::size_t count) : after_(count) {}
    std::size_t add() {
        after_.emplace_back();
        return after_.size() - 1;
    }
    /// False, and nothing is added, where the second comes before the first already. Of one pair the plainest reason
    /// stays.
    bool add(const OperationOrder &order);
    /// Whether one comes before the other, over whatever lies between.
    bool isBefore(std::size_t first, std::size_t second) const;
    /// By operation: whether it comes after the first, over whatever lies between.
    std::vector<bool> allAfter(std::size_t first) const;
    bool isDirect(std::size_t first, std::size_t second) const { return edges_.contains({first, second}); }
    /// Takes a direct edge out.
    void drop(std::size_t first, std::size_t second);
    /// By their ends. Edges that follow from others are left out: what rests on what aside, dropping any one of those
    /// that stay would allow another order.
    std::vector<OperationOrder> edges() const;

private:
    std::vector<std::set<std::size_t>> after_; ///< by the first
    bool forward_ = true;                      ///< every edge leads to a higher number: no circle then
    std::map<std::pair<std::size_t, std::size_t>, OperationOrder> edges_;
};

} // namespace waxis
