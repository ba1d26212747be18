#include "io/csv/mass_csv.h"

#include "core/balance/breakdown.h"
#include "core/balance/mass_rows.h"
#include "core/derived/all_up.h"
#include "io/csv/csv.h"
#include "io/names.h"

#include <fmt/format.h>

namespace waxis {

std::string writeMassTable(const Build &build, const Derived &derived) {
    CsvRow header{"id",   "name", "group", "grams",        "plus or minus g", "source",
                  "x mm", "y mm", "z mm",  "forward g mm", "to the left g mm"};
    for (const auto &loadCase : derived.loadCases) header.push_back(loadCase.name + " g");
    std::vector<CsvRow> rows;
    const auto two = [](double value) { return fmt::format("{:.2f}", value == 0 ? 0.0 : value); };
    const auto one = [](double value) { return fmt::format("{:.1f}", std::abs(value) < 0.05 ? 0.0 : value); };
    for (const auto &row : derived.massRows) {
        const Vec3 at = row.element.centroid_mm, from = at - derived.thrustCentre_mm;
        CsvRow fields{row.id, displayName(build, row.id), std::string(io::nameOf(gramGroupOf(build, row)))};
        if (row.known)
            fields.insert(fields.end(),
                          {two(row.element.mass_g), two(row.tolerance_g), std::string(io::nameOf(row.source))});
        else
            fields.insert(fields.end(), {"", "", "unknown"});
        for (int i = 0; i < 3; ++i) fields.push_back(one(at[i]));
        fields.push_back(row.known ? one(row.element.mass_g * from.x()) : "");
        fields.push_back(row.known ? one(row.element.mass_g * from.y()) : "");
        for (std::size_t i = 0; i < derived.loadCases.size(); ++i)
            fields.push_back(row.known && row.cases >> i & 1 ? two(row.element.mass_g) : "");
        rows.push_back(std::move(fields));
    }
    CsvRow sums(header.size());
    sums[0] = "sum";
    sums[1] = "All-up";
    for (std::size_t i = 0; i < allUpCount(derived); ++i) sums[11 + i] = two(allUp(derived, i).mass_g);
    rows.push_back(std::move(sums));
    return writeCsv(header, rows);
}

} // namespace waxis
