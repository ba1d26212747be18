#include "core/power/idle_current.h"

#include "core/balance/case_balance.h"
#include "core/power/power_report.h"
#include "core/wiring/wire_report.h"

#include <algorithm>

namespace waxis {

IdleCurrent idleCurrent(const Build &build, const Practice &practice, std::vector<LoadCase> loadCases,
                        const std::vector<CaseBalance> &balance, const WiringReport &wiring, const PowerNets &nets,
                        int loadCase) {
    // The same circuit with the craft standing: motors draw nothing then.
    LoadCase &now = loadCases[std::size_t(loadCase)];
    now.kind = LoadCaseKind::bench;
    now.usb.clear();
    std::vector<double> cut_mm;
    for (const auto &wire : wiring.wires) cut_mm.push_back(wire.cut_mm);
    const PowerReport report = powerReport(build, practice, loadCases, balance, cut_mm, &nets);
    IdleCurrent idle;
    for (const auto &rail : report.rails) {
        if (rail.output == "BAT" && std::size_t(loadCase) < rail.typicalByCase_A.size())
            idle.typical_A += rail.typicalByCase_A[std::size_t(loadCase)];
        if (rail.output == "BAT" && rail.typical_A > 0 && rail.worstCase == loadCase) idle.peak_A += rail.peak_A;
        for (const auto &load : rail.loads) idle.complete &= load.known || !(load.cases >> loadCase & 1);
    }
    idle.peak_A = std::max(idle.peak_A, idle.typical_A);
    return idle;
}

} // namespace waxis
