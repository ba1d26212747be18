#include "io/report_json/sequence_json.h"

#include "core/instructions/check_words.h"
#include "core/instructions/step_words.h"

namespace waxis::io {

namespace {

const char *kindName(OperationKind kind) {
    switch (kind) {
    case OperationKind::prepare: return "prepare";
    case OperationKind::fit: return "fit";
    case OperationKind::solder: return "solder";
    case OperationKind::plug: return "plug";
    case OperationKind::snap: return "snap";
    case OperationKind::tie: return "tie";
    case OperationKind::check: return "check";
    case OperationKind::own: return "own";
    case OperationKind::takeDown: return "take-down";
    case OperationKind::slip: return "slip";
    case OperationKind::splice: return "splice";
    case OperationKind::trim: return "trim";
    case OperationKind::dryFit: return "dry-fit";
    case OperationKind::balance: return "balance";
    case OperationKind::measure: return "measure";
    case OperationKind::loop: return "loop";
    case OperationKind::lead: return "lead";
    case OperationKind::insulate: return "insulate";
    case OperationKind::lock: return "lock";
    case OperationKind::change: return "change";
    }
    return "";
}

const char *reasonName(BeforeReason reason) {
    switch (reason) {
    case BeforeReason::rests: return "rests";
    case BeforeReason::inTheWay: return "in-the-way";
    case BeforeReason::tool: return "tool";
    case BeforeReason::joint: return "joint";
    case BeforeReason::heat: return "heat";
    case BeforeReason::process: return "process";
    case BeforeReason::own: return "own";
    }
    return "";
}

const char *remarkName(RemarkKind kind) {
    switch (kind) {
    case RemarkKind::stuck: return "stuck";
    case RemarkKind::undriven: return "undriven";
    case RemarkKind::covered: return "covered";
    case RemarkKind::hole: return "hole";
    case RemarkKind::heat: return "heat";
    case RemarkKind::service: return "service";
    case RemarkKind::dryFit: return "dry-fit";
    case RemarkKind::byHand: return "by-hand";
    }
    return "";
}

const char *gateName(Gate gate) {
    return gate == Gate::train    ? "train"
           : gate == Gate::rails  ? "rails"
           : gate == Gate::end    ? "end"
           : gate == Gate::flight ? "flight"
                                  : "";
}

OrderedJson jointsJson(const std::vector<JointEnd> &joints) {
    OrderedJson out = OrderedJson::array();
    for (const auto &joint : joints) out.push_back({{"wire", joint.wire}, {"part", joint.part}, {"port", joint.port}});
    return out;
}

OrderedJson stepJson(const Build &build, const Derived &derived, const AssemblyPlan &plan, std::size_t i) {
    const Step &step = plan.steps[i];
    OrderedJson entry{{"id", step.id},
                      {"kind", kindName(step.kind)},
                      {"gate", gateName(step.gate)},
                      {"tool", toolWord(step.tool)},
                      {"side", step.side},
                      {"place", step.place},
                      {"minutes", step.minutes},
                      {"things", step.things},
                      {"onto", step.onto},
                      {"off", step.off},
                      {"beside", step.beside},
                      {"loadCase", step.loadCase},
                      {"joints", jointsJson(step.joints)},
                      {"base", step.base},
                      {"asOne", step.asOne},
                      {"inHand", step.inHand},
                      {"loose", step.loose},
                      {"from", toJson(step.from)},
                      {"stuckBehind", step.stuckBehind},
                      {"undriven", step.undriven}};
    entry["takes"] = OrderedJson::array();
    for (const auto &line : wordTakes(build, derived, step)) entry["takes"].push_back(line.text());
    entry["before"] = OrderedJson::array();
    for (const auto &before : plan.reasons)
        if (before.first == i)
            entry["before"].push_back({{"step", plan.steps[before.second].id},
                                       {"reason", reasonName(before.reason)},
                                       {"thing", before.thing},
                                       {"other", before.other}});
    const StepState state = stateOf(build, step);
    entry["state"] = state == StepState::done     ? "done"
                     : state == StepState::partly ? "partly"
                     : state == StepState::again  ? "again"
                                                  : "open";
    entry["text"] = wordStep(build, step).text();
    return entry;
}

} // namespace

OrderedJson planJson(const Build &build, const Derived &derived, const AssemblyPlan &plan) {
    OrderedJson out{{"loadCase", plan.loadCase}, {"minutes", plan.minutes}, {"turns", plan.turns}};
    out["steps"] = OrderedJson::array();
    for (std::size_t i = 0; i < plan.steps.size(); ++i) out["steps"].push_back(stepJson(build, derived, plan, i));
    out["remarks"] = OrderedJson::array();
    for (const auto &remark : plan.remarks)
        out["remarks"].push_back(
            {{"kind", remarkName(remark.kind)}, {"subjects", remark.subjects}, {"value", remark.value}});
    return out;
}

OrderedJson checksJson(const Build &build, const std::vector<Check> &checks) {
    OrderedJson out = OrderedJson::array();
    for (const auto &check : checks) {
        const CheckText text = wordCheck(build, check);
        const CheckResult *result = resultOf(build, check);
        const CheckVerdict verdict = verdictOf(check, result);
        OrderedJson entry{{"id", check.id},
                          {"gate", gateName(check.gate)},
                          {"subjects", check.subjects},
                          {"loadCase", check.loadCase},
                          {"low", check.low ? OrderedJson(*check.low) : OrderedJson()},
                          {"high", check.high ? OrderedJson(*check.high) : OrderedJson()},
                          {"unit", check.unit},
                          {"title", text.title.text()},
                          {"how", text.how.text()},
                          {"expected", text.expected.text()},
                          {"found", result ? result->found : std::string()},
                          {"verdict", verdict == CheckVerdict::good     ? "good"
                                      : verdict == CheckVerdict::bad    ? "bad"
                                      : verdict == CheckVerdict::unread ? "unread"
                                                                        : "open"}};
        out.push_back(std::move(entry));
    }
    return out;
}

OrderedJson serviceJson(const ServiceWay &way) {
    OrderedJson out{{"part", way.part}, {"depth", way.depth}, {"off", OrderedJson::array()}};
    for (const auto &off : way.off)
        out["off"].push_back({{"things", off.things},
                              {"fastener", off.fastener},
                              {"way", toJson(off.way)},
                              {"undo", jointsJson(off.undo)}});
    return out;
}

std::string documentText(const OrderedJson &json) {
    return json.dump(1, ' ', false, OrderedJson::error_handler_t::replace) + "\n";
}

} // namespace waxis::io
