#include "core/instructions/step_names.h"

#include "core/base/by_id.h"
#include "core/instructions/step_words.h"
#include "core/rules/name_list.h"
#include "core/rules/wording.h"

#include <algorithm>

namespace waxis {

std::vector<std::string> wiresOf(const Step &step) {
    std::vector<std::string> wires;
    for (const auto &joint : step.joints)
        if (std::find(wires.begin(), wires.end(), joint.wire) == wires.end()) wires.push_back(joint.wire);
    return wires;
}

std::vector<std::string> partsOf(const Step &step) {
    std::vector<std::string> parts;
    for (const auto &joint : step.joints)
        if (std::find(parts.begin(), parts.end(), joint.part) == parts.end()) parts.push_back(joint.part);
    return parts;
}

std::string stepName(const Build &build, const AssemblyPlan &plan, std::size_t step, const std::string &thing) {
    const Step &s = plan.steps[step];
    const std::string parts = listNames(build, partsOf(s));
    switch (s.kind) {
    case OperationKind::prepare: return "cutting the leads";
    case OperationKind::fit:
        // Of the frame's screws and posts nobody knows the names.
        if (byId(build.frame->screws, thing))
            return "the screws of " + (s.onto.empty() ? nameWithin(build, thing) : nameWithin(build, s.onto.front()));
        return thing.empty() ? listNames(build, s.things) : nameWithin(build, thing);
    case OperationKind::solder: return "the joints at " + parts;
    case OperationKind::plug: return "the plugs at " + parts;
    case OperationKind::snap: return "the antenna plugs at " + parts;
    case OperationKind::tie: return "tying the wires";
    case OperationKind::check:
        return s.gate == Gate::train   ? "the first power"
               : s.gate == Gate::rails ? "measuring what " + listNames(build, s.onto) + " gives"
               : s.gate == Gate::end   ? "the checks"
                                       : "the first flight";
    case OperationKind::own: return wordStep(build, s).text();
    case OperationKind::takeDown: return "taking down";
    case OperationKind::slip: return "slipping on";
    case OperationKind::splice: return "splicing";
    case OperationKind::trim: return "cutting " + listNames(build, s.things);
    case OperationKind::dryFit: return "the dry fit of " + listNames(build, s.things);
    case OperationKind::balance: return "finding the balance";
    case OperationKind::measure: return "measuring the gap";
    case OperationKind::loop: return "the strap's loop";
    case OperationKind::lead: return "leading " + listNames(build, wiresOf(s));
    case OperationKind::insulate: return "covering what is bare";
    case OperationKind::lock: return "tightening the screws of " + listNames(build, s.onto);
    case OperationKind::change: return "the change of load case";
    }
    return s.id;
}

std::string operationName(const Build &build, const std::string &operation) {
    const auto colon = operation.find(':');
    const std::string kind = operation.substr(0, colon);
    const std::string what = colon == std::string::npos ? operation : operation.substr(colon + 1);
    if (kind == "fit") return nameWithin(build, what);
    // "esc.battery", "wire.esc.battery"
    const auto dot = what.find('.');
    if (kind == "solder") return "the joints at " + nameWithin(build, what.substr(0, dot));
    return "the plug of " + nameWithin(build, what.substr(0, dot));
}

} // namespace waxis
