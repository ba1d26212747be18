// What another practice would say about the same build.
#pragma once

#include "core/findings/finding.h"
#include "core/practice/practice.h"

namespace waxis {

struct PracticeComparison {
    std::vector<Finding> goes;  ///< open under the first practice only
    std::vector<Finding> comes; ///< open under the second only
    struct Change {
        Finding before, after;
    };
    std::vector<Change> changes; ///< open under both, but of another severity or against another limit
};

/// Both judged in full, views and access included. Accepted findings stay out.
PracticeComparison comparePractices(const Build &build, const Practice &first, const Practice &second);

} // namespace waxis
