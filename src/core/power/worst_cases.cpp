#include "core/power/worst_cases.h"

#include <algorithm>

namespace waxis {

namespace {

void more(double &kept, double other) { kept = std::max(kept, other); }

} // namespace

void WorstCases::take(const PowerReport &report, std::size_t loadCase) {
    for (std::size_t r = 0; r < report.rails.size(); ++r) {
        const Rail &now = report.rails[r];
        Rail &kept = rails[r];
        kept.typicalByCase_A[loadCase] = now.typical_A;
        if (now.loads.empty()) continue;
        if (kept.worstCase < 0 || now.typical_A > kept.typical_A) {
            kept.worstCase = int(loadCase);
            kept.typical_A = now.typical_A;
        }
        if (kept.worstPeakCase < 0 || now.peak_A > kept.peak_A) {
            kept.worstPeakCase = int(loadCase);
            kept.peak_A = now.peak_A;
        }
        for (const auto &load : now.loads) {
            const auto same = std::find_if(kept.loads.begin(), kept.loads.end(), [&](const RailLoad &one) {
                return one.part == load.part && one.supply == load.supply;
            });
            if (same == kept.loads.end()) {
                kept.loads.push_back(load);
                continue;
            }
            same->cases |= load.cases;
            more(same->typical_A, load.typical_A);
            more(same->peak_A, load.peak_A);
        }
    }
    for (std::size_t w = 0; w < wires.size(); ++w) {
        const WireCurrent &now = report.wires[w];
        if (!now.known) continue;
        if (!wires[w].known || now.typical_A > wires[w].typical_A) wires[w].way = now.way;
        wires[w].known = true;
        more(wires[w].typical_A, now.typical_A);
        more(wires[w].peak_A, now.peak_A);
    }
    for (const auto &now : report.passages) {
        const auto same =
            std::find_if(passages.begin(), passages.end(), [&](const Passage &one) { return one.part == now.part; });
        if (same == passages.end()) {
            passages.push_back(now);
            continue;
        }
        more(same->typical_A, now.typical_A);
        more(same->peak_A, now.peak_A);
    }
}

} // namespace waxis
