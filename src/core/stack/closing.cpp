#include "core/stack/closing.h"

#include <cmath>
#include <random>

namespace waxis {

ClosingSums closingSums(std::span<const Contribution> chain) {
    ClosingSums sums;
    double against = 0, squares = 0, most = 0;
    for (std::size_t i = 0; i < chain.size(); ++i) {
        const double t = chain[i].tolerance_mm;
        sums.nominal_mm += chain[i].sign * chain[i].nominal_mm;
        against += t;
        squares += t * t;
        if (t * t > most) {
            most = t * t;
            sums.dominant = int(i);
        }
    }
    sums.worst_mm = sums.nominal_mm - against;
    sums.best_mm = sums.nominal_mm + against;
    sums.likely_mm = std::sqrt(squares);
    sums.dominantShare = squares > 0 ? most / squares : 0;
    const double sigma = sums.likely_mm / 2;
    sums.probability =
        sigma > 0 ? 0.5 * std::erfc(-sums.nominal_mm / sigma / std::sqrt(2.0)) : (sums.nominal_mm >= 0 ? 1.0 : 0.0);
    return sums;
}

double closingByDraws(std::span<const Contribution> chain, int draws, std::uint64_t seed) {
    std::mt19937_64 random(seed);
    std::normal_distribution<double> normal;
    int closes = 0;
    for (int i = 0; i < draws; ++i) {
        double left = 0;
        for (const auto &c : chain) left += c.sign * (c.nominal_mm + c.tolerance_mm / 2 * normal(random));
        closes += left >= 0;
    }
    return draws > 0 ? double(closes) / draws : 0;
}

} // namespace waxis
