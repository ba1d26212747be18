#include "io/csv/kit_csv.h"

#include "core/catalog/part_check.h"
#include "core/kit/kit.h"
#include "io/names.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <set>

namespace waxis {

namespace {

std::string folded(std::string_view text) {
    std::string out;
    for (char c : text) {
        const auto byte = static_cast<unsigned char>(c);
        if (byte >= 'A' && byte <= 'Z')
            out += char(byte + 32);
        else if (byte >= 0x80 || std::isalnum(byte) || byte == '+')
            out += c;
        else if (!out.empty() && out.back() != ' ')
            out += ' ';
    }
    while (!out.empty() && out.back() == ' ') out.pop_back();
    if (text.ends_with('-') && !out.empty()) out += '-'; // "CW-" is not "CW"
    return out;
}

std::string trimmed(const std::string &text) {
    const auto first = text.find_first_not_of(" \t\r\n"), last = text.find_last_not_of(" \t\r\n");
    return first == std::string::npos ? std::string() : text.substr(first, last - first + 1);
}

bool readSize(const std::string &text, Vec3 &size) {
    // "36 x 36 x 7.5", "36×36×7,5 mm", "36*36*7"
    std::vector<std::string> words(1);
    for (std::size_t i = 0; i < text.size(); ++i) {
        if (text.compare(i, 2, "\xC3\x97") == 0) {
            words.emplace_back();
            ++i;
        } else if (text[i] == 'x' || text[i] == 'X' || text[i] == '*') {
            words.emplace_back();
        } else {
            words.back() += text[i];
        }
    }
    if (words.size() != 3) return false;
    for (int i = 0; i < 3; ++i)
        if (!readNumber(words[std::size_t(i)], size[i]) || !(size[i] > 0) || !(size[i] < 1e5)) return false;
    return true;
}

std::optional<PartKind> kindFrom(const std::string &text) {
    std::string word = folded(text);
    std::replace(word.begin(), word.end(), ' ', '-');
    return io::fromName<PartKind>(word);
}

} // namespace

const std::vector<KitColumnText> &kitColumns() {
    static const std::vector<KitColumnText> table{
        {KitColumn::ignore, "", "(leave out)"},
        {KitColumn::item, "item", "Item"},
        {KitColumn::name, "name", "Name"},
        {KitColumn::kind, "kind", "Kind"},
        {KitColumn::maker, "maker", "Maker"},
        {KitColumn::count, "in hand", "In hand"},
        {KitColumn::mass, "mass g", "Mass of one, g"},
        {KitColumn::tolerance, "tolerance g", "± g"},
        {KitColumn::size, "size mm", "Size, mm"},
        {KitColumn::note, "note", "Note"},
    };
    return table;
}

std::vector<KitColumn> guessKitColumns(const CsvRow &header) {
    static const std::vector<std::pair<KitColumn, std::set<std::string>>> words{
        {KitColumn::item, {"item", "id", "type", "part number", "sku", "article", "artikel", "ref"}},
        {KitColumn::name, {"name", "part", "description", "bezeichnung", "nom", "title", "what", "component"}},
        {KitColumn::kind, {"kind", "category", "art", "class"}},
        {KitColumn::maker, {"maker", "manufacturer", "brand", "hersteller", "vendor"}},
        {KitColumn::count,
         {"in hand", "count", "qty", "quantity", "pcs", "pieces", "number", "stück", "anzahl", "menge", "amount", "n"}},
        {KitColumn::mass,
         {"mass g", "mass", "weight", "weight g", "grams", "g", "gewicht", "gewicht g", "weighed g", "masse", "poids"}},
        {KitColumn::tolerance, {"tolerance g", "tolerance", "toleranz"}},
        {KitColumn::size, {"size mm", "size", "dimensions", "dimensions mm", "maße", "abmessungen"}},
        {KitColumn::note, {"note", "notes", "remark", "comment", "bemerkung"}},
    };
    std::vector<KitColumn> columns(header.size(), KitColumn::ignore);
    for (const auto &[column, names] : words)
        for (std::size_t i = 0; i < header.size(); ++i)
            if (columns[i] == KitColumn::ignore && names.contains(folded(header[i]))) {
                columns[i] = column;
                break;
            }
    return columns;
}

KitList readKitList(const CsvTable &table, const std::vector<KitColumn> &columns, const Build &build,
                    const Practice &practice, const TypeTable &library) {
    KitList list;
    list.problems = table.problems;
    std::map<std::string, std::string> byName; // folded name or id -> item
    const auto lines = kitLines(build, practice);
    std::set<std::string> inBuild;
    for (const auto &[id, type] : library) byName.try_emplace(folded(type.name), id);
    for (const auto &[id, type] : *build.types) byName[folded(type.name)] = id;
    for (const auto &line : lines) byName[folded(line.name)] = line.item;
    for (const auto &[id, type] : *build.types) inBuild.insert(id);
    for (const auto &line : lines) inBuild.insert(line.item);

    std::map<std::string, std::size_t> rowOf;
    std::map<std::string, std::string> newIds; // by the words of the row
    std::set<std::string> taken;
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        KitListRow row;
        row.line = table.lines[r];
        std::string problem, item;
        double tolerance = -1;
        auto fail = [&](const std::string &reason) {
            if (problem.empty()) problem = reason;
        };
        for (std::size_t c = 0; c < columns.size() && c < table.rows[r].size(); ++c) {
            const std::string field = trimmed(table.rows[r][c]);
            if (field.empty()) continue;
            double number = 0;
            switch (columns[c]) {
            case KitColumn::ignore: break;
            case KitColumn::item: item = field; break;
            case KitColumn::name: row.name = field.substr(0, 500); break;
            case KitColumn::maker: row.maker = field.substr(0, 500); break;
            case KitColumn::note: row.note = field.substr(0, 5000); break;
            case KitColumn::kind:
                if (const auto kind = kindFrom(field)) row.kind = *kind; // an unknown word is no reason to lose the row
                break;
            case KitColumn::count:
                if (!readNumber(field, number) || number < 0 || number > 1e6 || number != std::floor(number))
                    fail(fmt::format("\"{}\" is no count of pieces", field));
                else
                    row.count = int(number);
                break;
            case KitColumn::mass:
                if (!readNumber(field, number) || number < 0 || number > 1e6)
                    fail(fmt::format("\"{}\" is no mass in grams", field));
                else
                    row.mass_g = measuredValue(number);
                break;
            case KitColumn::tolerance:
                if (!readNumber(field, tolerance) || tolerance < 0 || tolerance > 1e6)
                    fail(fmt::format("\"{}\" is no tolerance in grams", field));
                break;
            case KitColumn::size: {
                Vec3 size = Vec3::Zero();
                if (!readSize(field, size))
                    fail(fmt::format("\"{}\" is no size; write it as 36 x 36 x 7.5", field));
                else
                    row.size_mm = size;
                break;
            }
            }
        }
        if (problem.empty() && item.empty() && row.name.empty()) problem = "neither an item nor a name";
        if (!problem.empty()) {
            list.problems.push_back({row.line, problem});
            continue;
        }
        if (row.mass_g.known() && tolerance >= 0) row.mass_g.tolerance = tolerance;
        // By id, then by name, then as something new.
        if (!item.empty() && (inBuild.contains(item) || library.contains(item))) {
            row.item = item;
        } else if (const auto named = byName.find(folded(row.name.empty() ? item : row.name)); named != byName.end()) {
            row.item = named->second;
        } else {
            // Other words are another part, whatever becomes of them in an id: "CW+" and "CW-", names without Latin
            // letters.
            const std::string words = item.empty() ? row.name : item;
            const auto [known, isNew] = newIds.try_emplace(words);
            if (isNew) {
                const std::string base = idFromName(words);
                std::string id = base;
                for (int n = 2; inBuild.contains(id) || library.contains(id) || !taken.insert(id).second; ++n)
                    id = fmt::format("{}-{}", base, n);
                known->second = id;
            }
            row.item = known->second;
            if (row.name.empty()) row.name = item;
        }
        row.match = inBuild.contains(row.item)   ? KitMatch::inBuild
                    : library.contains(row.item) ? KitMatch::inLibrary
                                                 : KitMatch::isNew;
        const auto [at, isFirst] = rowOf.try_emplace(row.item, list.rows.size());
        if (isFirst) {
            list.rows.push_back(std::move(row));
            continue;
        }
        KitListRow &kept = list.rows[at->second];
        if (row.count) kept.count = std::min(kept.count.value_or(0) + *row.count, 1'000'000);
        if (row.mass_g.known()) kept.mass_g = row.mass_g;
        if (row.size_mm) kept.size_mm = row.size_mm;
        if (!row.note.empty()) kept.note = row.note;
    }
    return list;
}

