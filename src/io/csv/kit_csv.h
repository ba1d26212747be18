// Kit lists in and out.
#pragma once

#include "core/build/edit_result.h"
#include "core/practice/practice.h"
#include "io/csv/csv.h"

namespace waxis {

/// What a column of a kit list means.
enum class KitColumn { ignore, item, name, kind, maker, count, mass, tolerance, size, note };
struct KitColumnText {
    KitColumn column;
    std::string_view id; ///< as in exported headers
    std::string_view title;
};
const std::vector<KitColumnText> &kitColumns();

/// A first mapping by the header's words ("Qty", "Stück", "Gewicht (g)", "pcs"...); one column per meaning.
std::vector<KitColumn> guessKitColumns(const CsvRow &header);

enum class KitMatch {
    inBuild,   ///< a type (or frame piece) that the build has
    inLibrary, ///< a library type, which the build then embeds
    isNew      ///< nothing of that name: a new type without size
};

struct KitListRow {
    std::size_t line = 0;
    KitMatch match = KitMatch::isNew;
    std::string item, name; ///< item: id of the type or frame piece
    PartKind kind = PartKind::other;
    std::string maker, note;
    std::optional<int> count;
    Measured mass_g;
    std::optional<Vec3> size_mm;
};

struct KitList {
    std::vector<KitListRow> rows;
    std::vector<CsvProblem> problems; ///< rows that were left out, and why; those of the table first
};

/// Rows need an item or a name. A field that cannot be read makes its row a problem; the others are kept. Two rows of
/// one item: their counts add up, the last mass and size win.
KitList readKitList(const CsvTable &table, const std::vector<KitColumn> &columns, const Build &build,
                    const Practice &practice, const TypeTable &library);

/// The build with the list's counts, masses, sizes and notes.
EditResult takeKitList(const Build &build, const KitList &list, const TypeTable &library);

/// The kit as a list with a header; reading it back with the guessed columns gives the same kit.
std::string writeKitList(const Build &build, const Practice &practice);

} // namespace waxis
