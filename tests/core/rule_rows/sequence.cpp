// Rows for the order of building: what the plan remarks.
#include "core/rule_rows/setting.h"
#include "core/sequence/plan.h"
#include "core/survey/survey.h"

namespace waxis::test {

namespace {

/// A plan of one step with this remark; none: a quiet one.
void plan(Setting &s, std::vector<PlanRemark> remarks) {
    AssemblyPlan plan;
    plan.loadCase = "day";
    plan.steps.resize(1);
    plan.remarks = std::move(remarks);
    s.survey.plan = std::make_shared<const AssemblyPlan>(std::move(plan));
}

PlanRemark remark(RemarkKind kind, double value = 0, std::string note = {}) {
    return {kind, {"a", "b"}, value, std::move(note)};
}

} // namespace

std::vector<Row> sequenceRows() {
    using enum Severity;
    using enum RuleId;
    const double clear = limitOf(Limit::solderClear), depth = limitOf(Limit::serviceDepth);
    std::vector<Row> rows{
        {"SEQ-1 shut in", seqStuck, [](Setting &s) { plan(s, {remark(RemarkKind::stuck)}); }, stop, -1,
         "a cannot be put in: b in the way"},
        {"SEQ-2 no room for the driver", seqDriver, [](Setting &s) { plan(s, {remark(RemarkKind::undriven)}); }, stop,
         -1, "No driver reaches a"},
        {"SEQ-3 plugged in the hand", seqCovered,
         [](Setting &s) {
             s.wire("x", "y").id = "b";
             plan(s, {remark(RemarkKind::covered), remark(RemarkKind::covered)}); // said once
         },
         note, -1, "Plugged in the hand, before its part goes in"},
        {"SEQ-4 plug larger than its hole", seqHole, [](Setting &s) { plan(s, {remark(RemarkKind::hole)}); }, watch, -1,
         "a: its plug does not pass b"},
        {"SEQ-5 soldered beside what is stuck", seqHeat,
         [=](Setting &s) { plan(s, {remark(RemarkKind::heat, clear - 1)}); }, watch, -1, "is soldered 29 mm from b"},
        {"SEQ-6 one more than is allowed", seqService,
         [=](Setting &s) { plan(s, {remark(RemarkKind::service, depth + 1)}); }, watch, -1,
         "To change a, b have to come off first"},
        {"SEQ-6 the deepest speaks for all", seqService,
         [=](Setting &s) {
             plan(s, {remark(RemarkKind::service, depth + 1), remark(RemarkKind::service, depth + 3)});
         },
         watch, -3, "have to come off first"},
        {"SEQ-7 stuck down untried", seqDryFit, [](Setting &s) { plan(s, {remark(RemarkKind::dryFit)}); }, note, -1,
         "a is stuck down where it cannot be tried before"},
        {"SEQ-8 against a reason", seqByHand,
         [](Setting &s) {
             s.build.ownOrder = {{"fit:a", "fit:b", "it slides in"}};
             plan(s, {remark(RemarkKind::byHand, 0, "it slides in")});
         },
         note, -1, "a before b, against a reason"},
    };
    for (const RuleId rule : {seqStuck, seqDriver, seqCovered, seqHole, seqHeat, seqService, seqDryFit, seqByHand}) {
        rows.push_back({"SEQ nothing is remarked", rule, [](Setting &s) { plan(s, {}); }, pass, 0});
        rows.push_back({"SEQ nobody has looked", rule, [](Setting &) {}, {}});
    }
    return rows;
}

} // namespace waxis::test
