#include "core/log/trial_report.h"

#include "core/base/by_id.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace waxis {

namespace {

constexpr double kConfidence = 0.95;
constexpr std::size_t kLeastTries = 3;
constexpr double kNever = 1e12; ///< stands for a time that nobody waited for

/// Quantile by linear interpolation between order statistics (type 7 of Hyndman and Fan 1996).
double quantile(const std::vector<double> &sorted, double share) {
    const double at = share * double(sorted.size() - 1);
    const auto below = std::size_t(at);
    const double part = at - double(below);
    return below + 1 < sorted.size() ? sorted[below] * (1 - part) + sorted[below + 1] * part : sorted[below];
}

/// For ranks: larger is worse, and what was not reached is worst of all.
double badness(const TryValue &value, bool moreBetter) {
    if (!value.reached) return kNever;
    return moreBetter ? -value.value : value.value;
}
/// For shifts: what was not reached counts with the time it had.
double lasted(const TryValue &value, bool moreBetter, double longest) {
    const double at = value.reached ? value.value : std::max(value.value, longest);
    return moreBetter ? -at : at;
}

struct Numbers {
    std::vector<double> rank, shift;
    bool anyMissed = false;
};

/// Tries of both ways by session: strata where two sessions or more have both, else one of all.
std::vector<std::pair<Numbers, Numbers>> strataOf(const Trial &trial, const std::string &a, const std::string &b,
                                                  bool &bySession) {
    const bool moreBetter = moreIsBetter(trial);
    double longest = 0;
    for (const auto &one : trial.tries)
        if (const auto value = tryValue(trial, one)) longest = std::max(longest, value->value);
    std::map<std::string, std::pair<Numbers, Numbers>> sessions;
    for (const auto &one : trial.tries) {
        if (one.setAside || (one.setup != a && one.setup != b)) continue;
        const auto value = tryValue(trial, one);
        if (!value) continue;
        auto &both = sessions[one.session];
        Numbers &numbers = one.setup == a ? both.first : both.second;
        numbers.rank.push_back(badness(*value, moreBetter));
        numbers.shift.push_back(lasted(*value, moreBetter, longest));
        numbers.anyMissed = numbers.anyMissed || !value->reached;
    }
    const auto hasBoth = [](const auto &entry) {
        return !entry.second.first.rank.empty() && !entry.second.second.rank.empty();
    };
    bySession = std::count_if(sessions.begin(), sessions.end(), hasBoth) >= 2;
    std::vector<std::pair<Numbers, Numbers>> strata;
    if (!bySession) strata.emplace_back();
    const auto append = [](Numbers &to, const Numbers &more) {
        to.rank.insert(to.rank.end(), more.rank.begin(), more.rank.end());
        to.shift.insert(to.shift.end(), more.shift.begin(), more.shift.end());
        to.anyMissed = to.anyMissed || more.anyMissed;
    };
    for (const auto &entry : sessions) {
        if (bySession) {
            if (hasBoth(entry)) strata.push_back(entry.second);
        } else {
            append(strata.front().first, entry.second.first);
            append(strata.front().second, entry.second.second);
        }
    }
    return strata;
}

/// Noether 1987: tries each of two ways that tell a chance of `better` (0.5 to 1) that one beats the other, at a level
/// of `chance` with a power of 80 %: n = (z_a/2 + z_b)^2 / (6 (p - 1/2)^2). The normal's quantiles from memory.
std::optional<int> triesThatTell(double better, double chance) {
    constexpr double kPower80 = 0.8416, kMost = 50;
    const double level = chance <= 0.011 ? 2.5758 : chance <= 0.051 ? 1.9600 : 1.6449;
    const double off = std::abs(better - 0.5);
    if (!(off > 0)) return std::nullopt;
    const double each = std::ceil((level + kPower80) * (level + kPower80) / (6 * off * off));
    return each > kMost ? std::nullopt : std::optional(int(each));
}

TrialComparison compare(const Trial &trial, const std::string &first, const std::string &second, double chance) {
    TrialComparison pair;
    auto strata = strataOf(trial, first, second, pair.bySession);
    std::vector<Stratum> ranks, shifts;
    for (auto &[a, b] : strata) {
        pair.isShiftAtLeast = pair.isShiftAtLeast || a.anyMissed || b.anyMissed;
        pair.betterTries += int(a.rank.size());
        pair.otherTries += int(b.rank.size());
        ranks.push_back({b.rank, a.rank}); // of the other against the better one: large when better is quick
        shifts.push_back({b.shift, a.shift});
    }
    pair.better = first;
    pair.other = second;
    if (pair.betterTries == 0 || pair.otherTries == 0) return pair;
    pair.test = rankTestWithin(ranks);
    double pairs = 0;
    for (const auto &stratum : ranks) pairs += double(stratum.a.size() * stratum.b.size());
    const bool counted = std::all_of(shifts.begin(), shifts.end(),
                                     [](const Stratum &s) { return s.a.size() <= 20 && s.b.size() <= 20; });
    pair.shift =
        counted ? shiftWithin(shifts, kConfidence) : shiftEstimate(shifts.front().a, shifts.front().b, kConfidence);
    if (pair.shift.shift < 0 || (pair.shift.shift == 0 && pair.test.u < pairs / 2)) {
        std::swap(pair.better, pair.other);
        std::swap(pair.betterTries, pair.otherTries);
        pair.shift = {-pair.shift.shift, -pair.shift.high, -pair.shift.low, pair.shift.coverage};
        pair.test.u = pairs - pair.test.u;
    }
    const std::size_t fewest = std::size_t(std::min(pair.betterTries, pair.otherTries));
    if (fewest < kLeastTries || pair.test.smallest > chance)
        pair.telling = Telling::tooFew;
    else
        pair.telling = pair.test.chance <= chance && pair.test.u > pairs / 2 ? Telling::told : Telling::notYet;
    if (pair.telling != Telling::told) {
        // Never surer than the tries that there are: complete separation of few is no certainty.
        const double share = std::min(pair.test.u, pairs - 0.5) / pairs;
        if (const auto each = triesThatTell(share, chance)) pair.moreEach = std::max(1, *each - int(fewest));
    }
    return pair;
}

SetupResult resultOf(const Trial &trial, const TrialSetup &setup) {
    SetupResult result;
    result.setup = setup.id;
    const bool moreBetter = moreIsBetter(trial);
    std::vector<double> sorted;
    for (const auto &one : trial.tries) {
        if (one.setAside || one.setup != setup.id) continue;
        const auto value = tryValue(trial, one);
        if (!value) continue;
        result.values.push_back(*value);
        result.notReached += !value->reached;
        sorted.push_back(badness(*value, moreBetter));
    }
    if (sorted.empty()) return result;
    std::sort(sorted.begin(), sorted.end());
    const auto shown = [&](double bad) -> std::optional<double> {
        if (bad > kNever / 1000) return std::nullopt;
        return moreBetter ? -bad : bad;
    };
    result.median = shown(quantile(sorted, 0.5));
    result.low = shown(quantile(sorted, 0.25));
    result.high = shown(quantile(sorted, 0.75));
    if (moreBetter) std::swap(result.low, result.high);
    result.best = shown(sorted.front());
    result.worst = shown(sorted.back());
    result.isWorstReached = result.worst.has_value();
    return result;
}

} // namespace

