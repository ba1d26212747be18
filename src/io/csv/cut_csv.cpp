#include "io/csv/cut_csv.h"

#include "io/csv/csv.h"

#include <fmt/format.h>

namespace waxis {

std::string writeCutList(const CutList &list) {
    const CsvRow header{"label",       "colour",    "gauge AWG", "length mm", "how", "strip from", "strip to",
                        "twist group", "sleeve mm", "in line",   "from",      "to",  "total mm",   "pieces"};
    std::vector<CsvRow> rows;
    for (const auto &r : list.rows)
        rows.push_back({r.label,
                        r.colour,
                        r.gauge_AWG > 0 ? fmt::format("{}", r.gauge_AWG) : std::string(),
                        fmt::format("{:.0f}", r.length_mm),
                        r.cut,
                        r.stripFrom,
                        r.stripTo,
                        r.twistGroup,
                        r.sleeve_mm > 0 ? fmt::format("{:g}", r.sleeve_mm) : std::string(),
                        r.inLine,
                        r.from,
                        r.to,
                        {},
                        {}});
    // Totals stand in columns of their own: who adds up the lengths gets the pieces.
    auto total = [&](const std::string &label, const std::string &colour, const std::string &gauge,
                     const std::string &sleeve, double length_mm, int pieces) {
        rows.push_back({label,
                        colour,
                        gauge,
                        {},
                        {},
                        {},
                        {},
                        {},
                        sleeve,
                        {},
                        {},
                        {},
                        length_mm > 0 ? fmt::format("{:.0f}", length_mm) : std::string(),
                        fmt::format("{}", pieces)});
    };
    for (const auto &s : list.stock)
        total("stock", s.colour, fmt::format("{}", s.gauge_AWG), {}, s.metres * 1e3, s.pieces);
    for (const auto &s : list.sleeves)
        total("sleeve", {}, {}, fmt::format("{:g}", s.diameter_mm), s.length_mm, s.pieces);
    if (list.ties > 0) total("ties", {}, {}, {}, 0, list.ties);
    if (list.grommets > 0) total("grommets", {}, {}, {}, 0, list.grommets);
    if (list.splices > 0) total("splices", {}, {}, {}, 0, list.splices);
    return writeCsv(header, rows);
}

} // namespace waxis
