#include "core/sequence/operation_book.h"

#include <algorithm>

namespace waxis {

OperationBook::OperationBook(const Build &of, const Practice &by, const Derived &with, BlockingGraph &things,
                             const PutTogether &order, int in)
    : build(of), practice(by), derived(with), graph(things), together(order), loadCase(in),
      flights(flightsOf(of, *with.loadCases, in)), keeper(0), opOf(things.things().size(), 0) {}

std::size_t OperationBook::add(Operation op) {
    operations.push_back(std::move(op));
    return keeper.add();
}

bool OperationBook::before(std::size_t first, std::size_t second, BeforeReason reason, const std::string &thing,
                           const std::string &other) {
    return keeper.add({first, second, reason, thing, other});
}

void OperationBook::remark(RemarkKind kind, std::vector<std::string> subjects, double value, std::string note) {
    PlanRemark said;
    said.kind = kind;
    said.subjects = std::move(subjects);
    said.value = value;
    said.note = std::move(note);
    remarks.push_back(std::move(said));
}

std::optional<std::size_t> OperationBook::find(const std::string &operation) const {
    for (std::size_t i = 0; i < operations.size(); ++i)
        if (operations[i].id == operation) return i;
    return std::nullopt;
}

std::optional<std::size_t> OperationBook::fitOf(const std::string &thing) const {
    const int at = graph.find(thing);
    return at < 0 ? std::nullopt : std::optional(opOf[std::size_t(at)]);
}

const PartType *OperationBook::typeOfPart(const std::string &part) const {
    const Part *found = findPart(build, part);
    return found ? typeOf(build, *found) : nullptr;
}

bool OperationBook::isKind(const std::string &part, PartKind kind) const {
    const PartType *type = typeOfPart(part);
    return type && type->kind == kind;
}

bool OperationBook::comesAfterAFlight(const std::string &part) const {
    const Part *found = findPart(build, part);
    return found && flights.onTheWay.size() > 1 &&
           !isAboard(*found, (*derived.loadCases)[std::size_t(flights.onTheWay.front())]);
}

void OperationBook::beforeWhatCovers(std::size_t operation, const std::string &thing,
                                     const std::vector<int> &blockers) {
    for (const int blocker : blockers)
        before(operation, opOf[std::size_t(blocker)], BeforeReason::tool, thing, idOf(blocker));
}

std::string OperationBook::subjectOf(std::size_t operation) const {
    const Operation &op = operations[operation];
    if (!op.things.empty()) return op.things.front();
    return op.joints.empty() || op.joints.front().part.empty() ? op.id : op.joints.front().part;
}

bool isStuckDown(FasteningMethod method) {
    return method == FasteningMethod::tape || method == FasteningMethod::hookAndLoop || method == FasteningMethod::glue;
}

int sideFor(const Vec3 &from) {
    constexpr double kUpright = 0.5;
    return from.z() > kUpright ? 1 : from.z() < -kUpright ? -1 : 0;
}

} // namespace waxis