bool moreIsBetter(const Trial &trial) {
    switch (trial.quantity) {
    case TrialQuantity::secondsToSatellites:
    case TrialQuantity::secondsToFix:
    case TrialQuantity::dilution:
    case TrialQuantity::headingError:
    case TrialQuantity::temperature: return false;
    case TrialQuantity::satellitesUsed:
    case TrialQuantity::carrierToNoise:
    case TrialQuantity::rangeReached: return true;
    case TrialQuantity::other: return trial.moreIsBetter;
    }
    return false;
}

std::string_view unitOf(const Trial &trial) {
    switch (trial.quantity) {
    case TrialQuantity::secondsToSatellites:
    case TrialQuantity::secondsToFix: return "s";
    case TrialQuantity::satellitesUsed:
    case TrialQuantity::dilution: return "";
    case TrialQuantity::carrierToNoise: return "dB-Hz";
    case TrialQuantity::headingError: return "°";
    case TrialQuantity::rangeReached: return "m";
    case TrialQuantity::temperature: return "°C";
    case TrialQuantity::other: return trial.unit;
    }
    return "";
}

std::optional<TryValue> tryValue(const Trial &trial, const Try &one) {
    const bool isHeard = one.watched_s > 0;
    const auto typed = [&]() -> std::optional<TryValue> {
        if (!one.value) return std::nullopt;
        return TryValue{trial.quantity == TrialQuantity::headingError ? std::abs(*one.value) : *one.value, one.reached};
    };
    if (!isHeard) return typed();
    const auto seriesMedian = [&](auto member) -> std::optional<TryValue> {
        std::vector<double> values;
        for (const auto &point : one.series)
            if (const auto value = point.*member) values.push_back(*value);
        if (values.empty()) return std::nullopt;
        return TryValue{medianOf(std::move(values)), true};
    };
    switch (trial.quantity) {
    case TrialQuantity::secondsToSatellites: {
        const std::size_t wanted = std::size_t(std::max(1, trial.satellites)) - 1;
        if (wanted < one.reached_s.size()) return TryValue{one.reached_s[wanted], true};
        return TryValue{one.watched_s, false};
    }
    case TrialQuantity::secondsToFix: return one.fix_s ? TryValue{*one.fix_s, true} : TryValue{one.watched_s, false};
    case TrialQuantity::satellitesUsed:
        if (one.series.empty()) return typed();
        return TryValue{double(one.series.back().used), true};
    case TrialQuantity::carrierToNoise: return seriesMedian(&TryPoint::best4_dBHz);
    case TrialQuantity::dilution: return seriesMedian(&TryPoint::dilution);
    case TrialQuantity::headingError:
    case TrialQuantity::rangeReached:
    case TrialQuantity::temperature:
    case TrialQuantity::other: return typed();
    }
    return std::nullopt;
}

