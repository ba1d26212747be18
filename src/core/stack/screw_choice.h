// Which of the lengths that are sold will do, and why the others will not.
#pragma once

#include "core/fasteners/fastener.h"
#include "core/practice/practice.h"

namespace waxis {

/// What a screw finds on its way, all in mm.
struct ScrewTask {
    const ThreadSize *thread = nullptr;
    double grip_mm = 0;            ///< from under the head to where the thread begins
    bool nut = true;               ///< turns into a nut; else into a thread that is `depth` deep
    double nut_mm = 0;             ///< height of the nut
    double depth_mm = 0;           ///< of the thread
    bool blind = false;            ///< the thread has a bottom
    double engagement_mm = 0;      ///< threads: least
    std::optional<double> room_mm; ///< free beyond the nut or thread; none: nothing in the way
    std::string meets;             ///< id of what ends that room
};

enum class ScrewVerdict {
    short_, ///< does not reach, or not far enough through the nut or into the thread
    good,
    long_,   ///< stands out further than the practice likes
    strikes, ///< stands out into what comes next
    bottoms  ///< reaches the bottom of a blind thread before it clamps
};

struct ScrewOption {
    double length_mm = 0;
    ScrewVerdict verdict = ScrewVerdict::good;
    double beyond_mm = 0;  ///< nuts: how far past the nut; threads: how far in
    double outside_mm = 0; ///< by how much it misses, 0 when good
};

/// Nuts: one pitch out at least (practice). Threads: least engagement.
ScrewOption judgeScrew(const ScrewTask &task, double length_mm, const Practice &practice);

struct ScrewChoice {
    double least_mm = 0;
    std::optional<double> most_mm;    ///< none: nothing in the way
    std::vector<ScrewOption> options; ///< every length from stock from two below to two above those that will do
    std::optional<double> best_mm;    ///< the shortest good one; else the shortest that is only long
};
ScrewChoice chooseLength(const ScrewTask &task, const Practice &practice);

/// Least engagement in a material, mm: diameters by the practice for steel, aluminium, plastic. Carbon and glass
/// laminates count as plastic.
double engagement_mm(const ThreadSize &thread, const std::string &material, const Practice &practice);

} // namespace waxis
