#include "core/radio/best_pair.h"

#include "core/radio/free_space.h"

namespace waxis {

const LineShadow *shadowBetween(const std::vector<LineShadow> &shadows, const std::string &a, const std::string &b) {
    for (const auto &shadow : shadows)
        if ((shadow.from == a && shadow.to == b) || (shadow.from == b && shadow.to == a)) return &shadow;
    return nullptr;
}

BestPair bestPair(const RadioUse &sender, const RadioUse &listener, double f_MHz, const Practice &practice,
                  const std::vector<LineShadow> &shadows) {
    BestPair best;
    for (std::size_t a = 0; a < sender.antennas.size(); ++a)
        for (std::size_t b = 0; b < listener.antennas.size(); ++b) {
            const Coupling c = couple(sender.antennas[a], listener.antennas[b], f_MHz, practice,
                                      shadowBetween(shadows, sender.antennas[a].part, listener.antennas[b].part));
            if (!best.found || c.total_dB > best.coupling.total_dB) best = {c, int(a), int(b), true};
        }
    return best;
}

double floorOf(const RadioUse &listener) {
    return noiseFloor_dBm(listener.bandwidth_MHz * 1e6, listener.noiseFigure_dB);
}

} // namespace waxis