TrialReport trialReport(const Trial &trial, double chance) {
    TrialReport report;
    report.trial = trial.id;
    for (const auto &setup : trial.setups) report.setups.push_back(resultOf(trial, setup));
    std::map<std::string, int> beaten;
    int others = 0;
    for (std::size_t i = 0; i < trial.setups.size(); ++i) {
        others += report.setups[i].values.size() >= kLeastTries;
        for (std::size_t k = i + 1; k < trial.setups.size(); ++k) {
            if (report.setups[i].values.empty() || report.setups[k].values.empty()) continue;
            report.pairs.push_back(compare(trial, trial.setups[i].id, trial.setups[k].id, chance));
            if (report.pairs.back().telling == Telling::told) ++beaten[report.pairs.back().better];
        }
    }
    for (const auto &[setup, count] : beaten)
        if (count >= others - 1) report.winner = setup;
    return report;
}

std::string nextSetup(const Trial &trial) {
    const std::size_t ways = trial.setups.size();
    if (ways == 0) return {};
    std::map<std::string, std::size_t> tries;
    for (const auto &one : trial.tries)
        if (!one.setAside) ++tries[one.setup];
    std::size_t fewest = std::numeric_limits<std::size_t>::max();
    for (const auto &setup : trial.setups) fewest = std::min(fewest, tries[setup.id]);
    // Rounds run forth and back: within a round the first that lacks its try.
    for (std::size_t i = 0; i < ways; ++i) {
        const auto &setup = trial.setups[fewest % 2 == 0 ? i : ways - 1 - i];
        if (tries[setup.id] == fewest) return setup.id;
    }
    return trial.setups.front().id;
}

} // namespace waxis
