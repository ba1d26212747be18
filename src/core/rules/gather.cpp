#include "core/rules/gather.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <utility>

namespace waxis {

static bool sayTheSame(const Finding &a, const Finding &b, double within) {
    return a.severity != Severity::pass && a.severity == b.severity && a.rule == b.rule && a.variant == b.variant &&
           a.loadCase == b.loadCase && a.limit == b.limit && a.measured && b.measured &&
           std::abs(*a.measured - *b.measured) <= within;
}

static const std::string &secondOf(const Finding &f) {
    static const std::string kNone;
    return f.subjects.size() > 1 ? f.subjects[1] : kNone;
}

static void join(Finding &kept, const Finding &other) {
    const bool sameFirst = other.subjects.front() == kept.subjects.front() && other.subjects.size() > 1;
    kept.subjects.push_back(sameFirst ? other.subjects[1] : other.subjects.front());
    if (kept.fixes.size() != other.fixes.size()) return;
    for (std::size_t k = 0; k < kept.fixes.size(); ++k) {
        Fix &fix = kept.fixes[k];
        Fix further = other.fixes[k];
        const std::vector<Fix> behind = std::exchange(further.then, {});
        fix.then.push_back(std::move(further));
        fix.then.insert(fix.then.end(), behind.begin(), behind.end());
    }
}

void keepGravest(std::vector<Finding> &findings, std::size_t first) {
    std::map<std::vector<std::string>, std::size_t> known;
    std::size_t end = first;
    for (std::size_t i = first; i < findings.size(); ++i) {
        const auto [at, isNew] = known.try_emplace(findings[i].subjects, end);
        Finding &kept = findings[at->second];
        const bool graver = findings[i].severity < kept.severity ||
                            (findings[i].severity == kept.severity && findings[i].margin < kept.margin);
        if (isNew ? end++ != i : graver) kept = std::move(findings[i]);
    }
    findings.erase(findings.begin() + std::ptrdiff_t(end), findings.end());
}

void gatherAlike(std::vector<Finding> &findings, std::size_t first, double within, Share share) {
    std::stable_sort(findings.begin() + std::ptrdiff_t(first), findings.end(),
                     [](const Finding &a, const Finding &b) { return a.margin < b.margin; });
    constexpr double kHair = 1e-9;
    for (std::size_t i = first; i < findings.size(); ++i)
        for (std::size_t k = i + 1; k < findings.size();) {
            // Of one limit the margins lie as far apart as what was measured.
            if (findings[k].margin - findings[i].margin > within + kHair) break;
            const bool elsewhere =
                (share == Share::first && findings[i].subjects.front() != findings[k].subjects.front()) ||
                (share == Share::second && secondOf(findings[i]) != secondOf(findings[k]));
            if (elsewhere || !sayTheSame(findings[i], findings[k], within)) {
                ++k;
                continue;
            }
            join(findings[i], findings[k]);
            findings.erase(findings.begin() + std::ptrdiff_t(k));
        }
}

} // namespace waxis
