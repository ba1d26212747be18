#include "core/studies/packs.h"

#include "core/balance/case_balance.h"
#include "core/edits/balance_edits.h"
#include "core/power/power_report.h"

#include <algorithm>

namespace waxis {

namespace {

std::optional<int> cellsOf(const PartType &type) { return type.electrical ? type.electrical->cells : std::nullopt; }

/// What the part stands in: the first thing that it overlaps.
std::string meetsOf(const Analysis &analysis, const std::string &part) {
    for (const auto &finding : analysis.findings)
        if (finding.rule == RuleId::fitOverlap && !finding.accepted())
            for (std::size_t i = 0; i < finding.subjects.size(); ++i)
                if (finding.subjects[i] == part && finding.subjects.size() == 2) return finding.subjects[1 - i];
    return {};
}

} // namespace

std::vector<PackOption> comparePacks(const Build &build, const Practice &practice, const std::string &part,
                                     std::size_t loadCase, const TypeTable &library, const std::atomic<bool> *stop) {
    std::vector<PackOption> options;
    const Part *found = findPart(build, part);
    const PartType *now = found ? typeOf(build, *found) : nullptr;
    if (!now || now->kind != PartKind::battery) return options;
    TypeTable all = library;
    for (const auto &[id, type] : *build.types) all[id] = type; // the build's own word counts
    for (const auto &[id, type] : all) {
        if (stop && *stop) break;
        if (type.kind != PartKind::battery || cellsOf(type) != cellsOf(*now)) continue;
        const bool fitted = id == found->type;
        const EditResult with = fitted ? EditResult(build) : swapPack(build, part, type);
        if (!with) continue;
        Analyser analyser;
        const Analysis &analysis = analyser.update(*with, practice);
        const Derived &derived = analysis.derived;
        if (loadCase >= derived.balance.size()) continue;
        const CaseBalance &balance = derived.balance[loadCase];
        PackOption option;
        option.type = id;
        option.name = type.name;
        option.fitted = fitted;
        option.mass_g = type.mass_g.value;
        option.capacity_mAh = type.electrical ? type.electrical->capacity_mAh : std::nullopt;
        option.total_g = balance.mass.mass_g;
        if (balance.offset_mm) option.offset_mm = balance.offset_mm->head<2>();
        option.thrustToWeight = balance.thrustToWeight;
        if (const auto &hover = derived.power->hover[loadCase]; !hover.pack.empty()) {
            option.least_min = hover.least_min;
            option.most_min = hover.most_min;
        }
        option.meets = meetsOf(analysis, part);
        option.stop = analysis.counts.stop;
        option.watch = analysis.counts.watch;
        for (const auto &limit : build.weightLimits)
            option.overLimit |=
                (limit.loadCase.empty() || limit.loadCase == balance.loadCase.id) && balance.mass.mass_g > limit.most_g;
        const auto index = std::size_t(found - build.parts.data());
        const SlideRange range = slideOf(*found);
        option.slide = solveSlide(*with, derived.massRows, derived.balance[loadCase], index, range.direction,
                                  freeTravel(*with, derived.scene, index, range.direction, range.min_mm, range.max_mm));
        options.push_back(std::move(option));
    }
    std::stable_sort(options.begin(), options.end(),
                     [](const PackOption &a, const PackOption &b) { return a.total_g < b.total_g; });
    return options;
}

} // namespace waxis
