#include "core/log/entry_text.h"

#include "core/base/text_match.h"
#include "core/kit/kit.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

constexpr std::size_t kMostNameWords = 8;

std::string lower(std::string_view text) {
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return out;
}

/// A piece of the line between blanks, or between quotation marks.
struct Word {
    std::size_t at = 0, end = 0;
    std::string text;
};

std::vector<Word> wordsOf(std::string_view line) {
    std::vector<Word> words;
    for (std::size_t i = 0; i < line.size();) {
        if (line[i] == ' ' || line[i] == '\t') {
            ++i;
        } else if (line[i] == '"') {
            const std::size_t end = std::min(line.find('"', i + 1), line.size());
            words.push_back({i, std::min(end + 1, line.size()), std::string(line.substr(i + 1, end - i - 1))});
            i = end + 1;
        } else {
            const std::size_t end = std::min(line.find_first_of(" \t", i), line.size());
            words.push_back({i, end, std::string(line.substr(i, end - i))});
            i = end;
        }
    }
    return words;
}

struct Candidate {
    std::string id, name;
};

/// What entries of that kind can be of.
std::vector<Candidate> candidates(const Build &build, EntrySubject subject) {
    std::vector<Candidate> list;
    const auto take = [&](const auto &things) {
        for (const auto &thing : things) list.push_back({thing.id, displayName(build, thing.id)});
    };
    if (subject != EntrySubject::part) take(build.wires);
    if (subject == EntrySubject::wire) return list;
    take(build.parts);
    take(build.stacks);
    take(build.frame->plates);
    take(build.frame->arms);
    take(build.frame->standoffs);
    take(build.frame->motorMounts);
    for (const auto &[id, type] : *build.types) list.push_back({id, type.name});
    for (const auto &entry : build.kit)
        if (!build.types->contains(entry.item)) list.push_back({entry.item, kitItemName(build, entry.item)});
    return list;
}

/// How many words from `first` name something, and what; 0: none does.
std::size_t namedAt(const std::vector<Candidate> &list, const std::vector<Word> &words, std::size_t first,
                    std::string &id) {
    const std::size_t most = std::min(words.size() - first, kMostNameWords);
    for (std::size_t count = most; count > 0; --count) {
        std::string said = words[first].text;
        for (std::size_t i = 1; i < count; ++i) said += " " + words[first + i].text;
        said = lower(said);
        for (const auto &candidate : list)
            if (lower(candidate.id) == said || lower(candidate.name) == said) {
                id = candidate.id;
                return count;
            }
    }
    // The first letters of one name alone.
    const std::string said = lower(words[first].text);
    const Candidate *only = nullptr;
    constexpr std::size_t kLeast = 2;
    for (const auto &candidate : list)
        if (said.size() >= kLeast &&
            (lower(candidate.id).starts_with(said) || lower(candidate.name).starts_with(said))) {
            if (only && only->id != candidate.id) return 0;
            only = &candidate;
        }
    if (!only) return 0;
    id = only->id;
    return 1;
}

Failure<EntryTextError> failure(std::size_t at, std::string message, std::string suggestion = {}) {
    return Failure{EntryTextError{at, std::move(message), std::move(suggestion)}};
}

bool beginsANumber(const std::string &text) {
    const std::size_t sign = text.starts_with("−") ? std::string_view("−").size() : text.find_first_of("+-") == 0;
    return sign < text.size() &&
           (std::isdigit(static_cast<unsigned char>(text[sign])) || text[sign] == '.' || text[sign] == ',');
}

bool isPlusMinus(const std::string &text) { return text == "±" || text == "+-" || text == "+/-"; }

/// Words that are units wherever they stand behind a number ("in" and "a" are words as well).
bool isUnit(const std::string &word) {
    constexpr std::array<std::string_view, 22> kUnits{"g",  "kg",  "mg", "oz", "mm",  "cm", "m", "A",
                                                      "mA", "V",   "mV", "%",  "min", "s",  "h", "mAh",
                                                      "Ah", "dBm", "uT", "µT", "°C",  "deg"};
    return std::find(kUnits.begin(), kUnits.end(), word) != kUnits.end();
}

