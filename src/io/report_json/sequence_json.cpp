#include "io/report_json/sequence_json.h"

#include "io/json/write_model.h"

namespace waxis::io {

std::string stepsText(const Build &build, const AssemblyPlan &plan) {
    OrderedJson out{{"loadCase", plan.loadCase}, {"steps", OrderedJson::array()}};
    for (std::size_t i = 0; i < plan.steps.size(); ++i) {
        const Step &step = plan.steps[i];
        OrderedJson entry{{"id", step.id},
                          {"things", step.things},
                          {"onto", step.onto},
                          {"base", step.base},
                          {"asOne", step.asOne},
                          {"from", toJson(step.from)},
                          {"stuckBehind", step.stuckBehind}};
        entry["before"] = OrderedJson::array();
        for (const auto &before : plan.reasons)
            if (before.first == i)
                entry["before"].push_back({{"step", plan.steps[before.second].id},
                                           {"reason", before.reason == BeforeReason::rests ? "rests" : "in-the-way"},
                                           {"thing", before.thing},
                                           {"other", before.other}});
        entry["text"] = wordStep(build, step).text();
        out["steps"].push_back(std::move(entry));
    }
    return out.dump(1, ' ', false, OrderedJson::error_handler_t::replace) + "\n";
}

} // namespace waxis::io
