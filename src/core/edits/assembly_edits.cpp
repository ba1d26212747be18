#include "core/edits/assembly_edits.h"

#include "core/base/by_id.h"

#include <algorithm>

namespace waxis {

namespace {

EditResult refuse(std::string why) { return Failure{EditError{std::move(why)}}; }

bool blank(const std::string &text) { return text.find_first_not_of(" \t\n") == std::string::npos; }

} // namespace

EditResult tickSteps(const Build &build, const std::vector<StepTick> &ticks) {
    Build next = build;
    for (const auto &tick : ticks) {
        if (tick.step.empty()) return refuse("There is no such step.");
        std::erase_if(next.stepsDone, [&](const StepTick &old) { return old.step == tick.step; });
        next.stepsDone.push_back(tick);
    }
    return next;
}

EditResult untickSteps(const Build &build, const std::vector<std::string> &steps) {
    Build next = build;
    const auto gone = std::erase_if(next.stepsDone, [&](const StepTick &tick) {
        return std::find(steps.begin(), steps.end(), tick.step) != steps.end();
    });
    if (gone == 0) return refuse("That step is not ticked.");
    return next;
}

EditResult untickAll(const Build &build) {
    if (build.stepsDone.empty()) return refuse("No step is ticked.");
    Build next = build;
    next.stepsDone.clear();
    return next;
}

EditResult addOwnStep(const Build &build, const std::string &text, const std::string &after) {
    if (blank(text)) return refuse("Say what is to be done.");
    Build next = build;
    next.ownSteps.push_back({freshId(build, "own"), text, after});
    return next;
}

EditResult changeOwnStep(const Build &build, const std::string &id, const std::string &text) {
    if (blank(text)) return refuse("Say what is to be done.");
    Build next = build;
    OwnStep *step = byId(next.ownSteps, id);
    if (!step) return refuse("There is no such step of your own.");
    step->text = text;
    return next;
}

EditResult removeOwnStep(const Build &build, const std::string &id) {
    Build next = build;
    if (std::erase_if(next.ownSteps, [&](const OwnStep &step) { return step.id == id; }) == 0)
        return refuse("There is no such step of your own.");
    std::erase_if(next.stepsDone, [&](const StepTick &tick) { return tick.step == id; });
    std::erase_if(next.ownOrder, [&](const OwnOrder &order) { return order.step == id || order.before == id; });
    for (auto &step : next.ownSteps)
        if (step.after == id) step.after.clear();
    return next;
}

EditResult wantOrder(const Build &build, const std::vector<OwnOrder> &wishes) {
    Build next = build;
    for (const auto &wish : wishes) {
        if (wish.step.empty() || wish.before.empty() || wish.step == wish.before)
            return refuse("Two steps are wanted.");
        std::erase_if(next.ownOrder, [&](const OwnOrder &old) {
            return (old.step == wish.step && old.before == wish.before) ||
                   (old.step == wish.before && old.before == wish.step);
        });
        next.ownOrder.push_back(wish);
    }
    return next;
}

EditResult dropOwnOrder(const Build &build) {
    if (build.ownOrder.empty()) return refuse("The order is the plan's.");
    Build next = build;
    next.ownOrder.clear();
    return next;
}

EditResult recordCheck(const Build &build, const std::string &check, const std::string &found, std::optional<bool> good,
                       const std::string &at) {
    if (check.empty()) return refuse("There is no such check.");
    Build next = build;
    std::erase_if(next.checkResults, [&](const CheckResult &result) { return result.check == check; });
    if (!blank(found) || good) next.checkResults.push_back({check, found, good, at});
    return next;
}

} // namespace waxis
