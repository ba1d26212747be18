// What a trial tells, and what it does not tell yet.
#pragma once

#include "core/build/log.h"
#include "core/statistics/ranks.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace waxis {

/// A try in the trial's quantity.
struct TryValue {
    double value = 0;
    bool reached = true; ///< false: not there when it was given up at `value`
};
/// None: it says nothing of that quantity.
std::optional<TryValue> tryValue(const Trial &trial, const Try &one);

std::string_view unitOf(const Trial &trial);
bool moreIsBetter(const Trial &trial);

/// One way of a trial in numbers. Tries that did not get there rank last, and none is dropped.
struct SetupResult {
    std::string setup;
    std::vector<TryValue> values; ///< by time
    int notReached = 0;
    std::optional<double> median, low, high; ///< quartiles; none: no tries, or that one was not reached
    std::optional<double> best, worst;
    bool isWorstReached = true;
};

enum class Telling {
    tooFew, ///< under three tries each, or even complete separation would not be rare
    notYet, ///< chance alone could do it
    told    ///< one is better
};

/// Two ways of a trial.
struct TrialComparison {
    std::string better, other; ///< setups; better: by the shift, where nothing is told too
    int betterTries = 0, otherTries = 0;
    bool bySession = false; ///< compared within sessions, since several of them have both
    RankTest test;
    ShiftEstimate shift;         ///< by how much better, in the trial's unit, never negative in its middle
    bool isShiftAtLeast = false; ///< tries that were given up stand in it with the time they had
    Telling telling = Telling::tooFew;
    std::optional<int> moreEach; ///< tries each that would likely tell this difference; none: over 50, or told
};

struct TrialReport {
    std::string trial;
    std::vector<SetupResult> setups; ///< as in the trial
    std::vector<TrialComparison> pairs;
    /// The way that is better than each other one that has three tries or more; empty: none is.
    std::string winner;
};

/// Tries that are set aside do not count. `chance`: below which a difference counts, 0 to 1.
TrialReport trialReport(const Trial &trial, double chance);

/// The next try of a fair plan: A B B A, A B C C B A, and so on from the tries that there are; empty: no setups.
std::string nextSetup(const Trial &trial);

} // namespace waxis
