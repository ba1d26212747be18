// Of many load cases the worst, rail by rail, wire by wire.
#pragma once

#include "core/power/power_report.h"

namespace waxis {

struct WorstCases {
    std::vector<Rail> rails; ///< sources without loads at first, in the report's order
    std::vector<WireCurrent> wires;
    std::vector<Passage> passages;

    /// Takes what one case has more of.
    void take(const PowerReport &now, std::size_t loadCase);
};

} // namespace waxis
