#include "app/stages/build/step_sight.h"

namespace waxis::assembly {

StepSight sightOf(const Build &build, const AssemblyPlan &plan, std::size_t step) {
    StepSight sight;
    std::set<std::string> fitted, led; // so far
    for (std::size_t i = 0; i <= step && i < plan.steps.size(); ++i) {
        const Step &at = plan.steps[i];
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
    return sight;
}

} // namespace waxis::assembly
