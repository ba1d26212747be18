// Few tries compared fairly: ranks, shifts and medians with exact chances, no assumption on how values spread.
#pragma once

#include <span>
#include <vector>

namespace waxis {

/// The middle one, or the mean of the two middle ones. Not empty.
double medianOf(std::vector<double> values);

/// Mann and Whitney 1947, of `a` against `b`.
struct RankTest {
    double u = 0;        ///< pairs in which a is larger, ties half
    double chance = 1;   ///< two-sided: share of all arrangements of the mid-ranks whose U lies at least as far off
    double smallest = 1; ///< the least chance that so many tries can show, complete separation
    bool isExact = true; ///< by counting; else the normal form with ties and continuity corrected
};
/// By counting up to 40 values together, beyond by the normal form. Either empty: nothing can be told, chance 1.
RankTest rankTest(std::span<const double> a, std::span<const double> b);

/// Hodges and Lehmann 1963: the median of all differences a - b, with Moses' interval between two of them.
struct ShiftEstimate {
    double shift = 0, low = 0, high = 0;
    double coverage = 0; ///< exact where there are no ties; below what was asked for where so few tries cannot reach it
};
/// The narrowest interval that reaches the confidence (0 to 1), all differences where none does. Neither empty.
ShiftEstimate shiftEstimate(std::span<const double> a, std::span<const double> b, double confidence);

/// What was tried under like conditions: in one session, on one day.
struct Stratum {
    std::vector<double> a, b;
};
/// a against b within each stratum, the U added up (van Elteren 1960, all strata weighing alike); the chance by
/// counting all arrangements within them. Strata without one of both are left out; none left: chance 1.
RankTest rankTestWithin(std::span<const Stratum> strata);
/// The median of the differences within strata; the interval as of shiftEstimate, with the added U's spread. One
/// stratum with both at least, 40 values in each at most.
ShiftEstimate shiftWithin(std::span<const Stratum> strata, double confidence);

/// Median with an interval between two of the values; the coverage is binomial.
struct MedianInterval {
    double median = 0, low = 0, high = 0, coverage = 0;
};
/// The narrowest that reaches the confidence, the extremes where none does. Not empty.
MedianInterval medianInterval(std::span<const double> values, double confidence);

} // namespace waxis
