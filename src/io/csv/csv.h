// Comma-separated values by RFC 4180, read forgivingly and written strictly.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace waxis {

using CsvRow = std::vector<std::string>;

struct CsvProblem {
    std::size_t line = 0; ///< from 1, where the record begins
    std::string reason;
};

struct CsvTable {
    char separator = ','; ///< comma, semicolon or tab, by what the first line holds most of outside quotes
    CsvRow header;
    std::vector<CsvRow> rows;         ///< as many fields as the header; empty records are left out
    std::vector<std::size_t> lines;   ///< where each row begins in the file
    std::vector<CsvProblem> problems; ///< records that were left out, and why
};

/// Never fails: what is not a record with the header's number of fields is a problem with its line number. A byte order
/// mark is dropped, lines end in LF, CR or CRLF, quoted fields may hold all of these; bytes that are not UTF-8 are read
/// as Latin-1. Trailing empty fields may be missing.
CsvTable parseCsv(std::string_view text);

/// CRLF after each record; fields are quoted where they hold separator, quote, line end, or a space at either end.
std::string writeCsv(const CsvRow &header, const std::vector<CsvRow> &rows, char separator = ',');

/// A number as people write it: "12.5", "12,5" (decimal comma), "1.234,5", "1,234.5", with a unit word or sign after it
/// ("12,5 g"). False where it is not one; never reads "1,234" as anything but 1.234.
bool readNumber(std::string_view text, double &value);

} // namespace waxis
