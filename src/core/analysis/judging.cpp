#include "core/analysis/judging.h"

#include <algorithm>
#include <optional>
#include <string_view>

namespace waxis {

namespace {

/// Which of two words comes first, when that settles it whatever follows them.
std::optional<bool> wordBefore(std::string_view x, std::string_view y) {
    if (x.starts_with(y) || y.starts_with(x)) return std::nullopt;
    return x < y;
}

/// The order of Finding::key: rule's name, variant, load case, subjects. Keys are only made where those do not decide.
bool keyBefore(const Finding &a, const Finding &b) {
    if (a.rule != b.rule) {
        if (const auto decided = wordBefore(ruleName(a.rule), ruleName(b.rule))) return *decided;
    } else if (a.variant == b.variant && a.loadCase == b.loadCase) {
        const std::size_t common = std::min(a.subjects.size(), b.subjects.size());
        for (std::size_t i = 0; i < common; ++i) {
            if (a.subjects[i] == b.subjects[i]) continue;
            if (const auto decided = wordBefore(a.subjects[i], b.subjects[i])) return *decided;
            return a.key() < b.key();
        }
        return a.subjects.size() < b.subjects.size();
    }
    return a.key() < b.key();
}

/// Stops first, then by how far outside; ties by key so that the order never jumps.
bool worseThan(const Finding &a, const Finding &b) {
    if (a.accepted() != b.accepted()) return b.accepted();
    if (a.severity != b.severity) return a.severity < b.severity;
    if (a.margin != b.margin) return a.margin < b.margin;
    return keyBefore(a, b);
}

/// What compares alike comes in the order of the rules, as if all had been judged together.
bool before(const Finding &a, const Finding &b) {
    if (worseThan(a, b)) return true;
    return a.rule < b.rule && !worseThan(b, a);
}

/// Puts what was judged anew in the place of those rules' former outcomes.
void replace(std::vector<Finding> &list, std::vector<Finding> &&fresh, const std::vector<bool> &again) {
    // Findings are large: their places are sorted, and each is moved once.
    std::vector<Finding *> order;
    for (auto &finding : fresh) order.push_back(&finding);
    std::stable_sort(order.begin(), order.end(), [](const Finding *a, const Finding *b) { return before(*a, *b); });
    std::vector<Finding> merged;
    merged.reserve(list.size() + fresh.size());
    auto next = order.begin();
    for (auto &kept : list) {
        if (again[std::size_t(kept.rule)]) continue;
        while (next != order.end() && before(**next, kept)) merged.push_back(std::move(**next++));
        merged.push_back(std::move(kept));
    }
    while (next != order.end()) merged.push_back(std::move(**next++));
    list = std::move(merged);
}

} // namespace

bool Judging::update(const Build &build, const Practice &practice, const Derived &derived, const JudgedBy &by,
                     std::vector<Finding> &findings, std::vector<Finding> &passes) {
    const bool all = !known_ || by.rest != before_.rest;
    Needs renewed = 0;
    for (std::size_t n = 0; n < kNeedCount; ++n)
        if (by.needs[n] != before_.needs[n]) renewed |= Needs(1) << n;
    before_ = by;
    known_ = true;
    if (!all && renewed == 0) return false;
    const auto rules = ruleBook();
    std::vector<bool> again(rules.size(), false);
    std::vector<Finding> outcomes, open, good;
    for (const auto &rule : rules) {
        if (!all && !(rule.needs & renewed)) continue;
        again[std::size_t(rule.id)] = true;
        rule.judge(build, practice, derived, outcomes);
    }
    for (auto &outcome : outcomes) {
        if (outcome.severity == Severity::pass) {
            good.push_back(std::move(outcome));
            continue;
        }
        if (!build.acceptances.empty()) {
            const auto key = outcome.key();
            for (const auto &acceptance : build.acceptances)
                if (acceptance.finding == key) outcome.acceptedReason = acceptance.reason;
        }
        open.push_back(std::move(outcome));
    }
    replace(findings, std::move(open), again);
    replace(passes, std::move(good), again);
    return true;
}

} // namespace waxis
