// What a craft draws while it stands and waits.
#pragma once

#include "core/build/build.h"
#include "core/pins/nets.h"
#include "core/practice/practice.h"

#include <vector>

namespace waxis {

struct CaseBalance;
struct WiringReport;

/// Current of everything but the motors from a pack, A, while the craft stands and waits, by what parts state.
struct IdleCurrent {
    double typical_A = 0, peak_A = 0;
    bool complete = true; ///< every load states its own
};
IdleCurrent idleCurrent(const Build &build, const Practice &practice, std::vector<LoadCase> loadCases,
                        const std::vector<CaseBalance> &balance, const WiringReport &wiring, const PowerNets &nets,
                        int loadCase);

} // namespace waxis