EditResult takeKitList(const Build &build, const KitList &list, const TypeTable &library) {
    Build next = build;
    next.types.edit([&](TypeTable &types) {
        for (const auto &row : list.rows) {
            if (row.match == KitMatch::inLibrary) types.emplace(row.item, library.at(row.item));
            if (row.match != KitMatch::isNew) continue;
            PartType type;
            type.id = row.item;
            type.name = row.name;
            type.kind = row.kind;
            type.maker = row.maker;
            if (row.size_mm) {
                Solid solid;
                solid.shape = Box{*row.size_mm};
                solid.X_PartSolid.position_mm.z() = row.size_mm->z() / 2;
                type.solids.push_back(solid);
            }
            types.emplace(type.id, type);
        }
    });
    for (const auto &row : list.rows) {
        auto at = std::find_if(next.kit.begin(), next.kit.end(), [&](const KitEntry &e) { return e.item == row.item; });
        if (at == next.kit.end()) {
            next.kit.emplace_back();
            at = next.kit.end() - 1;
            at->item = row.item;
        }
        if (row.count) at->inHand = row.count;
        if (row.mass_g.known()) at->mass_g = row.mass_g;
        if (row.size_mm) at->size_mm = row.size_mm;
        if (!row.note.empty()) at->note = row.note;
    }
    return next;
}

