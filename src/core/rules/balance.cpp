// BAL: weight where it belongs.
#include "core/rules/families.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

const MassRow *rowOf(const Derived &derived, const std::string &id) {
    const auto at =
        std::find_if(derived.massRows.begin(), derived.massRows.end(), [&](const MassRow &r) { return r.id == id; });
    return at == derived.massRows.end() ? nullptr : &*at;
}

/// Parts that may slide along the axis, the one that helps most first, moved so far that the CG comes to the
/// thrust centre or the slide ends. A part's shift s moves the CG by s * m / M.
std::vector<Fix> slidesToCentre(const Build &build, const Derived &derived, const CaseBalance &balance, int axis) {
    std::vector<Fix> fixes;
    for (const auto &part : build.parts) {
        if (!part.slide || part.pinned || !isAboard(part, balance.loadCase)) continue;
        const MassRow *row = rowOf(derived, part.id);
        const double along = part.slide->direction[axis];
        if (!row || !(row->element.mass_g > 0) || std::abs(along) < 0.9) continue;
        const double wanted = -(*balance.offset_mm)[axis] * balance.mass.mass_g / row->element.mass_g / along;
        const double travel = std::clamp(wanted, part.slide->min_mm, part.slide->max_mm);
        if (std::abs(travel) >= 0.1) {
            const double after =
                (*balance.offset_mm)[axis] + travel * along * row->element.mass_g / balance.mass.mass_g;
            fixes.push_back({part.id, part.slide->direction * travel, {}, after});
        }
    }
    std::sort(fixes.begin(), fixes.end(),
              [](const Fix &a, const Fix &b) { return std::abs(*a.leaves_mm) < std::abs(*b.leaves_mm); });
    return fixes;
}

} // namespace

void judgeCgOffset(const Build &build, const Practice &practice, const Derived &derived, std::vector<Finding> &out) {
    constexpr std::array<const char *, 2> kAxis{"fore-aft", "left-right"};
    if (build.parts.empty() && build.frame->motorMounts.empty()) return; // nothing there yet that could hang askew
    for (const auto &balance : derived.balance) {
        if (balance.loadCase.folded) continue; // it does not fly like that
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
            finding.limit = practice[Limit::cgOffset];
            finding.practiceLimit = Limit::cgOffset;
            finding.unit = "mm";
            finding.margin = practice[Limit::cgOffset] - std::abs(offset);
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
    }
}

FindingText wordCgOffset(const Build &build, const Finding &f) {
    const std::string loadCase = displayName(build, f.loadCase);
    if (f.variant == "no-motors")
        return {{"Balance not judged: the frame has no motors", {}}, {"Enter the motor mounts in Frame.", {}}};
    if (f.variant == "no-mass")
        return {{"Balance not judged: nothing has a weight yet", {}}, {"Enter the masses of the parts.", {}}};
    const bool foreAft = f.variant == "fore-aft";
    const char *side = foreAft ? (*f.measured > 0 ? "forward" : "aft") : (*f.measured > 0 ? "left" : "right");
    const std::string offset = oneDecimal(std::abs(*f.measured)), limit = oneDecimal(*f.limit);
    FindingText text;
    text.headline = {"Centre of gravity is {0} mm too far {1}", {offset, side}};
    if (f.fixes.empty())
        text.detail = {"{0}: {1} mm allowed.", {loadCase, limit}};
    else
        text.detail = {"{0}: {1} mm allowed; {2} {3} leaves {4} mm.",
                       {loadCase, limit, displayName(build, f.fixes.front().part),
                        shiftInWords(f.fixes.front().shift_mm), oneDecimal(std::abs(*f.fixes.front().leaves_mm))}};
    return text;
}

} // namespace waxis
