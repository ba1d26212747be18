#include "core/catalog/pasted_types.h"

#include "core/catalog/connectors.h"
#include "core/catalog/find_types.h"
#include "core/catalog/fresh_types.h"
#include "core/catalog/kind_words.h"
#include "core/catalog/quick_fields.h"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr std::size_t kMostRows = 500, kLongestName = 100;

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r\n");
    if (first == std::string_view::npos) return {};
    return std::string(text.substr(first, text.find_last_not_of(" \t\r\n") - first + 1));
}

std::string lower(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return text;
}

std::vector<std::string> wordsOf(const std::string &text) {
    std::vector<std::string> words;
    std::string word;
    for (const char c : text + " ")
        if (c == ' ' || c == '\t') {
            if (!word.empty()) words.push_back(word);
            word.clear();
        } else {
            word += c;
        }
    return words;
}

/// The fields of one line; quotes keep what parts them, two quotes are one.
std::vector<std::string> cellsOf(std::string_view line, char parted) {
    std::vector<std::string> cells(1);
    bool quoted = false;
    for (std::size_t i = 0; i < line.size(); ++i) {
        const char c = line[i];
        if (quoted && c == '"' && i + 1 < line.size() && line[i + 1] == '"') {
            cells.back() += c;
            ++i;
        } else if (c == '"' && (quoted || trimmed(cells.back()).empty())) {
            quoted = !quoted;
        } else if (c == parted && !quoted) {
            cells.emplace_back();
        } else {
            cells.back() += c;
        }
    }
    for (auto &cell : cells) cell = trimmed(cell);
    return cells;
}

/// Tabs where there are any, else semicolons, else commas.
char partedBy(std::string_view head) {
    for (const char c : {'\t', ';'})
        if (head.find(c) != std::string_view::npos) return c;
    return ',';
}

/// A head without the unit behind it: "length, mm", "grams (g)" and "Length [mm]" are length and grams.
std::string headWord(const std::string &head) { return trimmed(lower(head.substr(0, head.find_first_of(",([")))); }

std::optional<PartKind> kindNamed(const std::string &text) {
    const std::string wanted = lower(text);
    for (int k = 0; k <= int(PartKind::other); ++k) {
        const auto synonyms = kindSynonyms(PartKind(k));
        if (kindName(PartKind(k)) == wanted || std::find(synonyms.begin(), synonyms.end(), wanted) != synonyms.end())
            return PartKind(k);
    }
    return std::nullopt;
}

bool means(const QuickField &field, const std::string &head) {
    if (head == field.id || head == lower(std::string(field.title))) return true;
    return field.measure == Measure::mass && (head == "weight" || head == "mass" || head == "grams" || head == "g");
}

bool meansConnectors(const std::string &head) { return head == "connectors" || head == "connector"; }

/// Heads that belong to a field of any kind of part.
bool isKnownHead(const std::string &head) {
    if (head == "name" || head == "kind" || head == "like" || meansConnectors(head)) return true;
    for (int k = 0; k <= int(PartKind::other); ++k)
        for (const auto &field : quickFields(freshType(PartKind(k), {})))
            if (means(field, head)) return true;
    return false;
}

/// Lines with anything in them, with their numbers from 1.
std::vector<std::pair<int, std::string>> linesOf(std::string_view text) {
    std::vector<std::pair<int, std::string>> lines;
    int number = 0;
    while (!text.empty()) {
        ++number;
        const auto end = text.find('\n');
        const std::string_view line = text.substr(0, end);
        text.remove_prefix(end == std::string_view::npos ? text.size() : end + 1);
        if (!trimmed(line).empty()) lines.emplace_back(number, std::string(line));
    }
    return lines;
}

/// The heads of the columns and the cells of one row under them.
struct RowCells {
    const std::vector<std::string> &heads;
    std::vector<std::string> cells;
    std::string at(std::size_t column) const { return column < cells.size() ? cells[column] : std::string(); }
    std::string under(const std::string &head) const {
        const auto column = std::find(heads.begin(), heads.end(), head);
        return column == heads.end() ? std::string() : at(std::size_t(column - heads.begin()));
    }
};

