// KIT: counts and weights.
#include "core/rules/families.h"

#include <algorithm>

namespace waxis {

void judgeMassUnknown(const Build &build, const Practice &, const Derived &derived, std::vector<Finding> &out) {
    for (const auto &row : derived.massRows) {
        if (row.known) continue;
        Finding finding;
        finding.rule = RuleId::kitMassUnknown;
        finding.severity = Severity::unknown;
        finding.subjects = {row.id};
        finding.unit = "g";
        if (findPart(build, row.id)) finding.variant = "part";
        finding.from_mm = row.element.centroid_mm;
        out.push_back(std::move(finding));
    }
}

FindingText wordMassUnknown(const Build &build, const Finding &f) {
    return {{"{0} has no weight yet", {displayName(build, f.subjects[0])}},
            {f.variant == "part" ? "It is missing from all-up weight and balance: weigh it and enter the grams."
                                 : "It is missing from all-up weight and balance: weigh it, or name its material.",
             {}}};
}

} // namespace waxis