std::string writeKitList(const Build &build, const Practice &practice) {
    const CsvRow header{"item",   "name",        "kind",        "maker",   "needed", "in hand", "missing", "spare",
                        "mass g", "tolerance g", "catalogue g", "size mm", "arrow",  "pins",    "checked", "note"};
    auto number = [](const std::optional<double> &value) {
        return value ? fmt::format("{:.6g}", *value) : std::string();
    };
    auto confirmed = [](bool has, bool done) { return !has ? "" : done ? "confirmed" : "open"; };
    std::vector<CsvRow> rows;
    for (const auto &line : kitLines(build, practice)) {
        const auto type = build.types->find(line.item);
        const bool isType = type != build.types->end();
        std::string size;
        if (line.measuredSize_mm)
            size = fmt::format("{:.6g} x {:.6g} x {:.6g}", line.measuredSize_mm->x(), line.measuredSize_mm->y(),
                               line.measuredSize_mm->z());
        rows.push_back({line.item, line.name, isType ? std::string(io::nameOf(type->second.kind)) : "frame",
                        isType ? type->second.maker : "", std::to_string(line.needed),
                        line.inHand ? std::to_string(*line.inHand) : "",
                        line.inHand ? std::to_string(line.missing()) : "",
                        line.inHand ? std::to_string(line.spare()) : "", number(line.weighedMass_g.value),
                        line.weighedMass_g.known() ? number(line.weighedMass_g.tolerance) : "",
                        number(line.catalogueMass_g.value), size, confirmed(line.hasArrow, line.arrowConfirmed),
                        confirmed(line.hasPins, line.pinsConfirmed), line.checked ? "yes" : "", line.note});
    }
    return writeCsv(header, rows);
}

} // namespace waxis
