// What the bench has beside the plan: what was built otherwise and comes off first, steps and orders of the builder's
// own.
#include "core/sequence/operation_book.h"
#include "core/sequence/service_depth.h"

#include <algorithm>

namespace waxis {

namespace {

constexpr double kTakeDownMinutes = 2; // common practice, no source

bool isJoint(const std::string &step) {
    return step.starts_with("solder:") || step.starts_with("plug:") || step.starts_with("snap:");
}

/// Of an operation's contents what it is, without how it is done.
std::string whatOf(const std::string &contents) { return contents.substr(0, contents.find('.')); }

/// A tick whose operation is another one now, or is none of the plan's any more: that is to be undone first. What is
/// only not aboard in this load case stays.
void takeDown(OperationBook &book) {
    const auto isTicked = [&](const std::string &step) {
        return std::any_of(book.build.stepsDone.begin(), book.build.stepsDone.end(),
                           [&](const StepTick &tick) { return tick.step == step; });
    };
    std::vector<StepTick> ticks = book.build.stepsDone;
    std::stable_partition(ticks.begin(), ticks.end(), [](const StepTick &tick) { return isJoint(tick.step); });
    for (const auto &tick : ticks) {
        const bool fits = tick.step.starts_with("fit:");
        // Ticks of older versions do not say what was done apart from how.
        if ((!fits && !isJoint(tick.step)) || tick.contents.find('.') == std::string::npos) continue;
        const std::string what = tick.step.substr(tick.step.find(':') + 1);
        const auto now = book.find(tick.step);
        if (now && whatOf(book.operations[*now].contents) == whatOf(tick.contents)) continue;
        if (!now && fits && findPart(book.build, what)) continue;
        Operation op;
        op.id = "off:" + tick.step;
        op.kind = OperationKind::takeDown;
        op.tool = tick.step.starts_with("solder:") ? Tool::iron : Tool::hand;
        op.minutes = kTakeDownMinutes;
        op.sort = "off";
        op.place = "bench";
        op.off = {tick.step};
        // What stands over it and was built already comes off with it.
        if (fits && now)
            if (const auto way = serviceOf(book.build, book.graph, what))
                for (const auto &off : way->off)
                    for (const auto &id : off.things)
                        if (id != what && isTicked("fit:" + id)) op.off.push_back("fit:" + id);
        const std::size_t at = book.add(std::move(op));
        if (now) book.before(at, *now, BeforeReason::process, what, what);
    }
}

void ownSteps(OperationBook &book) {
    for (const auto &own : book.build.ownSteps) {
        Operation op;
        op.id = own.id;
        op.kind = OperationKind::own;
        op.minutes = 1;
        book.add(std::move(op));
    }
    for (const auto &own : book.build.ownSteps)
        if (const auto after = book.find(own.after))
            book.before(*after, *book.find(own.id), BeforeReason::own, book.subjectOf(*after), own.id);
}

/// Against a reason only with a note, and then that reason alone gives way.
void ownOrder(OperationBook &book) {
    for (const auto &wish : book.build.ownOrder) {
        const auto first = book.find(wish.step), second = book.find(wish.before);
        if (!first || !second) continue;
        const std::string thing = book.subjectOf(*first), other = book.subjectOf(*second);
        if (book.before(*first, *second, BeforeReason::own, thing, other) || wish.note.empty()) continue;
        if (!book.keeper.isDirect(*second, *first)) continue;
        book.keeper.drop(*second, *first);
        if (book.before(*first, *second, BeforeReason::own, thing, other))
            book.remark(RemarkKind::byHand, {thing, other}, 0, wish.note);
    }
}

} // namespace

void addWishes(OperationBook &book) {
    takeDown(book);
    ownSteps(book);
    ownOrder(book);
}

} // namespace waxis