/// What a row is made of: a fresh part of its kind, or the one that it says it is like.
PartType modelOf(const RowCells &cells, const TypeTable &library, PastedRow &row) {
    const std::string kind = cells.under("kind"), like = cells.under("like");
    const auto named = kindNamed(kind);
    const PartKind wanted = named.value_or(PartKind::other);
    if (!kind.empty() && !named) row.problems.push_back(fmt::format("There is no kind of part \"{}\".", kind));
    if (like.empty()) {
        if (!named && kind.empty()) row.problems.emplace_back("It needs a kind, or a part that it is like.");
        return freshType(wanted, {});
    }
    const auto found = findTypes(library, wordsOf(like));
    const auto fits =
        std::find_if(found.begin(), found.end(), [&](const PartType *type) { return !named || type->kind == wanted; });
    if (fits == found.end()) {
        row.problems.push_back(fmt::format("Nothing in the library is like \"{}\".", like));
        return freshType(wanted, {});
    }
    row.model = (*fits)->name;
    return **fits;
}

/// Sizes, weights, currents and connectors of a row.
void readFields(const RowCells &cells, PastedRow &row) {
    for (const auto &field : quickFields(row.type))
        for (std::size_t c = 0; c < cells.heads.size(); ++c) {
            const std::string value = cells.at(c);
            if (value.empty() || !means(field, cells.heads[c])) continue;
            const auto read = readQuantity(value, field.measure);
            if (!read)
                row.problems.push_back(fmt::format("{}: {}", field.title, wrongQuantity(value, field.measure)));
            else if (*read < field.least || *read > field.most)
                row.problems.push_back(
                    fmt::format("{}: {} is not within {:g} to {:g}.", field.title, value, field.least, field.most));
            else
                field.set(row.type, *read);
        }
    for (std::size_t c = 0; c < cells.heads.size(); ++c)
        if (const std::string value = cells.at(c); !value.empty() && meansConnectors(cells.heads[c]))
            if (std::string wrong = setConnectors(row.type, value); !wrong.empty())
                row.problems.push_back(std::move(wrong));
}

} // namespace

PastedTable typesFromTable(std::string_view text, const TypeTable &library, const TypeTable &taken) {
    PastedTable table;
    const auto lines = linesOf(text);
    if (lines.size() < 2) {
        table.problem = "A line with heads (name, kind, grams ...) and a line for each part are wanted.";
        return table;
    }
    if (lines.size() > kMostRows + 1) {
        table.problem = fmt::format("{} parts at once are too many; {} at most.", lines.size() - 1, kMostRows);
        return table;
    }
    const char parted = partedBy(lines.front().second);
    std::vector<std::string> heads;
    for (const auto &cell : cellsOf(lines.front().second, parted)) heads.push_back(headWord(cell));
    if (std::find(heads.begin(), heads.end(), "name") == heads.end()) {
        table.problem = fmt::format("None of the heads is \"name\": {}.", trimmed(lines.front().second));
        return table;
    }
    for (const auto &head : heads)
        if (!head.empty() && !isKnownHead(head)) table.unknownColumns.push_back(head);

    TypeTable used = taken;
    for (const auto &[id, type] : library) used.emplace(id, type);
    for (std::size_t l = 1; l < lines.size(); ++l) {
        PastedRow row;
        row.line = lines[l].first;
        const RowCells cells{heads, cellsOf(lines[l].second, parted)};
        const std::string name = cells.under("name");
        if (name.empty()) row.problems.push_back("It has no name.");
        if (name.size() > kLongestName)
            row.problems.push_back(fmt::format("The name is longer than {} letters.", kLongestName));
        const PartType model = modelOf(cells, library, row);
        row.type = ownTypeLike(model, name.substr(0, kLongestName), used);
        readFields(cells, row);
        used.emplace(row.type.id, row.type);
        table.rows.push_back(std::move(row));
    }
    return table;
}

} // namespace waxis
