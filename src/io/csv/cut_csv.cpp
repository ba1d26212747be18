#include "io/csv/cut_csv.h"

#include "io/csv/csv.h"

#include <fmt/format.h>

namespace waxis {

std::string writeCutList(const CutList &list) {
    const CsvRow header{"label",    "colour",      "gauge AWG", "length mm", "how", "strip from",
                        "strip to", "twist group", "sleeve",    "from",      "to"};
    std::vector<CsvRow> rows;
    for (const auto &r : list.rows)
        rows.push_back({r.label, r.colour, r.gauge_AWG > 0 ? fmt::format("{}", r.gauge_AWG) : std::string(),
                        fmt::format("{:.0f}", r.length_mm), r.cut, r.stripFrom, r.stripTo, r.twistGroup,
                        r.sleeved ? "yes" : "", r.from, r.to});
    auto total = [&](const std::string &label, const std::string &colour, const std::string &gauge,
                     const std::string &length, const std::string &how) {
        rows.push_back({label, colour, gauge, length, how, {}, {}, {}, {}, {}, {}});
    };
    for (const auto &s : list.stock)
        total("stock", s.colour, fmt::format("{}", s.gauge_AWG), fmt::format("{:.0f}", s.metres * 1e3),
              fmt::format("{} pieces", s.pieces));
    if (list.ties > 0) total("ties", {}, {}, {}, fmt::format("{} pieces", list.ties));
    if (list.sleeve_mm > 0) total("sleeve", {}, {}, fmt::format("{:.0f}", list.sleeve_mm), {});
    if (list.grommets > 0) total("grommets", {}, {}, {}, fmt::format("{} pieces", list.grommets));
    if (list.splices > 0) total("splices", {}, {}, {}, fmt::format("{} pieces", list.splices));
    return writeCsv(header, rows);
}

} // namespace waxis
