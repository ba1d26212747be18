#include "core/sequence/schedule.h"

#include <tuple>

namespace waxis {

std::vector<std::size_t> schedule(const OperationGraph &graph, const Preferences &preferences) {
    const auto &operations = graph.operations;
    std::vector<int> waiting(operations.size(), 0);
    std::vector<std::vector<std::size_t>> after(operations.size());
    for (const auto &order : graph.order) {
        ++waiting[order.second];
        after[order.first].push_back(order.second);
    }
    int side = 1;
    const Operation *last = nullptr;
    auto rankOf = [&](const Operation &op) {
        const bool arms = op.place == "arms";
        return op.base || op.place == "frame" ? 0 : arms == preferences.armsFirst ? 1 : 2;
    };
    auto costOf = [&](std::size_t index) {
        const Operation &op = operations[index];
        const bool go = last != nullptr;
        return std::tuple{op.kind != OperationKind::takeDown, // what is wrong is undone before more is built on it
                          !preferences.ticked.contains(op.id),
                          op.kind != OperationKind::own,
                          op.kind == OperationKind::check, // all that may be done before is
                          op.atTheEnd,
                          op.side != 0 && op.side != side,
                          !(go && op.place == last->place),
                          !(go && op.sort == last->sort && !op.sort.empty()),
                          op.kind == OperationKind::fit, // what is there is joined before more covers it
                          op.kind == OperationKind::lock,
                          !(go && op.tool == last->tool),
                          rankOf(op),
                          -op.inwards_mm, // farther joints before the nearer ones get in the iron's way
                          index};
    };
    std::vector<std::size_t> order, open;
    for (std::size_t i = 0; i < operations.size(); ++i)
        if (waiting[i] == 0) open.push_back(i);
    while (!open.empty()) {
        std::size_t best = 0;
        for (std::size_t k = 1; k < open.size(); ++k)
            if (costOf(open[k]) < costOf(open[best])) best = k;
        const std::size_t next = open[best];
        open.erase(open.begin() + std::ptrdiff_t(best));
        order.push_back(next);
        last = &operations[next];
        if (last->side != 0) side = last->side;
        for (const std::size_t freed : after[next])
            if (--waiting[freed] == 0) open.push_back(freed);
    }
    return order;
}

} // namespace waxis
