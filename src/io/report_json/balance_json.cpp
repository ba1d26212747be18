#include "io/report_json/balance_json.h"

#include "core/balance/case_balance.h"
#include "core/balance/reconcile.h"
#include "core/remedies/weigh_advice.h"
#include "io/names.h"
#include "io/report_json/or_null.h"

#include <algorithm>

namespace waxis::io {

namespace {

OrderedJson vectorOrNull(const std::optional<Vec3> &v) { return v ? toJson(*v) : OrderedJson(nullptr); }
OrderedJson vectorOrNull(const std::optional<Vec2> &v) { return v ? toJson(*v) : OrderedJson(nullptr); }

OrderedJson weighJson(const Derived &derived, std::size_t loadCase) {
    const WeighAdvice advice = weighAdvice(derived.massRows, derived.balance, loadCase);
    OrderedJson out{{"unweighed_g", advice.unweighed_g}, {"unweighedShareOfCgVariance", advice.unweighedShare}};
    out["cgSigma_mm"] = advice.sigma_mm;
    out["next"] = OrderedJson::array();
    for (const auto &next : advice.next)
        out["next"].push_back({{"id", next.id},
                               {"mass_g", next.mass_g},
                               {"tolerance_g", next.tolerance_g},
                               {"pieces", next.pieces},
                               {"shareOfCgVariance", next.share}});
    return out;
}

OrderedJson hoverJson(const Build &build, const HoverShare &hover) {
    OrderedJson out;
    const auto &mounts = build.frame->motorMounts;
    out["motors"] = OrderedJson::array();
    for (std::size_t i = 0; i < hover.thrusts_N.size(); ++i) {
        OrderedJson motor{{"mount", mounts[i].id}, {"thrust_N", hover.thrusts_N[i]}};
        motor["yawBalanced_N"] =
            hover.yawBalanced_N.empty() ? OrderedJson(nullptr) : OrderedJson(hover.yawBalanced_N[i]);
        motor["most_N"] = orNull(hover.most_N[i]);
        motor["headroom_N"] =
            hover.most_N[i] ? OrderedJson(*hover.most_N[i] - hover.thrusts_N[i]) : OrderedJson(nullptr);
        out["motors"].push_back(motor);
    }
    const auto mountOr = [&](int i) { return i < 0 ? OrderedJson(nullptr) : OrderedJson(mounts[std::size_t(i)].id); };
    out["mostLoaded"] = mountOr(hover.mostLoaded);
    out["mostOverMean"] = hover.mostOverMean;
    out["tightest"] = mountOr(hover.tightest);
    out["tightestShare"] = hover.tightest < 0 ? OrderedJson(nullptr) : OrderedJson(hover.tightestShare);
    out["aside_N"] = toJson(hover.aside_N);
    out["lean_deg"] = hover.lean_deg;
    out["torqueLeft"] = hover.yawLeft;
    out["yawServo"] = hover.yawServo;
    return out;
}

OrderedJson endJson(const TravelEnd &end) {
    return {{"travel_mm", end.travel_mm},
            {"stop", end.kind == StopKind::range  ? "range"
                     : end.kind == StopKind::body ? "body"
                                                  : "strap"},
            {"by", textOrNull(end.by)}};
}

OrderedJson slideJson(const SlideSolution &slide) {
    return {{"part", slide.part},
            {"direction", toJson(slide.direction)},
            {"stated", slide.stated},
            {"mass_g", slide.mass_g},
            {"free", {{"least", endJson(slide.free.least)}, {"most", endJson(slide.free.most)}}},
            {"wanted_mm", slide.wanted_mm},
            {"travel_mm", slide.travel_mm},
            {"before_mm", toJson(slide.before_mm)},
            {"after_mm", toJson(slide.after_mm)},
            {"perTen_mm", slide.perTen_mm}};
}

OrderedJson ballastJson(const std::optional<Ballast> &ballast) {
    if (!ballast) return nullptr;
    return {{"mass_g", ballast->mass_g},
            {"fromThrustCentre_mm", toJson(ballast->spot.at_mm)},
            {"on", textOrNull(ballast->spot.on)},
            {"after_mm", toJson(ballast->after_mm)}};
}

OrderedJson breakdownJson(const Breakdown &breakdown) {
    OrderedJson out;
    out["groups"] = OrderedJson::array();
    for (const auto &g : breakdown.groups)
        out["groups"].push_back({{"group", nameOf(g.group)},
                                 {"mass_g", g.mass_g},
                                 {"tolerance_g", g.tolerance_g},
                                 {"rows", g.rows},
                                 {"unknown", g.unknown}});
    out["moment_g_mm"] = toJson(breakdown.moment_gmm);
    out["rows"] = OrderedJson::array();
    for (const auto &r : breakdown.rows)
        out["rows"].push_back({{"id", r.id},
                               {"group", nameOf(r.group)},
                               {"mass_g", r.mass_g},
                               {"moment_g_mm", toJson(r.moment_gmm)},
                               {"inertia_g_mm2", toJson(r.inertia_gmm2)},
                               {"shareOfCgVariance", r.doubtShare}});
    return out;
}

OrderedJson caseStudyJson(const Build &build, const Derived &derived, const CaseStudy &study) {
    OrderedJson out{{"loadCase", derived.loadCases[study.loadCase].id}};
    out["whereTheGramsAre"] = breakdownJson(study.breakdown);
    const DrawnBalance &d = study.drawn;
    out["draws"] = {
        {"count", d.draws},   {"mean_mm", toJson(d.mean_mm)}, {"covariance_mm2", matrixJson(d.covariance_mm2)},
        {"mass_g", d.mass_g}, {"massSigma_g", d.sigmaMass_g}, {"insideRing", d.inside}};
    out["ellipse95"] = {{"semiMajor_mm", study.ellipse.semiMajor_mm},
                        {"semiMinor_mm", study.ellipse.semiMinor_mm},
                        {"turn_deg", study.ellipse.turn_deg}};
    out["slides"] = OrderedJson::array();
    for (const auto &s : study.slides) out["slides"].push_back(slideJson(s));
    out["otherMoves"] = OrderedJson::array();
    for (const auto &s : study.others) out["otherMoves"].push_back(slideJson(s));
    out["ballastIntoRing"] = ballastJson(study.toRing);
    out["ballastToCentre"] = ballastJson(study.toCentre);
    out["gramsToLose"] = OrderedJson::array();
    for (const auto &s : study.savings)
        out["gramsToLose"].push_back({{"kind", nameOf(s.kind)},
                                      {"subject", s.subject},
                                      {"saves_g", s.saves_g},
                                      {"pieces", s.pieces},
                                      {"canApply", s.canApply()},
                                      {"text", wordSaving(build, s).text()}});
    return out;
}

} // namespace

OrderedJson caseBalanceJson(const Build &build, const Derived &derived, std::size_t index) {
    const CaseBalance &balance = derived.balance[index];
    OrderedJson out;
    out["loadCase"] = balance.loadCase.id;
    out["name"] = balance.loadCase.name;
    out["mass_g"] = balance.mass.mass_g;
    out["massTolerance_g"] = balance.tolerance_g;
    out["unknownMasses"] = balance.notWeighed.size();
    out["notWeighed"] = balance.notWeighed;
    out["cg_mm"] = vectorOrNull(balance.mass.cg_mm);
    out["cgCovariance_mm2"] = matrixJson(balance.cgCovariance_mm2);
    out["cgOffset_mm"] = vectorOrNull(balance.offset_mm);
    out["cgFolded_mm"] = vectorOrNull(balance.foldedCg_mm);
    out["chanceInRing"] = orNull(balance.insideChance);
    out["inertia_g_mm2"] = matrixJson(balance.mass.inertia_gmm2);
    out["principalMoments_g_mm2"] = toJson(balance.principal.moments_gmm2);
    out["principalAxes"] = matrixJson(balance.principal.axes.transpose());
    out["thrustToWeight"] = orNull(balance.thrustToWeight);
    out["hoverThrust_N"] = balance.hover.thrusts_N;
    out["hover"] = hoverJson(build, balance.hover);
    out["weighing"] = weighJson(derived, index);
    return out;
}

OrderedJson balanceJson(const Build &build, const Analysis &analysis) {
    const Derived &derived = analysis.derived;
    const ReconcileReport &report = *derived.reconciled;
    OrderedJson out{{"ring_mm", derived.cgTolerance_mm}};
    out["weightLimits"] = OrderedJson::array();
    for (const auto &limit : build.weightLimits)
        for (const auto &balance : derived.balance) {
            if (balance.loadCase.folded || (!limit.loadCase.empty() && limit.loadCase != balance.loadCase.id)) continue;
            out["weightLimits"].push_back({{"id", limit.id},
                                           {"name", limit.name},
                                           {"loadCase", balance.loadCase.id},
                                           {"most_g", limit.most_g},
                                           {"left_g", limit.most_g - balance.mass.mass_g}});
        }
    out["weighings"] = OrderedJson::array();
    for (const auto &w : report.weighings)
        out["weighings"].push_back({{"id", w.id},
                                    {"loadCase", derived.loadCases[w.loadCase].id},
                                    {"problem", textOrNull(w.problem)},
                                    {"measured_g", orNull(w.measured_g)},
                                    {"predicted_g", orNull(w.predicted_g)},
                                    {"differenceSigma_g", orNull(w.sigma_g)},
                                    {"measured_mm", vectorOrNull(w.measured_mm)},
                                    {"predicted_mm", vectorOrNull(w.predicted_mm)},
                                    {"besideLines_mm", w.beside_mm}});
    OrderedJson reconciled{{"conditions", report.conditions},
                           {"chiSquared", report.chiSquared},
                           {"chance", report.chance},
                           {"contradicts", report.contradicts()},
                           {"decided", report.decided}};
    reconciled["masses"] = OrderedJson::array();
    for (const auto &m : report.masses)
        reconciled["masses"].push_back({{"id", m.id},
                                        {"known", m.known},
                                        {"entered_g", m.entered_g},
                                        {"sigma_g", m.sigma_g},
                                        {"likely_g", m.likely_g},
                                        {"likelySigma_g", m.likelySigma_g}});
    reconciled["suspects"] = OrderedJson::array();
    for (const auto &s : report.suspects)
        reconciled["suspects"].push_back({{"id", s.id},
                                          {"entered_g", s.entered_g},
                                          {"wouldBe_g", s.wouldBe_g},
                                          {"explains", s.explains},
                                          {"sigmas", s.sigmas}});
    out["reconciled"] = reconciled;
    return out;
}

OrderedJson studyJson(const Build &build, const Derived &derived, const BalanceStudy &study) {
    OrderedJson out;
    out["cases"] = OrderedJson::array();
    for (const auto &c : study.cases) out["cases"].push_back(caseStudyJson(build, derived, c));
    out["compromises"] = OrderedJson::array();
    for (const auto &c : study.compromises) {
        OrderedJson entry{{"part", c.part}, {"travel_mm", c.travel_mm}, {"cases", OrderedJson::array()}};
        for (const auto &k : c.cases)
            entry["cases"].push_back({{"loadCase", derived.loadCases[k.loadCase].id},
                                      {"before_mm", toJson(k.before_mm)},
                                      {"after_mm", toJson(k.after_mm)}});
        out["compromises"].push_back(entry);
    }
    return out;
}

OrderedJson propellerJson(const PropellerOption &option) {
    OrderedJson out{{"type", option.type}, {"name", option.name}, {"fitted", option.fitted}};
    out["mass_g"] = orNull(option.mass_g);
    out["diameter_mm"] = orNull(option.diameter_mm);
    out["pitch_mm"] = orNull(option.pitch_mm);
    out["blades"] = option.blades ? OrderedJson(*option.blades) : OrderedJson(nullptr);
    out["total_g"] = option.total_g;
    out["tipGap_mm"] = orNull(option.tipGap_mm);
    out["power_W"] = orNull(option.power_W);
    out["least_min"] = orNull(option.least_min);
    out["most_min"] = orNull(option.most_min);
    out["turnsLeast_Hz"] = option.turns ? OrderedJson(option.turns->least_Hz) : OrderedJson(nullptr);
    out["turnsMost_Hz"] = option.turns ? OrderedJson(option.turns->most_Hz) : OrderedJson(nullptr);
    out["stop"] = option.stop;
    out["watch"] = option.watch;
    out["overLimit"] = option.overLimit;
    return out;
}

OrderedJson packJson(const PackOption &option) {
    OrderedJson out{{"type", option.type}, {"name", option.name}, {"fitted", option.fitted}};
    out["mass_g"] = orNull(option.mass_g);
    out["capacity_mAh"] = orNull(option.capacity_mAh);
    out["total_g"] = option.total_g;
    out["offset_mm"] = toJson(option.offset_mm);
    out["slide"] = option.slide ? slideJson(*option.slide) : OrderedJson(nullptr);
    out["thrustToWeight"] = orNull(option.thrustToWeight);
    out["least_min"] = orNull(option.least_min);
    out["most_min"] = orNull(option.most_min);
    out["meets"] = textOrNull(option.meets);
    out["stop"] = option.stop;
    out["watch"] = option.watch;
    out["overLimit"] = option.overLimit;
    return out;
}

} // namespace waxis::io
