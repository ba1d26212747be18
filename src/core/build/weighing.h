// What was measured of the whole craft, and how heavy it may be.
#pragma once

#include "core/base/measured.h"
#include "core/geometry/pose.h"

#include <string>
#include <vector>

namespace waxis {

enum class WeighingMethod {
    total,  ///< the craft on one scale
    scales, ///< level, each foot or corner on a scale of its own
    lines   ///< balanced on a rod, once or twice
};

/// A line on which the craft was balanced, as on a rod: the centre of gravity stands over it, in plan.
struct BalanceLine {
    Vec2 through_mm = Vec2::Zero();
    double direction_deg = 90; ///< from forward towards the left: 90 is a rod across the craft
    bool operator==(const BalanceLine &) const = default;
};

/// One weighing or balancing of the craft in one of its load cases.
struct Weighing {
    std::string id;
    std::string name;
    std::string loadCase; ///< id; empty: the first
    WeighingMethod method = WeighingMethod::total;
    Measured total_g;               ///< total: what the scale read; tolerance +- 2 sigma
    std::vector<Vec2> points_mm;    ///< scales: where they stand
    std::vector<double> readings_g; ///< scales: what they read, in the same order
    double scaleTolerance_g = 1;    ///< of each reading, +- 2 sigma
    std::vector<BalanceLine> lines; ///< lines: one or two
    double lineTolerance_mm = 1;    ///< how surely each was found, and scales placed; +- 2 sigma

    // Copied in a hundred files; the code of it is made in one.
    Weighing();
    Weighing(const Weighing &);
    Weighing(Weighing &&) noexcept;
    Weighing &operator=(const Weighing &);
    Weighing &operator=(Weighing &&) noexcept;
    ~Weighing();
    bool operator==(const Weighing &) const;
};

/// A weight that the user wants to stay under. The program knows no law.
struct WeightLimit {
    std::string id;
    std::string name;
    double most_g = 0;
    std::string loadCase; ///< id; empty: every case that flies
    bool operator==(const WeightLimit &) const = default;
};

} // namespace waxis
