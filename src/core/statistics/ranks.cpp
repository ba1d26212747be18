#include "core/statistics/ranks.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <vector>

namespace waxis {

namespace {

constexpr std::size_t kMostCounted = 40; ///< values of both together: C(40, 20) is a whole number in a double

/// Twice the mid-rank of each value, so that they are whole; `a` first. `ties`: sum of t^3 - t over equal ones.
std::vector<int> doubledRanks(std::span<const double> a, std::span<const double> b, double &ties) {
    std::vector<double> all(a.begin(), a.end());
    all.insert(all.end(), b.begin(), b.end());
    std::vector<std::size_t> order(all.size());
    std::iota(order.begin(), order.end(), 0);
    std::sort(order.begin(), order.end(), [&](std::size_t x, std::size_t y) { return all[x] < all[y]; });
    std::vector<int> ranks(all.size());
    ties = 0;
    for (std::size_t from = 0; from < order.size();) {
        std::size_t to = from;
        while (to < order.size() && all[order[to]] == all[order[from]]) ++to;
        for (std::size_t k = from; k < to; ++k) ranks[order[k]] = int(from + to + 1); // (from + 1 + to) / 2, doubled
        const double equal = double(to - from);
        ties += equal * equal * equal - equal;
        from = to;
    }
    return ranks;
}

/// In how many ways `n` of the ranks have each sum.
std::vector<double> waysOfSum(const std::vector<int> &ranks, std::size_t n) {
    const int most = std::accumulate(ranks.begin(), ranks.end(), 0);
    std::vector<std::vector<double>> ways(n + 1, std::vector<double>(std::size_t(most) + 1, 0));
    ways[0][0] = 1;
    for (const int rank : ranks)
        for (std::size_t taken = n; taken > 0; --taken)
            for (int total = most; total >= rank; --total)
                ways[taken][std::size_t(total)] += ways[taken - 1][std::size_t(total - rank)];
    return std::move(ways[n]);
}

/// Share of the sums that lie at least as far from the middle as `sum`.
double chanceOf(const std::vector<double> &ways, int sum, int middle) {
    const int off = std::abs(sum - middle);
    double far = 0, all = 0;
    for (int total = 0; total < int(ways.size()); ++total) {
        const double count = ways[std::size_t(total)];
        all += count;
        if (std::abs(total - middle) >= off) far += count;
    }
    return far / all;
}

/// The middle of the sums of n of the doubled ranks: n (N + 1), a whole number.
int middleOf(std::size_t n, std::size_t all) { return int(n) * int(all + 1); }

/// Ways to get each sum of two independent ones.
std::vector<double> together(const std::vector<double> &a, const std::vector<double> &b) {
    std::vector<double> both(a.size() + b.size() - 1, 0);
    for (std::size_t i = 0; i < a.size(); ++i)
        if (a[i] > 0)
            for (std::size_t k = 0; k < b.size(); ++k) both[i + k] += a[i] * b[k];
    return both;
}

double choose(std::size_t n, std::size_t m) {
    double choices = 1;
    for (std::size_t i = 1; i <= n; ++i) choices *= double(m + i) / double(i);
    return choices;
}

/// Ways in which U takes each value, without ties: the Gaussian binomial's coefficients.
std::vector<double> waysOfU(std::size_t n, std::size_t m) {
    std::vector<double> ways(n * m + 1, 0);
    ways[0] = 1;
    for (std::size_t i = 1; i <= n; ++i) {
        for (std::size_t u = ways.size(); u-- > m + i;) ways[u] -= ways[u - m - i];
        for (std::size_t u = i; u < ways.size(); ++u) ways[u] += ways[u - i];
    }
    return ways;
}

/// Chance that U is less than k, for each k; by counting, beyond 40 values by the normal form.
std::vector<double> chancesBelow(std::size_t n, std::size_t m) {
    std::vector<double> below{0};
    if (n + m <= kMostCounted) {
        const auto ways = waysOfU(n, m);
        const double all = std::accumulate(ways.begin(), ways.end(), 0.0);
        for (const double count : ways) below.push_back(below.back() + count / all);
        return below;
    }
    const double mean = double(n * m) / 2, sigma = std::sqrt(double(n * m) * double(n + m + 1) / 12);
    for (std::size_t k = 1; k <= n * m + 1; ++k)
        below.push_back(std::erfc((mean - double(k) + 0.5) / (sigma * std::sqrt(2.0))) / 2);
    return below;
}

/// How many of a symmetric spread's ends may be left out on each side; `tail[k]`: chance of less than k.
template <class Tail>
std::size_t endsLeftOut(std::size_t count, double confidence, Tail tail, double &coverage) {
    std::size_t best = 1;
    coverage = 1 - 2 * tail(1);
    for (std::size_t k = 2; 2 * k <= count + 1; ++k) {
        const double covered = 1 - 2 * tail(k);
        if (covered < confidence) break;
        best = k;
        coverage = covered;
    }
    return best;
}

} // namespace

double medianOf(std::vector<double> values) {
    std::sort(values.begin(), values.end());
    const std::size_t n = values.size();
    return n % 2 ? values[n / 2] : (values[n / 2 - 1] + values[n / 2]) / 2;
}

RankTest rankTest(std::span<const double> a, std::span<const double> b) {
    RankTest test;
    if (a.empty() || b.empty()) return test;
    double ties = 0;
    const auto ranks = doubledRanks(a, b, ties);
    const int sum = std::accumulate(ranks.begin(), ranks.begin() + std::ptrdiff_t(a.size()), 0);
    const double n = double(a.size()), m = double(b.size()), all = n + m;
    test.u = sum / 2.0 - n * (n + 1) / 2;
    // Both ends of complete separation, of all ways to choose.
    test.smallest = std::min(1.0, 2 / choose(a.size(), b.size()));
    if (ranks.size() <= kMostCounted) {
        test.chance = chanceOf(waysOfSum(ranks, a.size()), sum, middleOf(a.size(), ranks.size()));
        return test;
    }
    test.isExact = false;
    const double variance = n * m / 12 * (all + 1 - ties / (all * (all - 1)));
    if (!(variance > 0)) return test;
    const double off = std::max(0.0, std::abs(test.u - n * m / 2) - 0.5);
    test.chance = std::min(1.0, std::erfc(off / std::sqrt(2 * variance)));
    return test;
}

RankTest rankTestWithin(std::span<const Stratum> strata) {
    RankTest test;
    std::vector<double> ways{1};
    double choices = 1, variance = 0, off = 0;
    int total = 0, middle = 0;
    bool any = false;
    for (const auto &[a, b] : strata) {
        if (a.empty() || b.empty()) continue;
        any = true;
        double ties = 0;
        const auto ranks = doubledRanks(a, b, ties);
        const int sum = std::accumulate(ranks.begin(), ranks.begin() + std::ptrdiff_t(a.size()), 0);
        const double n = double(a.size()), m = double(b.size()), all = n + m;
        test.u += sum / 2.0 - n * (n + 1) / 2;
        off += sum / 2.0 - n * (n + 1) / 2 - n * m / 2;
        choices *= choose(a.size(), b.size());
        variance += n * m / 12 * (all + 1 - ties / (all * (all - 1)));
        test.isExact = test.isExact && ranks.size() <= kMostCounted;
        total += sum;
        middle += middleOf(a.size(), ranks.size());
        if (test.isExact) ways = together(ways, waysOfSum(ranks, a.size()));
    }
    if (!any) return test;
    test.smallest = std::min(1.0, 2 / choices);
    if (test.isExact)
        test.chance = chanceOf(ways, total, middle);
    else if (variance > 0)
        test.chance = std::min(1.0, std::erfc(std::max(0.0, std::abs(off) - 0.5) / std::sqrt(2 * variance)));
    return test;
}

ShiftEstimate shiftWithin(std::span<const Stratum> strata, double confidence) {
    std::vector<double> differences;
    std::vector<double> ways{1};
    for (const auto &[a, b] : strata) {
        if (a.empty() || b.empty()) continue;
        for (const double x : a)
            for (const double y : b) differences.push_back(x - y);
        ways = together(ways, waysOfU(a.size(), b.size()));
    }
    std::sort(differences.begin(), differences.end());
    ShiftEstimate estimate;
    estimate.shift = medianOf(differences);
    const double all = std::accumulate(ways.begin(), ways.end(), 0.0);
    std::vector<double> below{0};
    for (const double count : ways) below.push_back(below.back() + count / all);
    const std::size_t k = endsLeftOut(
        differences.size(), confidence, [&](std::size_t i) { return below[i]; }, estimate.coverage);
    estimate.low = differences[k - 1];
    estimate.high = differences[differences.size() - k];
    return estimate;
}

ShiftEstimate shiftEstimate(std::span<const double> a, std::span<const double> b, double confidence) {
    std::vector<double> differences;
    differences.reserve(a.size() * b.size());
    for (const double x : a)
        for (const double y : b) differences.push_back(x - y);
    std::sort(differences.begin(), differences.end());
    ShiftEstimate estimate;
    estimate.shift = medianOf(differences);
    const auto below = chancesBelow(a.size(), b.size());
    const std::size_t k = endsLeftOut(
        differences.size(), confidence, [&](std::size_t i) { return below[i]; }, estimate.coverage);
    estimate.low = differences[k - 1];
    estimate.high = differences[differences.size() - k];
    return estimate;
}

MedianInterval medianInterval(std::span<const double> values, double confidence) {
    std::vector<double> sorted(values.begin(), values.end());
    std::sort(sorted.begin(), sorted.end());
    MedianInterval interval;
    interval.median = medianOf(sorted);
    const double n = double(sorted.size());
    std::vector<double> below{0};
    double ways = std::pow(0.5, n);
    for (std::size_t i = 0; i < sorted.size(); ++i) {
        below.push_back(below.back() + ways);
        ways *= (n - double(i)) / double(i + 1);
    }
    const std::size_t k = endsLeftOut(
        sorted.size(), confidence, [&](std::size_t i) { return below[i]; }, interval.coverage);
    interval.low = sorted[k - 1];
    interval.high = sorted[sorted.size() - k];
    interval.coverage = std::max(0.0, interval.coverage);
    return interval;
}

} // namespace waxis
