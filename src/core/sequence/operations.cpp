#include "core/sequence/operations.h"

#include "core/sequence/operation_book.h"

#include <cstdint>
#include <fmt/format.h>

namespace waxis {

namespace {

/// FNV-1a, 64 bit: short, and the same on every machine.
std::string fingerprint(const std::string &text) {
    std::uint64_t hash = 14695981039346656037ull;
    for (const unsigned char c : text) hash = (hash ^ c) * 1099511628211ull;
    return fmt::format("{:016x}", hash);
}

/// What it is, a point, and how it is done: where only the second changed nothing has to come off again.
void stamp(const Build &build, Operation &op) {
    std::string what = op.id, how;
    const auto typeName = [&](const std::string &id) {
        const Part *part = findPart(build, id);
        return part ? part->type : std::string();
    };
    for (const auto &id : op.things) what += " " + id + "=" + typeName(id);
    for (const auto &joint : op.joints) what += "|" + joint.wire + joint.part + "=" + typeName(joint.part) + joint.port;
    for (const auto &id : op.onto) how += ">" + id;
    how += fmt::format("{:.1f},{:.1f},{:.1f}", op.from.x() + 0.0, op.from.y() + 0.0, op.from.z() + 0.0);
    op.contents = fingerprint(what) + "." + fingerprint(how);
}

} // namespace

OperationGraph operationsOf(const Build &build, const Practice &practice, const Derived &derived, BlockingGraph &graph,
                            const PutTogether &together, int loadCase) {
    OperationBook book(build, practice, derived, graph, together, loadCase);
    addFits(book);
    addJoints(book);
    addLeads(book);
    addHeat(book);
    addLeadsAfterTheirParts(book);
    settleFlights(book);
    addTies(book);
    addHandwork(book);
    addGates(book);
    for (auto &op : book.operations) stamp(build, op); // what was built otherwise is told by it
    addWishes(book);
    for (auto &op : book.operations) stamp(build, op);
    OperationGraph all;
    all.order = book.keeper.edges();
    all.operations = std::move(book.operations);
    all.remarks = std::move(book.remarks);
    return all;
}

} // namespace waxis
