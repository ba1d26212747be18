// Screws through an arm into a motor: deep enough to hold, not so deep that they touch the windings.
#pragma once

#include "core/build/build.h"
#include "core/stack/screw_choice.h"

namespace waxis {

enum class MotorScrewVerdict { short_, good, deep, unknownDepth };

struct MotorScrewOption {
    double length_mm = 0, engagement_mm = 0;
    MotorScrewVerdict verdict = MotorScrewVerdict::good;
};

struct MotorScrews {
    std::string motor, through;       ///< ids: the part; the arm or plate under it (empty: none found)
    std::vector<std::string> clamped; ///< all that lies between head and motor, from the motor outwards; washers too
    const ThreadSize *thread = nullptr;
    double grip_mm = 0;             ///< of all that
    bool gripKnown = true;          ///< false: nothing is under it, or a tube of which only a wall would be
    std::optional<double> depth_mm; ///< of the motor's holes; none: not stated
    double least_mm = 0;            ///< engagement wanted
    double reserve_mm = 0;
    int pieces = 0;
    std::string placed;                  ///< id of the part that stands for its screws; empty: none is drawn
    std::optional<double> placed_mm;     ///< their length
    std::optional<MotorScrewOption> now; ///< of what is placed; else of what is chosen
    std::vector<MotorScrewOption> options;
    std::optional<double> best_mm; ///< the longest that is not too deep: holds best
};

/// The same screws through as much into as deep threads: one line, one finding.
bool sameTask(const MotorScrews &a, const MotorScrews &b);

/// Every motor that is screwed onto an arm, plate or mount with a hole pattern.
std::vector<MotorScrews> motorScrewsOf(const Build &build, const Practice &practice);
/// One motor's; none when the part is none or has no pattern.
std::optional<MotorScrews> motorScrewsFor(const Build &build, const Part &motor, const Practice &practice);

/// Engagement of a length through `grip_mm`, judged. Source: common practice, no source (2.5 mm in M3, 2.0 mm in M2,
/// half a millimetre short of the windings).
MotorScrewOption judgeMotorScrew(double length_mm, double grip_mm, double least_mm, std::optional<double> depth_mm,
                                 double reserve_mm);

} // namespace waxis
