#include "core/stack/frame_screws.h"

#include <algorithm>

namespace waxis {

namespace {

const Standoff *postOf(const Frame &frame, const FrameScrew &screw) {
    const auto at = std::find_if(frame.standoffs.begin(), frame.standoffs.end(),
                                 [&](const Standoff &post) { return post.id == screw.into; });
    return screw.into.empty() || at == frame.standoffs.end() ? nullptr : &*at;
}

double nutHeight(const ThreadSize &thread, FastenerForm form) {
    return nutHeight_mm(thread, form).value_or(thread.nutHeight_mm);
}

/// How far into the post this one may go.
double depthFor(const Frame &frame, const ScrewColumn &column, const FrameScrew *other, const Brackets &brackets) {
    if (!other) return column.thread_mm;
    if (!other->length_mm) return column.thread_mm / 2;
    const ScrewColumn theirs = columnOf(frame, *other, brackets);
    const double inside = std::max(0.0, *other->length_mm - theirs.grip_mm);
    return std::max(0.0, column.thread_mm - inside);
}

} // namespace

std::vector<FrameScrewReport> frameScrewReports(const Frame &frame, const Practice &practice,
                                                const Brackets &brackets) {
    std::vector<FrameScrewReport> all;
    for (const auto &screw : frame.screws) {
        FrameScrewReport report;
        report.screw = screw.id;
        report.column = columnOf(frame, screw, brackets);
        ScrewTask &task = report.task;
        task.thread = findThread(screw.thread);
        task.grip_mm = report.column.grip_mm;
        report.length_mm = screw.length_mm;
        if (task.thread && task.grip_mm > 0) {
            if (const Standoff *post = postOf(frame, screw)) {
                const auto other = std::find_if(frame.screws.begin(), frame.screws.end(), [&](const FrameScrew &one) {
                    return one.into == screw.into && one.fromAbove != screw.fromAbove;
                });
                const FrameScrew *met = other == frame.screws.end() ? nullptr : &*other;
                task.nut = false;
                task.blind = true;
                task.depth_mm = depthFor(frame, report.column, met, brackets);
                task.engagement_mm = engagement_mm(*task.thread, post->material, practice);
                if (met) report.meets = met->id;
            } else if (screw.nut ==
                       FastenerForm::pressNut) { // it sits in the last plate: its thread is part of the grip
                task.nut_mm = 0;
            } else
                task.nut_mm = nutHeight(*task.thread, screw.nut);
            report.choice = chooseLength(task, practice);
            if (!report.length_mm) report.length_mm = report.choice.best_mm;
            if (report.length_mm) report.now = judgeScrew(task, *report.length_mm, practice);
        }
        all.push_back(std::move(report));
    }
    return all;
}

std::vector<FastenerData> piecesOf(const FrameScrew &screw, const FrameScrewReport &report) {
    std::vector<FastenerData> pieces;
    if (!report.length_mm) return pieces;
    pieces.push_back({FastenerForm::screw, screw.thread, *report.length_mm, screw.head});
    if (screw.into.empty()) pieces.push_back({screw.nut, screw.thread, 0});
    return pieces;
}

} // namespace waxis
