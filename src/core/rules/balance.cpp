// BAL: weight where it belongs.
#include "core/balance/case_balance.h"
#include "core/remedies/slide.h"
#include "core/remedies/weigh_advice.h"
#include "core/rules/name_list.h"
#include "core/rules/rule.h"
#include "core/survey/at_hand.h"
#include "core/survey/reach.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

/// Parts that may slide along the axis, the one that helps most first, moved so far that the CG comes to the
/// thrust centre or the slide ends: where its range does, or where a fresh look found it stopped.
std::vector<Fix> slidesToCentre(const Build &build, const Derived &derived, const CaseBalance &balance, int axis) {
    std::vector<Fix> fixes;
    for (const auto &part : build.parts) {
        if (!part.slide || part.pinned || !isAboard(part, balance.loadCase)) continue;
        const double mass = movedMass_g(derived.massRows, part.id);
        const double along = part.slide->direction[axis];
        if (!(mass > 0) || std::abs(along) < 0.9) continue;
        double least = std::min(part.slide->min_mm, 0.0), most = std::max(part.slide->max_mm, 0.0);
        if (const auto *slide = freshSlide(derived, part.id)) {
            least = std::max(least, slide->free_min_mm);
            most = std::min(most, slide->free_max_mm);
        }
        const double offset = (*balance.offset_mm)[axis], share = mass / balance.mass.mass_g;
        const double travel = std::clamp(-offset / share / along, least, most);
        if (std::abs(travel) >= 0.1)
            fixes.push_back({part.id, PartShift{part.slide->direction * travel}, offset + travel * along * share, {}});
    }
    std::sort(fixes.begin(), fixes.end(),
              [](const Fix &a, const Fix &b) { return std::abs(*a.leaves_mm) < std::abs(*b.leaves_mm); });
    return fixes;
}

Limit limitOf(const Practice &practice) {
    return practice.follows("balance", "by-size") ? Limit::cgShare : Limit::cgOffset;
}

/// Of the cases that hang to the same side the worst speaks, and names the others: it is one pack that sits wrong.
void gatherCases(std::vector<Finding> &findings, std::size_t first) {
    const auto begin = findings.begin() + std::ptrdiff_t(first);
    std::stable_sort(begin, findings.end(), [](const Finding &a, const Finding &b) { return a.margin < b.margin; });
    for (std::size_t i = first; i < findings.size(); ++i)
        for (std::size_t k = i + 1; k < findings.size();) {
            const Finding &other = findings[k];
            Finding &kept = findings[i];
            if (kept.severity != Severity::watch || other.severity != Severity::watch ||
                kept.variant != other.variant || (*kept.measured > 0) != (*other.measured > 0)) {
                ++k;
                continue;
            }
            kept.subjects.push_back(other.loadCase);
            findings.erase(findings.begin() + std::ptrdiff_t(k));
        }
}

} // namespace

static void judgeCgOffset(const Build &build, const Practice &practice, const Derived &derived,
                          std::vector<Finding> &out) {
    constexpr std::array<const char *, 2> kAxis{"fore-aft", "left-right"};
    const std::size_t first = out.size();
    if (build.parts.empty() && build.frame->motorMounts.empty()) return; // nothing there yet that could hang askew
    for (const auto &balance : derived.balance) {
        if (!balance.loadCase.flies()) continue; // it does not fly like that
        if (!balance.offset_mm) {
            Finding finding;
            finding.rule = RuleId::balOffset;
            finding.severity = Severity::unknown;
            finding.loadCase = balance.loadCase.id;
            finding.variant = build.frame->motorMounts.empty() ? "no-motors" : "no-mass";
            out.push_back(std::move(finding));
            continue;
        }
        for (int axis = 0; axis < 2; ++axis) {
            const double offset = (*balance.offset_mm)[axis];
            Finding finding;
            finding.rule = RuleId::balOffset;
            finding.loadCase = balance.loadCase.id;
            finding.variant = kAxis[axis];
            finding.measured = offset;
            finding.limit = derived.cgTolerance_mm;
            finding.practiceLimit = limitOf(practice);
            finding.unit = "mm";
            finding.margin = derived.cgTolerance_mm - std::abs(offset);
            finding.severity = finding.margin < 0 ? Severity::watch : Severity::pass;
            finding.from_mm = derived.thrustCentre_mm;
            finding.to_mm = *balance.mass.cg_mm;
            finding.inputs = {{"all-up weight", balance.mass.mass_g, "g"},
                              {"centre of gravity", (*balance.mass.cg_mm)[axis], "mm"},
                              {"thrust centre", derived.thrustCentre_mm[axis], "mm"},
                              {"doubt (2 sigma)", 2 * std::sqrt(balance.cgCovariance_mm2(axis, axis)), "mm"}};
            if (finding.severity == Severity::watch) finding.fixes = slidesToCentre(build, derived, balance, axis);
            out.push_back(std::move(finding));
        }
        // Within each axis and yet outside the ring: the corner of the square.
        const Vec2 plan = balance.offset_mm->head<2>();
        if (plan.norm() > derived.cgTolerance_mm && plan.cwiseAbs().maxCoeff() <= derived.cgTolerance_mm) {
            Finding finding;
            finding.rule = RuleId::balOffset;
            finding.severity = Severity::watch;
            finding.loadCase = balance.loadCase.id;
            finding.variant = "plan";
            finding.measured = plan.norm();
            finding.limit = derived.cgTolerance_mm;
            finding.practiceLimit = limitOf(practice);
            finding.unit = "mm";
            finding.margin = derived.cgTolerance_mm - plan.norm();
            finding.from_mm = derived.thrustCentre_mm;
            finding.to_mm = *balance.mass.cg_mm;
            finding.inputs = {{"forward", plan.x(), "mm"}, {"to the left", plan.y(), "mm"}};
            const int axis = std::abs(plan.x()) >= std::abs(plan.y()) ? 0 : 1;
            finding.fixes = slidesToCentre(build, derived, balance, axis);
            for (auto &fix : finding.fixes) fix.leaves_mm = std::hypot(*fix.leaves_mm, plan[1 - axis]);
            out.push_back(std::move(finding));
        }
    }
    gatherCases(out, first);
}

