#include "core/sequence/plan.h"

#include "core/rules/name_list.h"
#include "core/rules/wording.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace waxis {

namespace {

/// Of what kind a thing is, as far as like things go into one step.
std::string sortOf(const Build &build, const Scene &scene, const Thing &thing) {
    const Part *part = findPart(build, thing.id);
    return part ? "type " + part->type : fmt::format("member {}", int(scene.owners[std::size_t(thing.owner)].kind));
}

bool goesOn(const Build &build, const Scene &scene, const std::vector<Thing> &things, const std::vector<int> &run,
            const PutIn &last, const PutIn &next) {
    constexpr double kSame = 0.999;
    if (last.first || next.first || last.things.size() > 1 || next.things.size() > 1 || !last.stuckBehind.empty() ||
        !next.stuckBehind.empty() || last.from.dot(next.from) < kSame)
        return false;
    const Thing &thing = things[std::size_t(next.things.front())];
    return sortOf(build, scene, things[std::size_t(last.things.front())]) == sortOf(build, scene, thing) &&
           std::none_of(run.begin(), run.end(), [&](int before) {
               return std::find(thing.restsOn.begin(), thing.restsOn.end(), before) != thing.restsOn.end();
           });
}

std::string_view wayWord(const Vec3 &from) {
    constexpr double kPlain = 0.9;
    if (from.z() > kPlain) return "from above";
    if (from.z() < -kPlain) return "from below";
    if (from.x() > kPlain) return "from ahead";
    if (from.x() < -kPlain) return "from behind";
    if (from.y() > kPlain) return "from the left";
    if (from.y() < -kPlain) return "from the right";
    return from.z() >= 0 ? "slanting from above" : "slanting from below";
}

} // namespace

AssemblyPlan planAssembly(const Build &build, const Scene &scene, const std::vector<LoadCase> &loadCases,
                          int loadCase) {
    AssemblyPlan plan;
    plan.loadCase = loadCases[std::size_t(loadCase)].id;
    if (!scene.world) return plan;
    BlockingGraph graph(build, scene, loadCase);
    const PutTogether together = putTogether(graph);
    const auto &things = graph.things();
    std::vector<std::size_t> stepOf(things.size(), 0);
    std::vector<int> run;
    for (std::size_t i = 0; i < together.order.size(); ++i) {
        const PutIn &put = together.order[i];
        if (i == 0 || !goesOn(build, scene, things, run, together.order[i - 1], put)) {
            run.clear();
            Step step;
            step.id = "fit:" + things[std::size_t(put.things.front())].id;
            step.from = put.from;
            step.base = put.first;
            step.asOne = put.things.size() > 1;
            for (const int other : put.stuckBehind) step.stuckBehind.push_back(things[std::size_t(other)].id);
            plan.steps.push_back(std::move(step));
        }
        Step &step = plan.steps.back();
        for (const int thing : put.things) {
            run.push_back(thing);
            stepOf[std::size_t(thing)] = plan.steps.size() - 1;
            step.things.push_back(things[std::size_t(thing)].id);
        }
        for (const int below : things[std::size_t(put.things.front())].restsOn)
            if (const auto &id = things[std::size_t(below)].id;
                std::find(step.onto.begin(), step.onto.end(), id) == step.onto.end())
                step.onto.push_back(id);
    }
    std::map<std::pair<std::size_t, std::size_t>, StepBefore> reasons;
    for (const auto &before : together.edges) {
        const std::size_t first = stepOf[std::size_t(before.first)], second = stepOf[std::size_t(before.second)];
        if (first == second) continue;
        const auto [at, isNew] = reasons.try_emplace(
            {first, second}, StepBefore{first, second, before.reason, things[std::size_t(before.first)].id,
                                        things[std::size_t(before.second)].id});
        if (!isNew && before.reason < at->second.reason) at->second.reason = before.reason;
    }
    for (const auto &[pair, reason] : reasons) plan.reasons.push_back(reason);
    return plan;
}

Sentence wordStep(const Build &build, const Step &step) {
    constexpr std::size_t kNamed = 2;
    const Part *part = findPart(build, step.things.front());
    const PartType *type = part ? typeOf(build, *part) : nullptr;
    std::string what = listNamesFirst(build, step.things);
    if (!step.asOne && step.things.size() > kNamed && type)
        what = fmt::format("{} x {}", step.things.size(), type->name);
    if (step.base) return {"Begin with {0}", {listNames(build, step.things)}};
    const std::vector<std::string> words{what, listNames(build, step.onto), std::string(wayWord(step.from)),
                                         listNames(build, step.stuckBehind)};
    if (!step.stuckBehind.empty()) return {"{0} does not go in: {3} in the way", words};
    if (step.asOne)
        return step.onto.empty() ? Sentence{"{0}, put together in the hand, {2}", words}
                                 : Sentence{"{0}, put together in the hand, onto {1}, {2}", words};
    return step.onto.empty() ? Sentence{"{0}, {2}", words} : Sentence{"{0} onto {1}, {2}", words};
}

Sentence wordWhyHere(const Build &build, const AssemblyPlan &plan, std::size_t step) {
    std::vector<std::string> later;
    for (const auto &before : plan.reasons)
        if (before.first == step && before.reason == BeforeReason::inTheWay) later.push_back(before.other);
    if (later.empty()) return {"", {}};
    return {later.size() == 1 ? "before {0}, which would stand in its way"
                              : "before {0}, which would stand in its way each",
            {listNames(build, later)}};
}

} // namespace waxis
