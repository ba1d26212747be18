#include "core/findings/finding.h"

#include <algorithm>
#include <fmt/format.h>

namespace waxis {

Finding::Finding() = default;
Finding::Finding(const Finding &) = default;
Finding::Finding(Finding &&) noexcept = default;
Finding &Finding::operator=(const Finding &) = default;
Finding &Finding::operator=(Finding &&) noexcept = default;
Finding::~Finding() = default;

static std::string keyOf(const Finding &f, std::size_t subjects) {
    std::string key(ruleName(f.rule));
    for (const auto *word : {&f.variant, &f.loadCase})
        if (!word->empty()) key += "/" + *word;
    for (std::size_t i = 0; i < std::min(subjects, f.subjects.size()); ++i) key += ":" + f.subjects[i];
    return key;
}

std::string Finding::key() const { return keyOf(*this, subjects.size()); }

std::string Finding::trouble() const {
    switch (rule) {
    case RuleId::navThrottle: // whichever load case is the worst
        return fmt::format("{}:{}", ruleName(rule), subjects.empty() ? std::string() : subjects.front());
    case RuleId::pwrRail: // the same
        return fmt::format("{}/{}:{}", ruleName(rule), variant, subjects.empty() ? std::string() : subjects.front());
    case RuleId::navIron:
    case RuleId::navSky:
    case RuleId::radCoverage:
    case RuleId::fitAccess:
    case RuleId::fitCamera:
    case RuleId::fitLamp: return keyOf(*this, 1);
    case RuleId::balOffset: // the same, and whoever else hangs to that side
        return fmt::format("{}/{}", ruleName(rule), variant);
    case RuleId::radNoise:
    case RuleId::radBlocking: // in whichever band it is worst
        return subjects.size() < 2 ? key() : fmt::format("{}:{}:{}", ruleName(rule), subjects[0], subjects[1]);
    case RuleId::balMeasured: return std::string(ruleName(rule)); // whom the scale contradicts is a guess
    default: return key();
    }
}

FindingCounts countFindings(const std::vector<Finding> &findings) {
    FindingCounts counts;
    for (const auto &finding : findings) {
        if (finding.accepted()) {
            ++counts.accepted;
            continue;
        }
        switch (finding.severity) {
        case Severity::stop: ++counts.stop; break;
        case Severity::watch: ++counts.watch; break;
        case Severity::note: ++counts.note; break;
        case Severity::unknown: ++counts.unknown; break;
        case Severity::pass: break;
        }
    }
    return counts;
}

} // namespace waxis
