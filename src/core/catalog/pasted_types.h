// Part types out of a pasted table: a shop's order, one's own spreadsheet.
#pragma once

#include "core/catalog/part_type.h"

#include <string>
#include <string_view>
#include <vector>

namespace waxis {

/// One row of the table and what became of it.
struct PastedRow {
    int line = 0; ///< of the text, from 1
    PartType type;
    std::string model;                 ///< name of the type that it is like; empty: a plain one of its kind
    std::vector<std::string> problems; ///< "grams: \"12 mm\" is no weight ..."; empty: it can be kept
};

struct PastedTable {
    std::vector<PastedRow> rows;
    std::vector<std::string> unknownColumns; ///< heads that say nothing to a part
    std::string problem;                     ///< of the table as a whole; empty: it could be read
};

/// Reads a table with heads in its first line, columns parted by tabs, semicolons or commas (a field with one of them
/// in quotes). Heads: "name" (needed), "kind" and "like" (words of the part that it is like, as one would search for
/// it), "connectors" (see setConnectors), and the fields of core/catalog/quick_fields by id or title, with or without
/// its unit: "grams", "length, mm" ...
/// Values carry units where they like. Ids are free among `taken` and one another. Never throws.
PastedTable typesFromTable(std::string_view text, const TypeTable &library, const TypeTable &taken);

} // namespace waxis
