#include "core/radio/bands.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

struct Interval {
    double low = 0, high = 0;
};

Interval overlap(const Interval &a, const Band &b) {
    return {std::max(a.low, b.low_MHz), std::min(a.high, b.high_MHz)};
}

Interval absolute(Interval i) {
    if (i.low >= 0) return i;
    if (i.high <= 0) return {-i.high, -i.low};
    return {0, std::max(-i.low, i.high)};
}

void addMixes(std::span<const Band> sources, std::span<const Band> victims, int first, int second, int p, int q,
              std::vector<MixHit> &out) {
    const Band &a = sources[std::size_t(first)], &b = sources[std::size_t(second)];
    const Interval one{p * a.low_MHz, p * a.high_MHz};
    const Interval other = q > 0 ? Interval{q * b.low_MHz, q * b.high_MHz} : Interval{q * b.high_MHz, q * b.low_MHz};
    const Interval span = absolute({one.low + other.low, one.high + other.high});
    for (std::size_t v = 0; v < victims.size(); ++v) {
        const Interval hit = overlap(span, victims[v]);
        if (hit.high > hit.low) out.push_back({first, second, int(v), p, q, span.low, span.high, hit.low, hit.high});
    }
}

} // namespace

std::span<const SatelliteBand> satelliteBands() {
    static constexpr std::array<SatelliteBand, 12> kBands{{{"GPS L1 C/A (main lobe)", 1575.42, 2.046},
                                                           {"GPS L1 P(Y)/L1C (full)", 1575.42, 20.46},
                                                           {"GPS L2", 1227.6, 20.46},
                                                           {"GPS L5", 1176.45, 20.46},
                                                           {"GLONASS G1 (L1OF, k=-7..+6)", 1601.71875, 8.3345},
                                                           {"GLONASS G2 (L2OF, k=-7..+6)", 1245.78125, 6.7095},
                                                           {"Galileo E1", 1575.42, 24.552},
                                                           {"Galileo E5a", 1176.45, 20.46},
                                                           {"Galileo E5b", 1207.14, 20.46},
                                                           {"Galileo E6", 1278.75, 40.92},
                                                           {"BeiDou B1I", 1561.098, 4.092},
                                                           {"BeiDou B1C", 1575.42, 32.736}}};
    return kBands;
}

std::string satelliteWords(double low_MHz, double high_MHz) {
    struct Word {
        std::string_view word;
        double centre_MHz;
    };
    static constexpr std::array<Word, 7> kWords{{{"L5", 1176.45},
                                                 {"E5b", 1207.14},
                                                 {"L2", 1227.6},
                                                 {"G2", 1246},
                                                 {"E6", 1278.75},
                                                 {"L1", 1575.42},
                                                 {"G1", 1602}}};
    std::string words;
    for (const auto &[word, centre] : kWords)
        if (centre >= low_MHz && centre <= high_MHz) words += (words.empty() ? "" : " ") + std::string(word);
    return words;
}

std::vector<HarmonicHit> harmonicHits(std::span<const Band> sources, std::span<const Band> victims, int most) {
    std::vector<HarmonicHit> hits;
    for (std::size_t s = 0; s < sources.size(); ++s)
        for (int n = 1; n <= most; ++n)
            for (std::size_t v = 0; v < victims.size(); ++v) {
                if (victims[v].name == sources[s].name && n == 1) continue;
                const Interval hit = overlap({n * sources[s].low_MHz, n * sources[s].high_MHz}, victims[v]);
                if (hit.high > hit.low)
                    hits.push_back({int(s), int(v), n, hit.low, hit.high, hit.low / n, hit.high / n});
            }
    return hits;
}

std::vector<MixHit> thirdOrderHits(std::span<const Band> sources, std::span<const Band> victims) {
    std::vector<MixHit> hits;
    for (std::size_t a = 0; a < sources.size(); ++a)
        for (std::size_t b = 0; b < sources.size(); ++b) {
            if (a == b) continue;
            addMixes(sources, victims, int(a), int(b), 2, -1, hits);
            addMixes(sources, victims, int(a), int(b), 2, 1, hits);
        }
    return hits;
}

std::vector<MixHit> secondOrderHits(std::span<const Band> sources, std::span<const Band> victims) {
    std::vector<MixHit> hits;
    for (std::size_t a = 0; a < sources.size(); ++a)
        for (std::size_t b = a + 1; b < sources.size(); ++b) {
            addMixes(sources, victims, int(a), int(b), 1, 1, hits);
            const bool higherFirst = sources[a].low_MHz > sources[b].low_MHz;
            addMixes(sources, victims, int(higherFirst ? a : b), int(higherFirst ? b : a), 1, -1, hits);
        }
    return hits;
}

std::string mixName(std::span<const Band> sources, const MixHit &hit) {
    const auto &a = sources[std::size_t(hit.first)].name, &b = sources[std::size_t(hit.second)].name;
    if (hit.p == 2) return fmt::format("2*{}{}{}", a, hit.q > 0 ? "+" : "-", b);
    return hit.q > 0 ? fmt::format("{}+{}", a, b) : fmt::format("|{}-{}|", a, b);
}

} // namespace waxis
