#include "core/stack/screw_choice.h"

#include "core/fasteners/screw.h"

#include <algorithm>

namespace waxis {

namespace {
constexpr double kSame_mm = 1e-9; // sums of tenths land beside whole numbers

double least_mm(const ScrewTask &task, const Practice &practice) {
    const double pitches = practice[Limit::nutPitches] * (task.thread ? task.thread->pitch_mm : 0);
    return task.nut ? task.grip_mm + task.nut_mm + pitches : task.grip_mm + task.engagement_mm;
}
} // namespace

double engagement_mm(const ThreadSize &thread, const std::string &material, const Practice &practice) {
    Limit limit = Limit::engagementPlastic;
    if (material == "steel" || material == "stainless" || material == "titanium" || material == "brass")
        limit = Limit::engagementSteel;
    if (material.rfind("aluminium", 0) == 0) limit = Limit::engagementAluminium;
    return practice[limit] * thread.nominal_mm;
}

ScrewOption judgeScrew(const ScrewTask &task, double length, const Practice &practice) {
    ScrewOption option;
    option.length_mm = length;
    const double taken = task.grip_mm + (task.nut ? task.nut_mm : 0);
    option.beyond_mm = length - taken;
    const double least = least_mm(task, practice);
    if (length < least - kSame_mm) {
        option.verdict = ScrewVerdict::short_;
        option.outside_mm = least - length;
        return option;
    }
    if (!task.nut && task.blind && option.beyond_mm > task.depth_mm + kSame_mm) {
        option.verdict = ScrewVerdict::bottoms;
        option.outside_mm = option.beyond_mm - task.depth_mm;
        return option;
    }
    const double out = task.nut ? option.beyond_mm : std::max(0.0, option.beyond_mm - task.depth_mm);
    if (task.room_mm && out > *task.room_mm + kSame_mm) {
        option.verdict = ScrewVerdict::strikes;
        option.outside_mm = out - *task.room_mm;
        return option;
    }
    if (out > practice[Limit::screwBeyond] + kSame_mm) {
        option.verdict = ScrewVerdict::long_;
        option.outside_mm = out - practice[Limit::screwBeyond];
    }
    return option;
}

ScrewChoice chooseLength(const ScrewTask &task, const Practice &practice) {
    ScrewChoice choice;
    choice.least_mm = least_mm(task, practice);
    const double taken = task.grip_mm + (task.nut ? task.nut_mm : task.depth_mm);
    if (!task.nut && task.blind)
        choice.most_mm = taken;
    else if (task.room_mm)
        choice.most_mm = taken + *task.room_mm;
    std::vector<ScrewOption> all;
    for (const double length : kStockLengths_mm) all.push_back(judgeScrew(task, length, practice));
    for (const ScrewVerdict wanted : {ScrewVerdict::good, ScrewVerdict::long_})
        for (const auto &option : all)
            if (!choice.best_mm && option.verdict == wanted) choice.best_mm = option.length_mm;
    // Around what will do, so that one sees why the next ones will not.
    auto fits = [](const ScrewOption &o) {
        return o.verdict == ScrewVerdict::good || o.verdict == ScrewVerdict::long_;
    };
    auto first = std::find_if(all.begin(), all.end(), fits);
    if (first == all.end())
        first = std::find_if(all.begin(), all.end(),
                             [](const ScrewOption &o) { return o.verdict != ScrewVerdict::short_; });
    const auto from = std::max<std::ptrdiff_t>(0, (first - all.begin()) - 2);
    const auto to = std::min<std::ptrdiff_t>(std::ptrdiff_t(all.size()), (first - all.begin()) + 3);
    choice.options.assign(all.begin() + from, all.begin() + to);
    return choice;
}

} // namespace waxis
