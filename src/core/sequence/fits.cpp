// Things as they go in: geometry has said in which order.
#include "core/build/chain.h"
#include "core/kit/holding.h"
#include "core/sequence/operation_book.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

namespace {

// Common practice, no source.
constexpr double kFitMinutes = 0.5, kScrewMinutes = 0.4, kStickMinutes = 0.5, kTieMinutes = 0.4;

bool isMount(const Build &build, const std::string &site) {
    const auto &mounts = build.frame->motorMounts;
    return std::any_of(mounts.begin(), mounts.end(), [&](const MotorMount &mount) { return mount.id == site; });
}

std::string placeOf(const OperationBook &book, int thing) {
    const Build &build = book.build;
    const auto &things = book.graph.things();
    if (const Part *part = findPart(build, book.idOf(thing)))
        if (const auto place = stackPlaceOf(build, *part)) return place->stack->id;
    for (const auto &stack : build.stacks)
        if (std::find(stack.screws.begin(), stack.screws.end(), book.idOf(thing)) != stack.screws.end())
            return stack.id;
    std::vector<int> open{thing};
    for (std::size_t k = 0; k < open.size(); ++k) {
        const Thing &at = things[std::size_t(open[k])];
        const OwnerKind kind = book.derived.scene.owners[std::size_t(at.owner)].kind;
        if (k > 0 && kind == OwnerKind::arm) return "arms";
        if (k > 0 && kind == OwnerKind::plate) return at.id;
        for (const int below : at.restsOn)
            if (std::find(open.begin(), open.end(), below) == open.end()) open.push_back(below);
    }
    // Propellers rest on a site, not on a thing: the motor mount's.
    const Part *part = findPart(build, book.idOf(thing));
    return part && isMount(build, part->placement.site) ? "arms" : "frame";
}

void addTool(const OperationBook &book, Operation &op, int thing) {
    const Thing &it = book.graph.things()[std::size_t(thing)];
    const Part *part = findPart(book.build, it.id);
    if (it.turned) {
        op.tool = Tool::driver;
        op.minutes += kScrewMinutes;
        return;
    }
    op.minutes += it.fastener ? kScrewMinutes / 2 : kFitMinutes;
    if (!part) return;
    const Holding holding = holdingOf(book.build, *part, book.practice);
    int pieces = 0;
    for (const auto &hardware : holding.pieces) pieces += hardware.pieces;
    switch (holding.method) {
    case FasteningMethod::screws:
        if (pieces > 0) op.tool = Tool::driver;
        op.minutes += pieces * kScrewMinutes;
        break;
    case FasteningMethod::tape:
    case FasteningMethod::hookAndLoop:
    case FasteningMethod::glue:
        op.tool = Tool::tape;
        op.minutes += kStickMinutes;
        break;
    case FasteningMethod::ties:
        op.tool = Tool::ties;
        op.minutes += pieces * kTieMinutes;
        break;
    case FasteningMethod::none:
    case FasteningMethod::strap:
    case FasteningMethod::stack:
    case FasteningMethod::pressed:
    case FasteningMethod::soldered: break;
    }
}

void sayWhatIsWrong(OperationBook &book, const Operation &op) {
    auto say = [&](RemarkKind kind, const std::vector<std::string> &who) {
        std::vector<std::string> subjects{op.things.front()};
        subjects.insert(subjects.end(), who.begin(), who.end());
        book.remark(kind, std::move(subjects));
    };
    if (!op.stuckBehind.empty()) say(RemarkKind::stuck, op.stuckBehind);
    if (!op.undriven.empty()) say(RemarkKind::undriven, op.undriven);
    if (op.things.size() < 2 && op.stuckBehind.empty()) return;
    for (const auto &id : op.things)
        if (const Part *part = findPart(book.build, id); part && (part->fastening.method == FasteningMethod::glue ||
                                                                  part->fastening.method == FasteningMethod::tape))
            book.remark(RemarkKind::dryFit, {id});
}

} // namespace

void addFits(OperationBook &book) {
    const auto &things = book.graph.things();
    for (const auto &put : book.together.order) {
        Operation op;
        const int head = put.things.front();
        const Part *part = findPart(book.build, book.idOf(head));
        op.id = "fit:" + book.idOf(head);
        op.from = put.from;
        op.base = put.first;
        op.side = put.first ? 1 : sideFor(put.from);
        op.place = placeOf(book, head);
        op.atTheEnd = things[std::size_t(head)].atTheEnd;
        op.sort = fmt::format("fit {} {}", part ? part->type : std::string(),
                              int(book.derived.scene.owners[std::size_t(things[std::size_t(head)].owner)].kind));
        for (const int thing : put.things) {
            book.opOf[std::size_t(thing)] = book.operations.size();
            op.things.push_back(book.idOf(thing));
            addTool(book, op, thing);
        }
        if (op.things.size() > 1) op.sort += op.id; // an assembly is a step of its own
        for (const int below : things[std::size_t(head)].restsOn) op.onto.push_back(book.idOf(below));
        for (const int other : put.stuckBehind) op.stuckBehind.push_back(book.idOf(other));
        for (const int other : put.undriven) op.undriven.push_back(book.idOf(other));
        sayWhatIsWrong(book, op);
        book.add(std::move(op));
    }
    for (const auto &edge : book.together.edges)
        book.before(book.opOf[std::size_t(edge.first)], book.opOf[std::size_t(edge.second)], edge.reason,
                    book.idOf(edge.first), book.idOf(edge.second));
}

} // namespace waxis
