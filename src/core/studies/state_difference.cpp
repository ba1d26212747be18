#include "core/studies/state_difference.h"

#include "core/analysis/analysis.h"
#include "core/balance/case_balance.h"
#include "core/base/by_id.h"
#include "core/base/units.h"
#include "core/power/power_report.h"

#include <algorithm>
#include <map>
#include <set>

namespace waxis {

namespace {

constexpr double kMoved_mm = 0.05, kTurned_deg = 0.1;

template <class Thing>
void compareLists(const std::vector<Thing> &before, const std::vector<Thing> &after, std::vector<std::string> &gone,
                  std::vector<std::string> &came) {
    for (const auto &one : before)
        if (!byId(after, one.id)) gone.push_back(one.id);
    for (const auto &one : after)
        if (!byId(before, one.id)) came.push_back(one.id);
}

template <class Thing>
int otherMembers(const std::vector<Thing> &before, const std::vector<Thing> &after) {
    int other = 0;
    for (const auto &one : before) {
        const Thing *now = byId(after, one.id);
        other += !now || !(*now == one);
    }
    for (const auto &one : after) other += byId(before, one.id) == nullptr;
    return other;
}

std::optional<double> seconds(const Analysis &analysis, std::size_t i) {
    const auto &hover = analysis.derived.power->hover;
    if (i >= hover.size() || hover[i].pack.empty() || !(hover[i].most_min > 0)) return std::nullopt;
    return 60 * (hover[i].least_min + hover[i].most_min) / 2;
}

void compareCases(const Analysis &before, const Analysis &after, std::vector<CaseDifference> &out) {
    const auto &was = *before.derived.balance, &is = *after.derived.balance;
    for (std::size_t i = 0; i < was.size(); ++i)
        for (std::size_t k = 0; k < is.size(); ++k) {
            if (was[i].loadCase.id != is[k].loadCase.id) continue;
            CaseDifference one;
            one.loadCase = was[i].loadCase.id;
            one.before_g = was[i].mass.mass_g;
            one.after_g = is[k].mass.mass_g;
            one.before_mm = was[i].offset_mm;
            one.after_mm = is[k].offset_mm;
            one.before_s = seconds(before, i);
            one.after_s = seconds(after, k);
            out.push_back(std::move(one));
        }
}

void compareFindings(const Analysis &before, const Analysis &after, StateDifference &out) {
    const auto open = [](const Analysis &analysis) {
        std::map<std::string, const Finding *> found;
        for (const auto &f : analysis.findings)
            if (!f.accepted()) found.emplace(f.key(), &f);
        return found;
    };
    const auto was = open(before), is = open(after);
    for (const auto &[key, finding] : was)
        if (!is.contains(key)) out.findingsGone.push_back(*finding);
    for (const auto &[key, finding] : is)
        if (!was.contains(key)) out.findingsCame.push_back(*finding);
    const auto worst = [](const Finding &a, const Finding &b) { return a.severity < b.severity; };
    std::stable_sort(out.findingsGone.begin(), out.findingsGone.end(), worst);
    std::stable_sort(out.findingsCame.begin(), out.findingsCame.end(), worst);
}

} // namespace

bool StateDifference::isSame() const {
    const bool sameCases = std::all_of(cases.begin(), cases.end(), [](const CaseDifference &one) {
        return one.before_g == one.after_g && one.before_mm == one.after_mm && one.before_s == one.after_s;
    });
    return gone.empty() && came.empty() && otherType.empty() && moved.empty() && wiresGone.empty() &&
           wiresCame.empty() && wiresOther.empty() && limits.empty() && frame == 0 && sameCases &&
           findingsGone.empty() && findingsCame.empty();
}

StateDifference differenceBetween(const Build &before, const Build &after) {
    StateDifference out;
    compareLists(before.parts, after.parts, out.gone, out.came);
    for (const auto &part : before.parts) {
        const Part *now = findPart(after, part.id);
        if (!now) continue;
        const PartType *was = typeOf(before, part), *is = typeOf(after, *now);
        if (part.type != now->type || (was && is && !(*was == *is))) out.otherType.push_back(part.id);
        const Pose from = framePose(before, part), to = framePose(after, *now);
        PartMove move{part.id, to.position_mm - from.position_mm,
                      degreesFromRadians(from.rotation.angularDistance(to.rotation))};
        if (move.by_mm.norm() > kMoved_mm || move.turned_deg > kTurned_deg) out.moved.push_back(std::move(move));
    }
    std::stable_sort(out.moved.begin(), out.moved.end(),
                     [](const PartMove &a, const PartMove &b) { return a.by_mm.norm() > b.by_mm.norm(); });
    compareLists(before.wires, after.wires, out.wiresGone, out.wiresCame);
    for (const auto &wire : before.wires) {
        const Wire *now = findWire(after, wire.id);
        if (now && !(*now == wire)) out.wiresOther.push_back(wire.id);
    }
    out.frame = otherMembers(before.frame->motorMounts, after.frame->motorMounts) +
                otherMembers(before.frame->arms, after.frame->arms) +
                otherMembers(before.frame->plates, after.frame->plates) +
                otherMembers(before.frame->standoffs, after.frame->standoffs) +
                otherMembers(before.frame->screws, after.frame->screws);
    const Practice was = practiceOf(before.practice), is = practiceOf(after.practice);
    for (const auto &definition : limitTable())
        if (was[definition.limit] != is[definition.limit]) out.limits.emplace_back(definition.id);
    Analyser first, second;
    const Analysis &a = first.update(before), &b = second.update(after);
    compareCases(a, b, out.cases);
    compareFindings(a, b, out);
    return out;
}

} // namespace waxis
