#include "core/studies/propellers.h"

#include "core/balance/case_balance.h"
#include "core/build/on_mount.h"
#include "core/edits/balance_edits.h"
#include "core/layout/frame_report.h"
#include "core/power/power_report.h"

#include <algorithm>

namespace waxis {

namespace {

/// Goes on the shafts of the build's motors, as far as both are stated.
bool fitsShafts(const Build &build, const PartType &propeller) {
    for (const auto &part : build.parts) {
        const PartType *motor = typeOf(build, part);
        if (!motor || motor->kind != PartKind::motor || !mountOf(build, part.placement.site)) continue;
        if (motor->shaft_mm && propeller.bore_mm && hubFit(*propeller.bore_mm, *motor->shaft_mm) != HubFit::fits)
            return false;
    }
    return true;
}

} // namespace

std::vector<PropellerOption> comparePropellers(const Build &build, const Practice &practice, std::size_t loadCase,
                                               const TypeTable &library, const std::atomic<bool> *stop) {
    std::vector<PropellerOption> options;
    double widest = 0;
    for (const auto &mount : build.frame->motorMounts)
        if (const PartType *type = typeOn(build, mount.id, PartKind::propeller))
            widest = std::max(widest, type->propDiameter_mm.value_or(mount.propDiameter_mm));
    if (!(widest > 0)) return options;
    TypeTable all = library;
    for (const auto &[id, type] : *build.types) all[id] = type; // the build's own word counts
    for (const auto &[id, type] : all) {
        if (stop && *stop) break;
        if (type.kind != PartKind::propeller || type.turns || !type.propDiameter_mm) continue;
        if (*type.propDiameter_mm < widest / 2 || *type.propDiameter_mm > widest * 2 || !fitsShafts(build, type))
            continue;
        const EditResult with = swapPropellers(build, type);
        if (!with) continue;
        Analyser analyser;
        const Analysis &analysis = analyser.update(*with, practice);
        const Derived &derived = analysis.derived;
        if (loadCase >= derived.balance.size()) continue;
        const CaseBalance &balance = derived.balance[loadCase];
        PropellerOption option;
        option.type = id;
        option.name = type.name;
        option.fitted = std::all_of(build.parts.begin(), build.parts.end(), [&](const Part &part) {
            const PartType *own = typeOf(build, part);
            return !own || own->kind != PartKind::propeller || !mountOf(build, part.placement.site) || part.type == id;
        });
        option.mass_g = type.mass_g.value;
        option.diameter_mm = type.propDiameter_mm;
        option.pitch_mm = type.propPitch_mm;
        option.blades = type.propBlades;
        option.total_g = balance.mass.mass_g;
        for (const auto &motor : frameReport(*with->frame).motors)
            if (motor.tipGap_mm && (!option.tipGap_mm || *motor.tipGap_mm < *option.tipGap_mm))
                option.tipGap_mm = motor.tipGap_mm;
        if (const auto &hover = derived.power->hover[loadCase]; !hover.pack.empty()) {
            option.power_W = hover.power_W;
            option.least_min = hover.least_min;
            option.most_min = hover.most_min;
        }
        if (const auto rotor = rotorTurns(*with, analysis, loadCase)) option.turns = rotor->turns;
        option.stop = analysis.counts.stop;
        option.watch = analysis.counts.watch;
        for (const auto &limit : build.weightLimits)
            option.overLimit |=
                (limit.loadCase.empty() || limit.loadCase == balance.loadCase.id) && balance.mass.mass_g > limit.most_g;
        options.push_back(std::move(option));
    }
    std::stable_sort(options.begin(), options.end(), [](const PropellerOption &a, const PropellerOption &b) {
        return a.diameter_mm.value_or(0) < b.diameter_mm.value_or(0);
    });
    return options;
}

} // namespace waxis