/// A value with the unit behind it, in one word or two; how many words it took. Another thing's unit is none of it.
std::optional<double> valueAt(const std::vector<Word> &words, std::size_t i, Measure measure, std::size_t &took) {
    took = 1;
    if (i + 1 < words.size() && !beginsANumber(words[i + 1].text)) {
        if (const auto value = readQuantity(words[i].text + " " + words[i + 1].text, measure)) {
            took = 2;
            return value;
        }
        if (isUnit(words[i + 1].text)) return std::nullopt;
    }
    return readQuantity(words[i].text, measure);
}

/// "25x25x8" and "25 x 25 x 8" as three numbers, the unit behind the last.
void splitSizes(std::vector<Word> &words, std::size_t from) {
    std::vector<Word> split(words.begin(), words.begin() + std::ptrdiff_t(from));
    for (std::size_t i = from; i < words.size(); ++i) {
        const Word &word = words[i];
        if (word.text == "x" || word.text == "X" || word.text == "×") continue;
        if (!beginsANumber(word.text)) {
            split.push_back(word);
            continue;
        }
        std::size_t begin = 0;
        for (std::size_t at = 0; at <= word.text.size(); ++at)
            if (at == word.text.size() || word.text[at] == 'x' || word.text[at] == 'X') {
                if (at > begin) split.push_back({word.at + begin, word.at + at, word.text.substr(begin, at - begin)});
                begin = at + 1;
            }
    }
    words = std::move(split);
}

std::string restOf(std::string_view line, const std::vector<Word> &words, std::size_t i) {
    if (i >= words.size()) return {};
    std::string rest(line.substr(words[i].at));
    while (!rest.empty() && (rest.back() == ' ' || rest.back() == '\t')) rest.pop_back();
    return rest;
}

std::string wantedOf(const QuantityInfo &info) { return fmt::format("as in: {}", info.example); }

/// Reads the values; the words that it took, and the first that cannot be one.
std::optional<EntryTextError> readValues(const QuantityInfo &info, const std::vector<Word> &words, std::size_t &i,
                                         Entry &entry) {
    std::vector<std::optional<double>> values(info.values.size());
    while (i < words.size()) {
        if (isPlusMinus(words[i].text) || words[i].text.starts_with("±")) {
            Word doubt = words[i];
            std::size_t took = 1;
            std::optional<double> value;
            if (isPlusMinus(doubt.text) && i + 1 < words.size()) {
                value = valueAt(words, i + 1, info.values[0].measure, took);
                ++took;
            } else {
                value = readQuantity(doubt.text.substr(std::string_view("±").size()), info.values[0].measure);
            }
            if (!value || !(*value >= 0)) return EntryTextError{doubt.at, "a doubt is wanted behind ±", {}};
            entry.tolerance = *value;
            i += took;
            continue;
        }
        if (!beginsANumber(words[i].text)) {
            // Names of values may stand before them: "after 3 min".
            const bool names = i + 1 < words.size() && beginsANumber(words[i + 1].text) &&
                               std::any_of(info.values.begin(), info.values.end(),
                                           [&](const ValueKind &kind) { return kind.name == lower(words[i].text); });
            if (!names) break;
            ++i;
        }
        bool placed = false;
        std::size_t took = 1;
        // Whose unit is said before whose turn it is; a bare number goes to the first that is still empty.
        for (std::size_t k = 0; k < values.size() && !placed; ++k) {
            if (values[k]) continue;
            if (const auto value = valueAt(words, i, info.values[k].measure, took)) {
                values[k] = value;
                placed = true;
            }
        }
        if (!placed) {
            const bool full = std::all_of(values.begin(), values.end(), [](const auto &v) { return v.has_value(); });
            if (full) break; // a number in the words behind
            const auto open = std::find_if(values.begin(), values.end(), [](const auto &v) { return !v; });
            const bool hasUnit = i + 1 < words.size() && isUnit(words[i + 1].text);
            const std::string said = words[i].text + (hasUnit ? " " + words[i + 1].text : "");
            return EntryTextError{
                words[i].at, wrongQuantity(said, info.values[std::size_t(open - values.begin())].measure), {}};
        }
        i += took;
    }
    while (!values.empty() && !values.back()) values.pop_back();
    for (const auto &value : values)
        if (!value) return EntryTextError{words.back().end, "the first value is missing, " + wantedOf(info), {}};
    for (const auto &value : values) entry.values.push_back(*value);
    return std::nullopt;
}

} // namespace

