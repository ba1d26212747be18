#include "app/stages/build/step_sight.h"

#include <string_view>

namespace waxis::assembly {

StepSight sightOf(const Build &build, const AssemblyPlan &plan, std::size_t step) {
    StepSight sight;
    std::set<std::string> fitted, led; // so far
    const bool takesDown = plan.steps[step].kind == OperationKind::takeDown;
    for (std::size_t i = 0; i < plan.steps.size(); ++i) {
        const Step &at = plan.steps[i];
        // Taken down is what was built, wherever it stands in the order.
        if (takesDown ? i != step && stateOf(build, at) == StepState::open : i > step) continue;
        if (at.kind == OperationKind::fit || i == step) fitted.insert(at.things.begin(), at.things.end());
        // A lead that is only cut lies on the bench.
        for (const auto &joint : at.joints)
            if (i == step || at.kind == OperationKind::lead || !joint.part.empty()) led.insert(joint.wire);
    }
    for (const auto &at : plan.steps)
        for (const auto &id : at.things)
            if (!fitted.contains(id)) sight.hidden.insert(id);
    // What is not aboard is not built.
    for (const auto &part : build.parts)
        if (!fitted.contains(part.id)) sight.hidden.insert(part.id);
    for (const auto &wire : build.wires)
        if (!led.contains(wire.id)) sight.hidden.insert(wire.id);
    const Step &now = plan.steps[step];
    sight.fresh.insert(now.things.begin(), now.things.end());
    for (const auto &joint : now.joints) sight.fresh.insert(joint.wire);
    constexpr std::string_view kFit = "fit:";
    for (const auto &id : now.off) sight.fresh.insert(id.starts_with(kFit) ? id.substr(kFit.size()) : id);
    return sight;
}

} // namespace waxis::assembly
