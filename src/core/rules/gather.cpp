#include "core/rules/gather.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace waxis {

static bool sayTheSame(const Finding &a, const Finding &b, double within) {
    return a.severity != Severity::pass && a.severity == b.severity && a.rule == b.rule && a.variant == b.variant &&
           a.loadCase == b.loadCase && a.limit == b.limit && a.measured && b.measured &&
           std::abs(*a.measured - *b.measured) <= within;
}

static void join(Finding &kept, const Finding &other) {
    kept.subjects.push_back(other.subjects.front());
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
    for (std::size_t i = first; i < findings.size(); ++i)
        for (std::size_t k = i + 1; k < findings.size();) {
            Finding &kept = findings[i];
            if (findings[k].subjects != kept.subjects) {
                ++k;
                continue;
            }
            if (findings[k].severity < kept.severity ||
                (findings[k].severity == kept.severity && findings[k].margin < kept.margin))
                kept = std::move(findings[k]);
            findings.erase(findings.begin() + std::ptrdiff_t(k));
        }
}

void gatherAlike(std::vector<Finding> &findings, std::size_t first, double within) {
    std::stable_sort(findings.begin() + std::ptrdiff_t(first), findings.end(),
                     [](const Finding &a, const Finding &b) { return a.margin < b.margin; });
    for (std::size_t i = first; i < findings.size(); ++i)
        for (std::size_t k = i + 1; k < findings.size();) {
            if (!sayTheSame(findings[i], findings[k], within)) {
                ++k;
                continue;
            }
            join(findings[i], findings[k]);
            findings.erase(findings.begin() + std::ptrdiff_t(k));
        }
}

} // namespace waxis
