#include "core/studies/balance_study.h"

#include "core/balance/case_balance.h"
#include "core/balance/mass_rows.h"
#include "core/build/chain.h"
#include "core/edits/balance_edits.h"

#include <algorithm>
#include <set>

namespace waxis {

namespace {

constexpr double kHome_mm = 0.1; ///< near enough to the centre to count as there

double left(const SlideSolution &s) { return s.after_mm.norm(); }

void byWhatIsLeft(std::vector<SlideSolution> &list) {
    std::stable_sort(list.begin(), list.end(),
                     [](const SlideSolution &a, const SlideSolution &b) { return left(a) < left(b); });
}

/// What a person could put elsewhere along the craft: neither motors and what belongs to them, nor what lies in a
/// stack, nor fasteners, and no weight that makes no difference.
bool canBeMoved(const Build &build, const Part &part, double share) {
    const PartType *type = typeOf(build, part);
    constexpr double kMatters = 0.003;
    if (!type || part.pinned || part.slide || share < kMatters || stackPlaceOf(build, part)) return false;
    switch (type->kind) {
    case PartKind::motor:
    case PartKind::propeller:
    case PartKind::fastener:
    case PartKind::damper:
    case PartKind::pad:
    case PartKind::strap:
    case PartKind::tube:
    case PartKind::servo:
    case PartKind::powerPlug:
    case PartKind::esc:
    case PartKind::landingFoot: return false;
    default: return true;
    }
}

} // namespace

std::vector<UncertainMass> doubtsIn(const Build &build, const Derived &derived, std::size_t loadCase) {
    std::vector<UncertainMass> doubts;
    for (const auto &m : massesIn(build, derived.massRows, loadCase, derived.loadCases[loadCase].folded).masses)
        doubts.push_back({m.element.mass_g, m.sigmaMass_g, m.element.centroid_mm, m.sigmaPosition_mm, m.group});
    return doubts;
}

BalanceStudy studyBalance(const Build &build, const Analysis &analysis, const DrawSettings &draws,
                          const std::atomic<bool> *stop) {
    const Derived &derived = analysis.derived;
    BalanceStudy study;
    const auto stopped = [&] { return stop && *stop; };
    std::vector<std::optional<FreeTravel>> free(build.parts.size());
    const auto freeOf = [&](std::size_t i) -> const FreeTravel & {
        if (!free[i]) {
            const SlideRange range = slideOf(build.parts[i]);
            free[i] = freeTravel(build, derived.scene, i, range.direction, range.min_mm, range.max_mm);
        }
        return *free[i];
    };
    const auto spots = ballastSpots(*build.frame, derived.thrustCentre_mm);
    for (std::size_t c = 0; c < derived.balance.size() && !stopped(); ++c) {
        const CaseBalance &balance = derived.balance[c];
        CaseStudy now;
        now.loadCase = c;
        now.breakdown = breakdownOf(build, derived.massRows, c, balance, derived.thrustCentre_mm);
        now.drawn = drawBalance(doubtsIn(build, derived, c), derived.thrustCentre_mm.head<2>(), derived.cgTolerance_mm,
                                draws, stop);
        now.ellipse = ellipse95(balance.cgCovariance_mm2.topLeftCorner<2, 2>());
        now.savings = gramSavings(build, analysis.practice, derived, c);
        if (balance.offset_mm && balance.loadCase.flies()) {
            const Vec2 offset = balance.offset_mm->head<2>();
            now.toRing = leastBallast(spots, balance.mass.mass_g, offset, derived.cgTolerance_mm);
            now.toCentre = leastBallast(spots, balance.mass.mass_g, offset, kHome_mm);
            for (std::size_t i = 0; i < build.parts.size() && !stopped(); ++i) {
                const Part &part = build.parts[i];
                if (!isAboard(part, balance.loadCase) || !derived.massRows[i].known || part.pinned) continue;
                const bool slides = part.slide.has_value();
                if (!slides && !canBeMoved(build, part, derived.massRows[i].element.mass_g / balance.mass.mass_g))
                    continue;
                const auto solution =
                    solveSlide(build, derived.massRows, derived.balance[c], i, slideOf(part).direction, freeOf(i));
                if (solution) (slides ? now.slides : now.others).push_back(*solution);
            }
            byWhatIsLeft(now.slides);
            byWhatIsLeft(now.others);
            if (!now.slides.empty())
                if (const EditResult slid = slidePart(build, now.slides.front().part, now.slides.front().travel_mm))
                    now.afterSlide = consequencesOf(analysis, *slid);
        }
        study.cases.push_back(std::move(now));
    }
    for (std::size_t i = 0; i < build.parts.size() && !stopped(); ++i) {
        const Part &part = build.parts[i];
        if (!part.slide || part.pinned) continue;
        Compromise compromise =
            compromiseFor(build, derived.massRows, derived.balance, i, part.slide->direction, freeOf(i));
        if (compromise.cases.size() > 1) study.compromises.push_back(std::move(compromise));
    }
    return study;
}

Consequences consequencesOf(const Analysis &before, const Build &after) {
    Analyser analyser;
    const Analysis &then = analyser.update(after, before.practice);
    Consequences out;
    const auto matters = [](const Finding &f) {
        return !f.accepted() && (f.severity == Severity::stop || f.severity == Severity::watch) &&
               f.rule != RuleId::balOffset;
    };
    const auto surveyed = [&](const Finding &f) { // what only a look in the background knows is not there afterwards
        return std::none_of(then.findings.begin(), then.findings.end(),
                            [&](const Finding &g) { return g.rule == f.rule; });
    };
    std::set<std::string> known, now;
    for (const auto &f : before.findings)
        if (matters(f)) known.insert(f.key());
    for (const auto &f : then.findings)
        if (matters(f)) {
            now.insert(f.key());
            if (!known.contains(f.key())) out.comes.push_back(f);
        }
    for (const auto &f : before.findings)
        if (matters(f) && !now.contains(f.key()) && !(before.derived.survey && surveyed(f))) out.goes.push_back(f);
    return out;
}

} // namespace waxis
