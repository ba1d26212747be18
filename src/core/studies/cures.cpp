#include "core/studies/cures.h"

#include "core/edits/stack_change.h"
#include "core/remedies/stack_changes.h"
#include "core/rules/rule.h"
#include "core/scene/scene.h"
#include "core/sequence/plan.h"
#include "core/sequence/sweep_memory.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace waxis {

namespace {

struct Standing {
    std::set<std::string> stops;
    std::map<std::string, std::pair<Severity, double>> open; ///< by trouble: how bad, and its margin
    int serious = 0;                                         ///< stops and watches
};

Standing standingOf(const Analysis &analysis) {
    Standing standing;
    for (const auto &finding : analysis.findings) {
        if (finding.accepted()) continue;
        const std::string key = finding.trouble();
        if (finding.severity == Severity::stop) standing.stops.insert(key);
        standing.serious += finding.severity == Severity::stop || finding.severity == Severity::watch;
        standing.open.emplace(key, std::pair(finding.severity, finding.margin));
    }
    return standing;
}

} // namespace

/// What the order of building has to say, by kind.
static std::map<RemarkKind, int> remarksOf(const Build &build, const Analysis &analysis, SweepMemory &memory) {
    std::map<RemarkKind, int> remarks;
    if (!analysis.derived.scene.world) return remarks;
    const int built = fullestCase(build, *analysis.derived.loadCases);
    for (const auto &remark : planAssembly(build, analysis.practice, analysis.derived, built, &memory).remarks)
        ++remarks[remark.kind];
    return remarks;
}

/// Which remarks a rule speaks of; none: it is no rule of the order of building.
static std::optional<RemarkKind> remarkKindOf(RuleId rule) {
    switch (rule) {
    case RuleId::seqStuck: return RemarkKind::stuck;
    case RuleId::seqDriver: return RemarkKind::undriven;
    case RuleId::seqCovered: return RemarkKind::covered;
    case RuleId::seqHole: return RemarkKind::hole;
    case RuleId::seqHeat: return RemarkKind::heat;
    case RuleId::seqService: return RemarkKind::service;
    case RuleId::seqDryFit: return RemarkKind::dryFit;
    case RuleId::seqByHand: return RemarkKind::byHand;
    default: return std::nullopt;
    }
}

struct CureTester::State {
    Build build;
    Analyser analyser;
    SweepMemory memory;
    std::optional<std::map<RemarkKind, int>> remarks; ///< of the build itself, once they are asked for
    Practice practice;                                ///< in force
    Standing before;
    std::function<bool()> stopped;
    bool mustStop() const { return stopped && stopped(); }
};

CureTester::CureTester(Build build, std::function<bool()> stopped) : state_(std::make_unique<State>()) {
    state_->build = std::move(build);
    state_->stopped = std::move(stopped);
    const Analysis &analysis = state_->analyser.update(state_->build);
    state_->practice = analysis.practice;
    state_->before = standingOf(analysis);
}

CureTester::~CureTester() = default;

std::optional<int> CureTester::outcomeOf(const Build &after, const Finding &finding) {
    if (after == state_->build) return std::nullopt;
    if (const auto kind = remarkKindOf(finding.rule)) {
        if (!state_->remarks)
            state_->remarks = remarksOf(state_->build, state_->analyser.update(state_->build), state_->memory);
        auto then = remarksOf(after, state_->analyser.update(after), state_->memory);
        auto &now = *state_->remarks;
        const auto worse = [&](RemarkKind of) { return then[of] > now[of]; };
        if (then[*kind] >= now[*kind] || worse(RemarkKind::stuck) || worse(RemarkKind::undriven)) return std::nullopt;
    }
    const Standing then = standingOf(state_->analyser.update(after));
    if (!std::includes(state_->before.stops.begin(), state_->before.stops.end(), then.stops.begin(), then.stops.end()))
        return std::nullopt;
    // The finding itself must be gone, less severe or nearer to its limit. What only a survey finds, the order of
    // building aside, cannot be seen here.
    const auto &before = state_->before.open;
    const auto was = before.find(finding.trouble());
    const auto is = then.open.find(finding.trouble());
    if (was != before.end() && is != then.open.end()) {
        constexpr double kHair = 1e-6;
        const bool better = is->second.first > was->second.first ||
                            (is->second.first == was->second.first && is->second.second > was->second.second + kHair);
        if (!better) return std::nullopt;
    }
    return state_->before.serious - then.serious;
}

Build CureTester::withWiresMended(Build after, std::string &words) {
    constexpr int kMost = 3;
    for (int round = 0; round < kMost; ++round) {
        const auto &findings = state_->analyser.update(after).findings;
        const auto brought = std::find_if(findings.begin(), findings.end(), [&](const Finding &f) {
            return f.severity == Severity::stop && !f.accepted() && !f.fixes.empty() &&
                   ruleOf(f.rule).stage == Stage::wire && !state_->before.stops.contains(f.trouble());
        });
        if (brought == findings.end()) break;
        const Fix fix = brought->fixes.front();
        std::string more = wordFix(after, fix).text();
        auto mended = applyFix(after, fix);
        if (!mended) break;
        if (!more.empty()) more[0] = char(std::tolower(static_cast<unsigned char>(more[0])));
        words += " and " + more;
        after = std::move(*mended);
    }
    return after;
}

std::vector<Cure> CureTester::curesOf(const Finding &finding) {
    std::vector<Cure> cures;
    auto offer = [&](Sentence words, const EditResult &edit) {
        if (!edit || state_->mustStop()) return;
        const bool known = std::any_of(cures.begin(), cures.end(), [&](const Cure &c) { return c.after == *edit; });
        if (known) return;
        if (const auto mends = outcomeOf(*edit, finding)) cures.push_back({std::move(words), *edit, *mends});
    };
    if (finding.rule == RuleId::stkHeight && !state_->mustStop())
        for (const auto &stack : state_->build.stacks) {
            if (finding.subjects.empty() || stack.id != finding.subjects.front()) continue;
            for (const auto &suggestion : suggestFor(state_->build, stack, state_->practice, 3)) {
                EditResult next = state_->build;
                for (const auto &change : suggestion.changes)
                    if (next) next = applyChange(*next, change);
                if (!next) continue;
                // What it makes too short is lengthened with it.
                std::string words = suggestionInWords(state_->build, suggestion);
                next = withWiresMended(*next, words);
                offer({"{0}", {words}}, next);
            }
        }
    for (const auto &fix : finding.fixes)
        offer(wordFixBriefly(state_->build, finding, fix), applyFix(state_->build, fix));
    return cures;
}

} // namespace waxis
