#include "io/csv/log_csv.h"

#include "core/base/by_id.h"
#include "core/base/text_match.h"
#include "core/edits/log_edits.h"
#include "core/log/entry_text.h"
#include "core/log/trial_report.h"
#include "io/names.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>

namespace waxis {

namespace {

std::string lower(std::string_view text) {
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return out;
}

/// Which column has which name; the first of that name.
std::map<std::string, std::size_t> columnsOf(const CsvRow &header) {
    std::map<std::string, std::size_t> columns;
    for (std::size_t i = 0; i < header.size(); ++i) columns.emplace(lower(header[i]), i);
    return columns;
}

class Fields {
public:
    Fields(const std::map<std::string, std::size_t> &columns, const CsvRow &row) : columns_(columns), row_(row) {}
    std::string operator()(const char *name) const {
        const auto at = columns_.find(name);
        return at == columns_.end() || at->second >= row_.size() ? std::string() : row_[at->second];
    }
    bool isSet(const char *name, bool standard) const {
        const std::string text = lower((*this)(name));
        if (text.empty()) return standard;
        return text == "yes" || text == "true" || text == "1" || text == "x";
    }

private:
    const std::map<std::string, std::size_t> &columns_;
    const CsvRow &row_;
};

const char *yesNo(bool yes) { return yes ? "yes" : "no"; }

std::optional<Quantity> quantityFrom(const std::string &text) {
    if (const auto named = io::fromName<Quantity>(text)) return named;
    for (const auto &info : quantityBook())
        if (lower(text) == info.key || lower(text) == lower(info.title)) return info.quantity;
    return std::nullopt;
}

std::string numbers(const Entry &entry) {
    std::string text;
    const auto kinds = quantityInfo(entry.quantity).values;
    for (std::size_t i = 0; i < entry.values.size() && i < kinds.size(); ++i) {
        const std::string_view unit = unitOf(kinds[i].measure);
        text += fmt::format("{}{}{}{}", i == 0 ? "" : " ", entry.values[i], unit.empty() ? "" : " ", unit);
    }
    return text;
}

/// "12.4 g 3 min" apart: a number and what follows until the next number.
std::vector<std::string> valueTexts(const std::string &text) {
    std::vector<std::string> pieces;
    std::size_t from = 0;
    while (from < text.size()) {
        std::size_t end = text.find(' ', from);
        std::string piece = text.substr(from, end - from);
        while (end != std::string::npos && end + 1 < text.size() &&
               !std::isdigit(static_cast<unsigned char>(text[end + 1])) && text[end + 1] != '-' &&
               text[end + 1] != '+') {
            const std::size_t next = text.find(' ', end + 1);
            piece += " " + text.substr(end + 1, next == std::string::npos ? next : next - end - 1);
            end = next;
        }
        if (!piece.empty()) pieces.push_back(piece);
        if (end == std::string::npos) break;
        from = end + 1;
    }
    return pieces;
}

std::string joined(const std::vector<std::string> &list) {
    std::string text;
    for (const auto &one : list) text += (text.empty() ? "" : " ") + one;
    return text;
}

std::vector<std::string> apart(const std::string &text) {
    std::vector<std::string> list;
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find(' ', from), text.size());
        if (end > from) list.push_back(text.substr(from, end - from));
        from = end + 1;
    }
    return list;
}

/// Of things with an id and words: which one is meant.
template <class List, class Words>
const typename List::value_type *meant(const List &list, const std::string &text, Words words) {
    for (const auto &one : list)
        if (one.id == text || lower(words(one)) == lower(text)) return &one;
    return nullptr;
}

} // namespace

std::string writeEntries(const Build &build) {
    std::vector<CsvRow> rows;
    for (const auto &entry : build.log->entries) {
        const Session *session = byId(build.log->sessions, entry.session);
        rows.push_back({session ? session->at : "", session ? session->place : "",
                        std::string(io::nameOf(entry.quantity)), joined(entry.subjects), numbers(entry),
                        entry.tolerance ? fmt::format("{}", *entry.tolerance) : "", entry.word, entry.text, entry.cure,
                        yesNo(entry.blocks), yesNo(entry.packFull), yesNo(entry.setAside), entry.loadCase,
                        entry.instrument});
    }
    return writeCsv({"time", "place", "quantity", "of", "values", "doubt", "word", "text", "cure", "blocks",
                     "pack full", "set aside", "load case", "instrument"},
                    rows);
}

std::string writeTries(const Build &build) {
    std::vector<CsvRow> rows;
    for (const auto &trial : build.log->trials)
        for (const auto &one : trial.tries) {
            const auto value = tryValue(trial, one);
            const TrialSetup *setup = byId(trial.setups, one.setup);
            rows.push_back({trial.question, setup ? setup->name : one.setup, one.at,
                            value ? fmt::format("{}", value->value) : "", std::string(unitOf(trial)),
                            yesNo(!value || value->reached), yesNo(one.setAside), one.instrument, one.note});
        }
    return writeCsv({"trial", "way", "time", "value", "unit", "reached", "set aside", "instrument", "note"}, rows);
}

