#include "io/csv/csv.h"

#include "io/text_encoding.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

char likelySeparator(std::string_view text) {
    std::size_t commas = 0, semicolons = 0, tabs = 0;
    bool quoted = false;
    for (char c : text) {
        if (c == '"') quoted = !quoted;
        if (quoted) continue;
        if (c == '\n' || c == '\r') break;
        commas += c == ',';
        semicolons += c == ';';
        tabs += c == '\t';
    }
    return tabs > commas && tabs > semicolons ? '\t' : semicolons >= commas && semicolons > 0 ? ';' : ',';
}

bool isBlank(const CsvRow &row) {
    return std::all_of(row.begin(), row.end(),
                       [](const std::string &field) { return field.find_first_not_of(" \t") == std::string::npos; });
}

} // namespace

CsvTable parseCsv(std::string_view bytes) {
    CsvTable table;
    std::string text = io::asUtf8(bytes);
    if (text.starts_with("\xEF\xBB\xBF")) text.erase(0, 3);
    table.separator = likelySeparator(text);
    std::size_t at = 0, line = 1;
    bool headerSeen = false;
    while (at < text.size()) {
        const std::size_t firstLine = line;
        CsvRow row;
        std::string problem;
        for (bool recordEnds = false; !recordEnds;) {
            std::string field;
            if (at < text.size() && text[at] == '"') {
                ++at;
                bool closed = false;
                while (at < text.size()) {
                    const char c = text[at++];
                    if (c == '"') {
                        if (at < text.size() && text[at] == '"') {
                            field += '"';
                            ++at;
                            continue;
                        }
                        closed = true;
                        break;
                    }
                    if (c == '\n' || (c == '\r' && (at >= text.size() || text[at] != '\n'))) ++line;
                    field += c;
                }
                if (!closed) problem = "a quote is opened and never closed";
                while (at < text.size() && text[at] != table.separator && text[at] != '\n' && text[at] != '\r') {
                    if (text[at] != ' ' && text[at] != '\t' && problem.empty()) problem = "text after a closing quote";
                    ++at;
                }
            } else {
                while (at < text.size() && text[at] != table.separator && text[at] != '\n' && text[at] != '\r')
                    field += text[at++];
            }
            row.push_back(std::move(field));
            if (at >= text.size()) break;
            recordEnds = text[at] != table.separator;
            if (recordEnds) {
                if (text[at] == '\r' && at + 1 < text.size() && text[at + 1] == '\n') ++at;
                ++line;
            }
            ++at;
            if (!recordEnds && at == text.size()) { // a separator as the very last byte: one more empty field
                row.emplace_back();
                break;
            }
        }
        if (problem.empty() && isBlank(row)) continue;
        if (!problem.empty()) {
            table.problems.push_back({firstLine, problem});
            continue;
        }
        if (!headerSeen) {
            table.header = std::move(row);
            headerSeen = true;
            continue;
        }
        if (row.size() > table.header.size() && std::all_of(row.begin() + std::ptrdiff_t(table.header.size()),
                                                            row.end(), [](const std::string &f) { return f.empty(); }))
            row.resize(table.header.size());
        if (row.size() > table.header.size()) {
            table.problems.push_back(
                {firstLine, fmt::format("{} fields, the header has {}", row.size(), table.header.size())});
            continue;
        }
        row.resize(table.header.size());
        table.rows.push_back(std::move(row));
        table.lines.push_back(firstLine);
    }
    return table;
}

std::string writeCsv(const CsvRow &header, const std::vector<CsvRow> &rows, char separator) {
    std::string out;
    auto record = [&](const CsvRow &row) {
        for (std::size_t i = 0; i < row.size(); ++i) {
            const std::string &field = row[i];
            if (i > 0) out += separator;
            const bool quote = field.find_first_of("\"\r\n") != std::string::npos ||
                               field.find(separator) != std::string::npos ||
                               (!field.empty() && (field.front() == ' ' || field.back() == ' '));
            if (!quote) {
                out += field;
                continue;
            }
            out += '"';
            for (char c : field) {
                if (c == '"') out += '"';
                out += c;
            }
            out += '"';
        }
        out += "\r\n";
    };
    record(header);
    for (const auto &row : rows) record(row);
    return out;
}

bool readNumber(std::string_view text, double &value) {
    while (!text.empty() && (text.front() == ' ' || text.front() == '\t')) text.remove_prefix(1);
    std::string digits;
    std::size_t at = 0;
    if (at < text.size() && (text[at] == '+' || text[at] == '-')) {
        if (text[at] == '-') digits += '-';
        ++at;
    }
    std::size_t lastMark = std::string_view::npos, marks = 0;
    char markKind = 0;
    bool mixed = false;
    std::size_t end = at;
    while (end < text.size() &&
           ((text[end] >= '0' && text[end] <= '9') || text[end] == '.' || text[end] == ',' || text[end] == '\'')) {
        if (text[end] == '.' || text[end] == ',') {
            if (markKind && markKind != text[end]) mixed = true;
            markKind = text[end];
            lastMark = end;
            ++marks;
        }
        ++end;
    }
    // What comes last of "." and "," is the decimal mark, unless the same mark stands several times.
    const bool grouped = marks > 1 && !mixed;
    bool any = false;
    for (std::size_t i = at; i < end; ++i) {
        if (text[i] >= '0' && text[i] <= '9') {
            digits += text[i];
            any = true;
        } else if (i == lastMark && !grouped) {
            digits += '.';
        }
    }
    if (!any) return false;
    // After the number only a unit: letters, degree sign and the like, no further figures.
    for (std::size_t i = end; i < text.size(); ++i)
        if (text[i] >= '0' && text[i] <= '9') return false;
    double read = 0;
    const auto [last, error] = std::from_chars(digits.data(), digits.data() + digits.size(), read);
    if (error != std::errc() || last != digits.data() + digits.size() || !std::isfinite(read)) return false;
    value = read;
    return true;
}

} // namespace waxis
