#include "core/edits/feedback_edits.h"

#include "core/base/by_id.h"
#include "core/edits/balance_edits.h"
#include "core/edits/kit_edits.h"
#include "core/edits/part_edits.h"
#include "core/edits/radio_edits.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

Failure<EditError> failure(std::string message) { return Failure{EditError{std::move(message)}}; }

bool isAlike(const Pose &a, const Pose &b) {
    constexpr double kApart_mm = 0.5, kApart = 0.01; // radians
    return (a.position_mm - b.position_mm).norm() < kApart_mm && a.rotation.angularDistance(b.rotation) < kApart;
}

EditResult setSag(const Build &build, const std::string &subject, const Measured &sag_mm) {
    Build next = build;
    if (auto *part = byId(next.parts, subject))
        part->fastening.sag_mm = sag_mm;
    else if (auto *stack = byId(next.stacks, subject))
        stack->sag_mm = sag_mm;
    else if (byId(build.frame->plates, subject))
        next.frame.edit([&](Frame &frame) { byId(frame.plates, subject)->sag_mm = sag_mm; });
    else
        return failure(fmt::format("There is nothing soft \"{}\" in this build.", subject));
    return next;
}

EditResult addCraftWeight(const Build &build, const Feedback &feedback, const Measured &mass_g) {
    auto next = addWeighing(build, WeighingMethod::total, feedback.subject);
    if (!next) return next;
    Weighing weighing = next->weighings.back();
    weighing.total_g = mass_g;
    if (!feedback.reason.empty()) weighing.name = feedback.reason;
    return editWeighing(*next, weighing);
}

} // namespace

EditResult takeFeedback(const Build &build, const Feedback &feedback) {
    const bool sound = std::all_of(feedback.values.begin(), feedback.values.end(),
                                   [](double value) { return std::isfinite(value) && value >= 0; });
    const std::size_t wanted = feedback.kind == FeedbackKind::place      ? 0
                               : feedback.kind == FeedbackKind::kindSize ? 3
                                                                         : 1;
    if (!sound || feedback.values.size() != wanted)
        return failure("What was measured cannot be taken over: no such number.");
    const Measured value = wanted > 0 ? measuredValue(feedback.values[0], feedback.tolerance) : Measured{};
    switch (feedback.kind) {
    case FeedbackKind::partWeight: return weighPart(build, feedback.subject, value);
    case FeedbackKind::kindWeight: return weighKit(build, feedback.subject, value);
    case FeedbackKind::kindSize:
        return measureKit(build, feedback.subject, Vec3(feedback.values[0], feedback.values[1], feedback.values[2]));
    case FeedbackKind::craftWeight: return addCraftWeight(build, feedback, value);
    case FeedbackKind::sag: return setSag(build, feedback.subject, value);
    case FeedbackKind::limit: {
        if (!feedback.limit) return failure("Which limit is meant was not said.");
        Build next = build;
        const std::string id(definitionOf(*feedback.limit).id);
        next.practice.limits[id] = feedback.values[0];
        if (!feedback.reason.empty()) next.practice.notes[id] = feedback.reason;
        return next;
    }
    case FeedbackKind::place: {
        if (!feedback.X_FramePart) return failure("Where it goes was not said.");
        // A trial place that stands there changes over with it, so that the former place is not lost.
        for (const auto &trial : build.trials)
            if (trial.part == feedback.subject && isAlike(trial.X_FramePart, *feedback.X_FramePart))
                return takeTrial(build, trial.id);
        const Part *part = findPart(build, feedback.subject);
        if (!part) return failure(fmt::format("There is no part \"{}\" in this build.", feedback.subject));
        const Pose before = framePose(build, *part);
        const auto moved = movePart(build, feedback.subject, *feedback.X_FramePart);
        return moved ? addTrial(*moved, feedback.subject, before) : moved;
    }
    }
    return failure("There is nothing to take over.");
}

} // namespace waxis
