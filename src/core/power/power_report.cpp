#include "core/power/power_report.h"

#include "core/power/circuit.h"

namespace waxis {

CellVolts cellVolts(const Electrical &pack) {
    CellVolts volts;
    volts.full_V = pack.cellFull_V.value_or(4.2);
    if (volts.full_V > 4.25) volts.nominal_V = 3.8;
    return volts;
}

RailTap tapOf(const Build &build, const PowerReport &power, const Rail &rail) {
    if (rail.output == "BAT") {
        for (const auto &node : power.nets.nodes) {
            const Part &part = build.parts[std::size_t(node.part)];
            const PartType *board = typeOf(build, part);
            if (node.supply == "BAT" && board &&
                (board->kind == PartKind::distributionBoard || board->kind == PartKind::fourInOneEsc))
                return {part.id, "BAT"};
        }
        return {};
    }
    for (const auto &node : power.nets.nodes) {
        const Part &part = build.parts[std::size_t(node.part)];
        if (part.id != rail.part) continue;
        if (const PowerOutput *output = outputOf(*typeOf(build, part), node.supply);
            output && output->id == rail.output)
            return {part.id, node.supply};
    }
    return {};
}

PowerReport powerReport(const Build &build, const Practice &practice, const std::vector<LoadCase> &loadCases,
                        const std::vector<CaseBalance> &balance, const std::vector<double> &cut_mm,
                        const PowerNets *nets) {
    return Circuit(build, practice, loadCases, balance, cut_mm, nets).work();
}

} // namespace waxis
