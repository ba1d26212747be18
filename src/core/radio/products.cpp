#include "core/radio/products.h"

#include "core/radio/bands.h"
#include "core/radio/best_pair.h"
#include "core/radio/decibel.h"
#include "core/radio/free_space.h"

#include <algorithm>
#include <cstdlib>

namespace waxis {

static constexpr int kMostHarmonic = 7;

static std::vector<Band> bandsOf(const std::vector<RadioUse> &radios, const std::vector<int> &which) {
    std::vector<Band> bands;
    for (const int r : which) {
        const RadioUse &radio = radios[std::size_t(r)];
        bands.push_back({radio.id(), radio.low_MHz, radio.high_MHz});
    }
    return bands;
}

std::vector<HarmonicProduct> findHarmonics(const std::vector<RadioUse> &radios, const std::vector<int> &senders,
                                           const std::vector<int> &listeners, const Practice &practice,
                                           const std::vector<LineShadow> &shadows) {
    std::vector<HarmonicProduct> products;
    const auto sources = bandsOf(radios, senders), victims = bandsOf(radios, listeners);
    for (const auto &hit : harmonicHits(sources, victims, kMostHarmonic)) {
        if (hit.order == 1) continue; // the cell itself
        const int s = senders[std::size_t(hit.source)], l = listeners[std::size_t(hit.victim)];
        const RadioUse &sender = radios[std::size_t(s)], &listener = radios[std::size_t(l)];
        if (sender.part == listener.part || !(sender.cases & listener.cases)) continue;
        const BestPair pair = bestPair(sender, listener, (hit.low_MHz + hit.high_MHz) / 2, practice, shadows);
        if (!pair.found) continue;
        HarmonicProduct product{s, l, hit.order, hit.low_MHz, hit.high_MHz, 0, 0};
        product.level_dBm = *sender.power_dBm - sender.suppression_dB + pair.coupling.total_dB;
        product.rise_dB = noiseRise_dB(product.level_dBm - floorOf(listener));
        products.push_back(product);
    }
    return products;
}

/// Whether a frequency passes the filters of a radio: its band and as much again on either side.
static bool isWithin(double f_MHz, const RadioUse &radio) {
    const double room_MHz = std::max(radio.high_MHz - radio.low_MHz, 0.03 * radio.centre_MHz);
    return f_MHz >= radio.low_MHz - room_MHz && f_MHz <= radio.high_MHz + room_MHz;
}

std::vector<MixProduct> findMixes(const std::vector<RadioUse> &radios, const std::vector<int> &senders,
                                  const std::vector<int> &listeners, const Practice &practice,
                                  const std::vector<LineShadow> &shadows) {
    std::vector<MixProduct> products;
    const auto sources = bandsOf(radios, senders), victims = bandsOf(radios, listeners);
    auto hits = secondOrderHits(sources, victims);
    const auto third = thirdOrderHits(sources, victims);
    hits.insert(hits.end(), third.begin(), third.end());
    for (const auto &hit : hits) {
        const int a = senders[std::size_t(hit.first)], b = senders[std::size_t(hit.second)],
                  l = listeners[std::size_t(hit.victim)];
        const RadioUse &one = radios[std::size_t(a)], &other = radios[std::size_t(b)],
                       &listener = radios[std::size_t(l)];
        if (one.part == other.part || !(one.cases & other.cases & listener.cases)) continue;
        // A product within one of the two's own band beside its own listener is that link's matter.
        if (one.part == listener.part || other.part == listener.part) continue;
        MixProduct product;
        product.first = a;
        product.second = b;
        product.listener = l;
        product.p = hit.p;
        product.q = hit.q;
        product.low_MHz = hit.low_MHz;
        product.high_MHz = hit.high_MHz;
        product.level_dBm = kSilence_dBm;
        product.stated = one.filter_dB && other.filter_dB;
        const double f_MHz = (hit.low_MHz + hit.high_MHz) / 2;
        const auto mixedAt = [&](int in, int timesGuest, int at, int timesHost) {
            const RadioUse &guest = radios[std::size_t(in)], &host = radios[std::size_t(at)];
            const BestPair there = bestPair(guest, host, guest.centre_MHz, practice, shadows);
            const BestPair on = bestPair(host, listener, f_MHz, practice, shadows);
            if (!there.found || !on.found) return;
            const double filter_dB = host.filter_dB.value_or(practice[Limit::mixFilter]);
            const double guest_dBm =
                *guest.power_dBm + there.coupling.total_dB - (isWithin(guest.centre_MHz, host) ? 0 : filter_dB);
            const double intercept_dBm =
                host.intercept_dBm.value_or(host.fullPower_dBm + practice[Limit::mixIntercept]);
            const double level_dBm =
                mixingLevel_dBm(*host.power_dBm, guest_dBm, std::abs(timesHost), std::abs(timesGuest), intercept_dBm) -
                (isWithin(f_MHz, host) ? 0 : filter_dB) + on.coupling.total_dB;
            if (level_dBm <= product.level_dBm) return;
            product.level_dBm = level_dBm;
            product.at = at;
            product.host_dBm = *host.power_dBm;
            product.guest_dBm = guest_dBm;
            product.intercept_dBm = intercept_dBm;
            product.filter_dB = filter_dB;
        };
        mixedAt(a, hit.p, b, hit.q);
        mixedAt(b, hit.q, a, hit.p);
        if (product.level_dBm <= kSilence_dBm) continue;
        product.rise_dB = noiseRise_dB(product.level_dBm - floorOf(listener));
        products.push_back(product);
    }
    return products;
}

} // namespace waxis
