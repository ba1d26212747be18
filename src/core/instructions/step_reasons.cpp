#include "core/base/by_id.h"
#include "core/instructions/step_names.h"
#include "core/instructions/step_words.h"
#include "core/rules/name_list.h"
#include "core/rules/wording.h"

#include <algorithm>
#include <map>

namespace waxis {

namespace {

/// What everybody knows: a part is there before it is joined, and all of it before it is checked and flies.
bool goesWithoutSaying(const Step &step) {
    return step.kind == OperationKind::tie || step.gate == Gate::end || step.gate == Gate::flight;
}

} // namespace

std::vector<Sentence> wordWhyHere(const Build &build, const AssemblyPlan &plan, std::size_t step) {
    std::map<BeforeReason, std::vector<std::string>> later, sooner;
    for (const auto &before : plan.reasons) {
        auto add = [](std::vector<std::string> &list, std::string name) {
            if (std::find(list.begin(), list.end(), name) == list.end()) list.push_back(std::move(name));
        };
        if (before.first == step && !goesWithoutSaying(plan.steps[before.second]))
            add(later[before.reason], stepName(build, plan, before.second, before.other));
        if (before.second == step) add(sooner[before.reason], stepName(build, plan, before.first, before.thing));
    }
    std::vector<Sentence> lines;
    auto say = [&](const std::map<BeforeReason, std::vector<std::string>> &from, BeforeReason reason,
                   const char *pattern) {
        if (const auto at = from.find(reason); at != from.end()) lines.push_back({pattern, {listWords(at->second)}});
    };
    say(later, BeforeReason::inTheWay, "before {0}, which would stand in its way");
    say(later, BeforeReason::tool, "before {0}, where driver, iron or fingers go");
    say(later, BeforeReason::heat, "before {0}, which heat harms");
    say(later, BeforeReason::process, "before {0}");
    say(sooner, BeforeReason::process, "after {0}");
    say(sooner, BeforeReason::heat, "after {0}, whose heat would harm it");
    say(later, BeforeReason::own, "before {0}, as you want it");
    return lines;
}

Sentence wordWhyNotBefore(const Build &build, const AssemblyPlan &plan, std::size_t step, std::size_t before) {
    // The shortest chain of reasons that leads from the other to the step.
    std::vector<int> from(plan.steps.size(), -1);
    std::vector<std::size_t> open{before};
    for (std::size_t k = 0; k < open.size() && from[step] < 0; ++k)
        for (std::size_t r = 0; r < plan.reasons.size(); ++r) {
            const auto &reason = plan.reasons[r];
            if (reason.first != open[k] || from[reason.second] >= 0 || reason.second == before) continue;
            from[reason.second] = int(r);
            open.push_back(reason.second);
        }
    if (from[step] < 0) return {"", {}};
    std::size_t at = step;
    while (plan.reasons[std::size_t(from[at])].first != before) at = plan.reasons[std::size_t(from[at])].first;
    const StepBefore &first = plan.reasons[std::size_t(from[at])];
    const std::vector<std::string> words{stepName(build, plan, before, first.thing),
                                         stepName(build, plan, at, first.other)};
    switch (first.reason) {
    case BeforeReason::rests:
        if (byId(build.frame->screws, first.other)) return {"{1} go through {0}", words};
        return {"{1} rests on {0}", words};
    case BeforeReason::inTheWay: return {"{1} would stand in the way of {0}", words};
    case BeforeReason::tool: return {"{1} would stand where driver, iron or fingers go for {0}", words};
    case BeforeReason::joint: return {"{1} is joined to {0}", words};
    case BeforeReason::heat: return {"the heat of {0} would harm {1}", words};
    case BeforeReason::process: return {"{0} is done before {1}", words};
    case BeforeReason::own: return {"you want {0} before {1}", words};
    }
    return {"", {}};
}

} // namespace waxis
