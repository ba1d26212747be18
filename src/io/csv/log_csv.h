// The log's entries and trials as CSV, out and in.
#pragma once

#include "core/build/edit_result.h"
#include "core/build/log.h"
#include "io/csv/csv.h"

namespace waxis {

/// One row an entry: session's time and place, quantity, what it is of, the values with their units in the header of a
/// column of their own, doubt, words. Reading it back gives the same entries.
std::string writeEntries(const Build &build);

/// One row a try: trial, way, session, time, value with unit, whether it was reached.
std::string writeTries(const Build &build);

struct EntryList {
    std::vector<Session> sessions; ///< that entries name by their time, and the build does not have
    std::vector<Entry> entries;    ///< `session`: the id of one of the build's or of `sessions`
    std::vector<CsvProblem> problems;
};

/// Columns by their names: "quantity" and "values" have to be there, "time", "place", "of", "doubt", "word", "text",
/// "cure", "blocks", "pack full", "set aside", "load case" and "instrument" may be. A quantity by its key, its name in
/// files or its title; values as they are typed, with units. A row that cannot be read is a problem; the others are
/// kept. Rows without a time go to the build's last session.
EntryList readEntryList(const CsvTable &table, const Build &build);

/// The build with them. Errors: what addEntry says.
EditResult takeEntryList(const Build &build, const EntryList &list);

struct TryList {
    struct Row {
        std::string trial; ///< id
        Try one;
    };
    std::vector<Row> rows;
    std::vector<CsvProblem> problems;
};
/// Columns "trial" and "way" (ids, or question and name) and "value"; "time", "reached", "note", "set aside" may be.
TryList readTryList(const CsvTable &table, const Build &build);
EditResult takeTryList(const Build &build, const TryList &list);

} // namespace waxis