std::string faultOf(const Entry &entry) {
    const QuantityInfo &info = quantityInfo(entry.quantity);
    if (entry.values.size() > info.values.size())
        return fmt::format("{}: {} values are the most, {} were given.", info.title, info.values.size(),
                           entry.values.size());
    if (int(entry.values.size()) < info.least)
        return fmt::format("{}: {} {} wanted, {}.", info.title, info.least, info.least == 1 ? "value is" : "values are",
                           wantedOf(info));
    for (std::size_t i = 0; i < entry.values.size(); ++i) {
        const ValueKind &kind = info.values[i];
        if (!(entry.values[i] >= kind.least && entry.values[i] <= kind.most))
            return fmt::format("{}: {:g} {} is not between {:g} and {:g}.", info.title, entry.values[i],
                               unitOf(kind.measure), kind.least, kind.most);
    }
    if (entry.tolerance && !(*entry.tolerance >= 0 && *entry.tolerance < 1e6))
        return fmt::format("{}: the doubt is no number from 0 upwards.", info.title);
    const bool wants = info.subject == EntrySubject::part || info.subject == EntrySubject::wire;
    if (wants && entry.subjects.empty()) return fmt::format("{}: of what is missing, {}.", info.title, wantedOf(info));
    if (entry.values.empty() && entry.text.empty() && entry.word.empty() && entry.subjects.empty())
        return fmt::format("{}: nothing is said, {}.", info.title, wantedOf(info));
    return {};
}

Result<Entry, EntryTextError> readEntry(const Build &build, std::string_view line, const Quantity *wanted) {
    std::vector<Word> words = wordsOf(line);
    if (words.empty()) return failure(0, "nothing is typed, as in: weight gps 12.4 g");
    std::size_t i = 0;
    const QuantityInfo *info = wanted ? &quantityInfo(*wanted) : nullptr;
    if (!info) {
        const std::string key = lower(words[0].text);
        std::vector<std::string> keys;
        for (const auto &one : quantityBook()) {
            keys.emplace_back(one.key);
            if (!info && one.key.starts_with(key)) info = &one;
            if (one.key == key) info = &one;
        }
        if (!info) {
            const std::string near = nearestWord(key, keys);
            return failure(words[0].at, fmt::format("\"{}\" is nothing that can be entered", words[0].text), near);
        }
        i = 1;
    }
    Entry entry;
    entry.quantity = info->quantity;
    if (info->subject != EntrySubject::none && info->quantity != Quantity::seen &&
        info->quantity != Quantity::setting && i < words.size()) {
        const auto list = candidates(build, info->subject);
        std::string id;
        const std::size_t took = namedAt(list, words, i, id);
        if (took > 0) {
            entry.subjects = {id};
            i += took;
        } else if (info->subject != EntrySubject::something) {
            std::vector<std::string> names;
            for (const auto &candidate : list) {
                names.push_back(lower(candidate.id));
                names.push_back(lower(candidate.name));
            }
            return failure(words[i].at,
                           fmt::format("\"{}\" is no {} of this build, or not one alone", words[i].text,
                                       info->subject == EntrySubject::wire ? "wire" : "part"),
                           nearestWord(lower(words[i].text), names));
        }
    }
    if (info->quantity == Quantity::seen) {
        if (i >= words.size()) return failure(line.size(), "what was seen is missing, " + wantedOf(*info));
        std::vector<std::string> known;
        for (const auto &seen : seenWords()) {
            known.emplace_back(seen.id);
            if (entry.word.empty() && seen.id.starts_with(lower(words[i].text))) entry.word = seen.id;
        }
        if (entry.word.empty())
            return failure(words[i].at, fmt::format("\"{}\" is none of the words for what is seen", words[i].text),
                           nearestWord(lower(words[i].text), known));
        ++i;
    }
    if (info->quantity == Quantity::setting) {
        if (i >= words.size()) return failure(line.size(), "which setting is missing, " + wantedOf(*info));
        entry.word = words[i].text;
        ++i;
    }
    if (info->quantity == Quantity::size) splitSizes(words, i);
    if (!info->values.empty())
        if (const auto error = readValues(*info, words, i, entry)) return Failure{*error};
    entry.text = restOf(line, words, i);
    if (const auto fault = faultOf(entry); !fault.empty()) return failure(line.size(), fault);
    return entry;
}

