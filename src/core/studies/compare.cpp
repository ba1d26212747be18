#include "core/studies/compare.h"

#include "core/analysis/analysis.h"

#include <map>

namespace waxis {

namespace {

std::vector<Finding> openUnder(const Build &build, const Practice &practice) {
    Analyser analyser;
    std::vector<Finding> open;
    for (const auto &finding : analyseFully(analyser, build, practice).findings)
        if (!finding.accepted()) open.push_back(finding);
    return open;
}

} // namespace

PracticeComparison comparePractices(const Build &build, const Practice &first, const Practice &second) {
    const auto before = openUnder(build, first), after = openUnder(build, second);
    std::map<std::string, const Finding *> known;
    for (const auto &finding : before) known.emplace(finding.key(), &finding);
    PracticeComparison comparison;
    for (const auto &finding : after) {
        const auto at = known.find(finding.key());
        if (at == known.end()) {
            comparison.comes.push_back(finding);
            continue;
        }
        if (at->second->severity != finding.severity || at->second->limit != finding.limit)
            comparison.changes.push_back({*at->second, finding});
        known.erase(at);
    }
    for (const auto &finding : before)
        if (known.contains(finding.key())) comparison.goes.push_back(finding);
    return comparison;
}

} // namespace waxis
