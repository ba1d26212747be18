// What rules say about a build, as data. Sentences are made at the edge (see wording.h).
#pragma once

#include "core/findings/fix.h"
#include "core/findings/rule_id.h"
#include "core/geometry/pose.h"
#include "core/practice/practice.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

enum class Severity { stop, watch, note, unknown, pass };

/// The nine stages in the order of the bench.
enum class Stage { kit, frame, place, stack, wire, radio, balance, build, log };
inline constexpr int kStageCount = 9;

/// A number that went into the verdict.
struct FindingInput {
    std::string_view name;
    double value = 0;
    std::string_view unit;
};

struct Finding {
    RuleId rule = RuleId::fitOverlap;
    Severity severity = Severity::note;
    std::vector<std::string> subjects;
    std::string variant;  ///< which of a rule's cases: "sway", "heat", "fore-aft", ...
    std::string loadCase; ///< id; empty: whatever is aboard
    std::optional<double> measured, limit;
    std::string_view unit;
    double margin = 0; ///< how far on the safe side; negative: outside
    std::optional<Limit> practiceLimit;
    std::vector<FindingInput> inputs;
    std::optional<Vec3> from_mm, to_mm; ///< where to look: the nearest points or the overlap
    std::vector<Fix> fixes;
    std::string acceptedReason; ///< not empty: the builder accepts it

    bool accepted() const { return !acceptedReason.empty(); }
    /// The same finding keeps its key while numbers change.
    std::string key() const;
    /// The same trouble keeps this while its contributors change: the key with the first subject only, for rules whose
    /// other subjects merely add to it.
    std::string trouble() const;

    // Copied in a hundred files; the code of it is made in one.
    Finding();
    Finding(const Finding &);
    Finding(Finding &&) noexcept;
    Finding &operator=(const Finding &);
    Finding &operator=(Finding &&) noexcept;
    ~Finding();
};

struct FindingCounts {
    int stop = 0, watch = 0, note = 0, unknown = 0, accepted = 0;
    int open() const { return stop + watch + note + unknown; }
    bool operator==(const FindingCounts &) const = default;
};
/// Accepted ones are counted apart.
FindingCounts countFindings(const std::vector<Finding> &findings);

} // namespace waxis