static FindingText wordCgOffset(const Build &build, const Finding &f) {
    // The other cases in which it is so are its subjects.
    const std::string loadCase = displayName(build, f.loadCase) +
                                 (f.subjects.empty() ? std::string() : ", less in " + listNames(build, f.subjects));
    if (f.variant == "no-motors")
        return {{"Balance not judged: the frame has no motors", {}}, {"Enter the motor mounts in Frame.", {}}};
    if (f.variant == "no-mass")
        return {{"Balance not judged: nothing has a weight yet", {}}, {"Enter the masses of the parts.", {}}};
    const bool foreAft = f.variant == "fore-aft";
    const char *side = foreAft ? (*f.measured > 0 ? "forward" : "aft") : (*f.measured > 0 ? "left" : "right");
    const std::string offset = oneDecimal(std::abs(*f.measured)), limit = oneDecimal(*f.limit);
    FindingText text;
    text.headline = f.variant == "plan" ? Sentence{"Centre of gravity is {0} mm from the thrust centre", {offset}}
                                        : Sentence{"Centre of gravity is {0} mm too far {1}", {offset, side}};
    if (f.fixes.empty())
        text.detail = {"{0}: {1} mm allowed.", {loadCase, limit}};
    else
        text.detail = {"{0}: {1} mm allowed; {2} {3} leaves {4} mm.",
                       {loadCase, limit, displayName(build, f.fixes.front().part),
                        shiftInWords(f.fixes.front().shift_mm()), oneDecimal(std::abs(*f.fixes.front().leaves_mm))}};
    return text;
}

static void judgeBalanceSure(const Build &build, const Practice &practice, const Derived &derived,
                             std::vector<Finding> &out) {
    (void)build;
    for (std::size_t i = 0; i < derived.balance.size(); ++i) {
        const CaseBalance &balance = derived.balance[i];
        if (!balance.offset_mm || !balance.insideChance || !balance.loadCase.flies() ||
            balance.offset_mm->head<2>().norm() > derived.cgTolerance_mm)
            continue; // what is outside by its own numbers is said already
        Finding finding;
        finding.rule = RuleId::balSure;
        finding.loadCase = balance.loadCase.id;
        finding.measured = 100 * *balance.insideChance;
        finding.limit = practice[Limit::balanceSure];
        finding.practiceLimit = Limit::balanceSure;
        finding.unit = "%";
        finding.margin = *finding.measured - *finding.limit;
        finding.severity = finding.margin < 0 ? Severity::note : Severity::pass;
        const WeighAdvice advice = weighAdvice(derived.massRows, derived.balance, i);
        if (!advice.next.empty()) finding.subjects = {advice.next.front().id};
        finding.inputs = {{"off the thrust centre", balance.offset_mm->head<2>().norm(), "mm"},
                          {"ring", derived.cgTolerance_mm, "mm"},
                          {"doubt fore-aft (1 sigma)", std::sqrt(balance.cgCovariance_mm2(0, 0)), "mm"},
                          {"doubt left-right (1 sigma)", std::sqrt(balance.cgCovariance_mm2(1, 1)), "mm"}};
        out.push_back(std::move(finding));
    }
}

static FindingText wordBalanceSure(const Build &build, const Finding &f) {
    const std::vector<std::string> words{displayName(build, f.loadCase), wholeNumber(*f.measured),
                                         wholeNumber(*f.limit),
                                         f.subjects.empty() ? "" : displayName(build, f.subjects.front())};
    return {{"Balance is within its ring with {1} % only", words},
            f.subjects.empty() ? Sentence{"{0}: {2} % wanted; say more surely where things sit.", words}
                               : Sentence{"{0}: {2} % wanted; weigh {3} next.", words}};
}

std::span<const Rule> balanceRules() {
    static const std::array<Rule, 2> rules{{
        {RuleId::balOffset,
         "Centre of gravity off the thrust centre",
         "Off centre, some motors work harder all the time: less headroom, less flight time, worse turns.",
         kTrade,
         Stage::balance,
         {Limit::cgOffset, Limit::cgShare},
         needs(Need::massRows, Need::balance, Need::survey),
         judgeCgOffset,
         wordCgOffset},
        {RuleId::balSure,
         "How sure the balance is",
         "Catalogue weights and taped places are off by some per cent; a balance that is right on paper only may not "
         "be right on the field.",
         "first-order propagation of doubts (JCGM 100), normal; the limit is common practice, no source",
         Stage::balance,
         {Limit::balanceSure, Limit::catalogueMassShare, Limit::estimatedMassShare, Limit::measuredMassTolerance},
         needs(Need::massRows, Need::balance),
         judgeBalanceSure,
         wordBalanceSure},
    }};
    return rules;
}

} // namespace waxis