std::string entryLine(const Build &build, const Entry &entry) {
    const QuantityInfo &info = quantityInfo(entry.quantity);
    std::string line(info.key);
    for (const auto &subject : entry.subjects) {
        const std::string name = displayName(build, subject);
        line += name.find(' ') == std::string::npos ? " " + subject : " \"" + name + "\"";
    }
    if (!entry.word.empty()) line += " " + entry.word;
    for (std::size_t i = 0; i < entry.values.size() && i < info.values.size(); ++i) {
        const bool isSize = entry.quantity == Quantity::size && i > 0;
        const std::string_view unit = unitOf(info.values[i].measure);
        line += fmt::format("{}{:.6g}{}{}", isSize ? " x " : " ", entry.values[i], unit.empty() ? "" : " ", unit);
    }
    if (entry.tolerance) line += fmt::format(" ± {:g}", *entry.tolerance);
    if (!entry.text.empty()) line += " " + entry.text;
    return line;
}

std::vector<std::string> entryCompletions(const Build &build, std::string_view line) {
    constexpr std::size_t kMost = 12;
    const auto words = wordsOf(line);
    const bool isOpen = !line.empty() && line.back() != ' '; // the last word may still become something
    std::vector<std::string> found;
    const auto offer = [&](std::string_view text) {
        if (found.size() < kMost && std::find(found.begin(), found.end(), text) == found.end())
            found.emplace_back(text);
    };
    if (words.empty() || (words.size() == 1 && isOpen)) {
        const std::string begun = words.empty() ? "" : lower(words[0].text);
        for (const auto &info : quantityBook())
            if (info.key.starts_with(begun)) offer(info.key);
        return found;
    }
    const QuantityInfo *info = nullptr;
    for (const auto &one : quantityBook())
        if (!info && one.key.starts_with(lower(words[0].text))) info = &one;
    if (!info || words.size() > 2 || (words.size() == 2 && !isOpen)) return found;
    const std::string begun = words.size() == 2 ? lower(words[1].text) : "";
    if (info->quantity == Quantity::seen) {
        for (const auto &seen : seenWords())
            if (seen.id.starts_with(begun)) offer(seen.id);
        return found;
    }
    if (info->subject == EntrySubject::none || info->quantity == Quantity::setting) return found;
    auto list = candidates(build, info->subject);
    std::stable_sort(list.begin(), list.end(),
                     [](const Candidate &a, const Candidate &b) { return a.id.size() < b.id.size(); });
    for (const auto &candidate : list)
        if (lower(candidate.id).starts_with(begun) || lower(candidate.name).starts_with(begun)) offer(candidate.id);
    for (const auto &candidate : list)
        if (!begun.empty() && lower(candidate.name).find(begun) != std::string::npos) offer(candidate.id);
    return found;
}

} // namespace waxis