EntryList readEntryList(const CsvTable &table, const Build &build) {
    EntryList list;
    list.problems = table.problems;
    const auto columns = columnsOf(table.header);
    for (const char *wanted : {"quantity", "values"})
        if (!columns.contains(wanted)) {
            list.problems.push_back({1, fmt::format("there is no column \"{}\"", wanted)});
            return list;
        }
    std::vector<std::string> keys;
    for (const auto &info : quantityBook()) keys.emplace_back(info.key);
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const Fields field(columns, table.rows[r]);
        const auto problem = [&](std::string reason) { list.problems.push_back({table.lines[r], std::move(reason)}); };
        const auto quantity = quantityFrom(field("quantity"));
        if (!quantity) {
            const std::string near = nearestWord(lower(field("quantity")), keys);
            problem(fmt::format("\"{}\" is nothing that can be entered{}", field("quantity"),
                                near.empty() ? "" : fmt::format("; did you mean \"{}\"?", near)));
            continue;
        }
        Entry entry;
        entry.quantity = *quantity;
        entry.subjects = apart(field("of"));
        const auto kinds = quantityInfo(*quantity).values;
        const auto texts = valueTexts(field("values"));
        bool isRead = true;
        for (std::size_t i = 0; i < texts.size() && isRead; ++i) {
            if (i >= kinds.size()) {
                problem(fmt::format("{} values are the most for this quantity", kinds.size()));
                isRead = false;
            } else if (const auto value = readQuantity(texts[i], kinds[i].measure)) {
                entry.values.push_back(*value);
            } else {
                problem(wrongQuantity(texts[i], kinds[i].measure));
                isRead = false;
            }
        }
        if (!isRead) continue;
        if (const std::string doubt = field("doubt"); !doubt.empty()) {
            double value = 0;
            if (!readNumber(doubt, value) || !(value >= 0)) {
                problem(fmt::format("\"{}\" is no doubt", doubt));
                continue;
            }
            entry.tolerance = value;
        }
        entry.word = field("word");
        entry.text = field("text");
        entry.cure = field("cure");
        entry.blocks = field.isSet("blocks", false);
        entry.packFull = field.isSet("pack full", true);
        entry.setAside = field.isSet("set aside", false);
        entry.loadCase = field("load case");
        entry.instrument = field("instrument");
        if (const auto fault = faultOf(entry); !fault.empty()) {
            problem(fault);
            continue;
        }
        const std::string time = field("time");
        if (time.empty()) {
            const Session *latest = latestSession(build);
            if (!latest && list.sessions.empty()) {
                problem("no time is said, and there is no session yet");
                continue;
            }
            entry.session = latest ? latest->id : list.sessions.back().id;
        } else {
            const auto sameTime = [&](const Session &session) {
                return session.at == time && (field("place").empty() || session.place == field("place"));
            };
            const auto &known = build.log->sessions;
            const auto at = std::find_if(known.begin(), known.end(), sameTime);
            const auto made = std::find_if(list.sessions.begin(), list.sessions.end(), sameTime);
            if (at != known.end()) {
                entry.session = at->id;
            } else if (made != list.sessions.end()) {
                entry.session = made->id;
            } else {
                Session session;
                std::string id = freshId(build, "session");
                for (int n = 2; byId(list.sessions, id); ++n) id = freshId(build, fmt::format("session-{}", n));
                session.id = id;
                session.at = time;
                session.place = field("place");
                entry.session = id;
                list.sessions.push_back(std::move(session));
            }
        }
        list.entries.push_back(std::move(entry));
    }
    return list;
}

EditResult takeEntryList(const Build &build, const EntryList &list) {
    EditResult next = build;
    for (const auto &session : list.sessions)
        if (next) next = addSession(*next, session);
    for (const auto &entry : list.entries)
        if (next) next = addEntry(*next, entry);
    return next;
}

TryList readTryList(const CsvTable &table, const Build &build) {
    TryList list;
    list.problems = table.problems;
    const auto columns = columnsOf(table.header);
    for (const char *wanted : {"trial", "way", "value"})
        if (!columns.contains(wanted)) {
            list.problems.push_back({1, fmt::format("there is no column \"{}\"", wanted)});
            return list;
        }
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const Fields field(columns, table.rows[r]);
        const auto problem = [&](std::string reason) { list.problems.push_back({table.lines[r], std::move(reason)}); };
        const Trial *trial = meant(build.log->trials, field("trial"), [](const Trial &t) { return t.question; });
        if (!trial) {
            problem(fmt::format("there is no trial \"{}\"", field("trial")));
            continue;
        }
        const TrialSetup *setup = meant(trial->setups, field("way"), [](const TrialSetup &s) { return s.name; });
        if (!setup) {
            problem(fmt::format("the trial has no way \"{}\"", field("way")));
            continue;
        }
        TryList::Row row;
        row.trial = trial->id;
        row.one.setup = setup->id;
        double value = 0;
        const std::string unit(unitOf(*trial));
        const auto seconds = unit == "s" ? readQuantity(field("value"), Measure::seconds) : std::nullopt;
        if (!seconds && !readNumber(field("value"), value)) {
            problem(fmt::format("\"{}\" is no value", field("value")));
            continue;
        }
        row.one.value = seconds.value_or(value);
        row.one.reached = field.isSet("reached", true);
        row.one.setAside = field.isSet("set aside", false);
        row.one.at = field("time");
        row.one.note = field("note");
        row.one.instrument = field("instrument");
        list.rows.push_back(std::move(row));
    }
    return list;
}

EditResult takeTryList(const Build &build, const TryList &list) {
    EditResult next = build;
    for (const auto &row : list.rows)
        if (next) next = addTry(*next, row.trial, row.one);
    return next;
}

} // namespace waxis
