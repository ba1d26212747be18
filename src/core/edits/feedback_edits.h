// What was measured becomes what is planned: one change each, told beforehand, taken only when the builder says so.
#pragma once

#include "core/build/edit_result.h"
#include "core/practice/practice.h"

#include <optional>
#include <string>
#include <vector>

namespace waxis {

enum class FeedbackKind {
    partWeight,  ///< of this very part, g
    kindWeight,  ///< of each piece of a kit item, g
    kindSize,    ///< of each piece of a kit item, three mm
    craftWeight, ///< a weighing of the whole craft, g; subject: the load case
    sag,         ///< of what stands soft: part, stack or plate, mm
    limit,       ///< of the practice
    place        ///< a part goes where it stood in a trial
};

struct Feedback {
    FeedbackKind kind = FeedbackKind::partWeight;
    std::string subject; ///< id of the part, item, load case or stack; limit: nothing
    std::vector<double> values;
    std::optional<double> tolerance;      ///< +- 2 sigma
    std::optional<Limit> limit;           ///< which
    std::string reason;                   ///< kept as the practice's note: "hover of 14 May"
    std::optional<Pose> X_FramePart = {}; ///< place: where it goes
    bool operator==(const Feedback &) const = default;
};

/// Errors: what it is about is not there, or the values are none that it can take.
EditResult takeFeedback(const Build &build, const Feedback &feedback);

} // namespace waxis
