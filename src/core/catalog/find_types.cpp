#include "core/catalog/find_types.h"

#include "core/catalog/kind_words.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <fmt/format.h>

namespace waxis {

namespace {

std::string lower(std::string_view text) {
    std::string out(text);
    std::transform(out.begin(), out.end(), out.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return out;
}

/// Not within a word or a number: the 5 of "3.5" begins nothing.
bool isWordEdge(const std::string &text, std::size_t at) {
    if (at >= text.size()) return true;
    const auto digit = [&](std::size_t i) {
        return i < text.size() && std::isdigit(static_cast<unsigned char>(text[i]));
    };
    if (text[at] == '.' && at > 0 && digit(at - 1) && digit(at + 1)) return false;
    return !std::isalnum(static_cast<unsigned char>(text[at]));
}

/// 3 a whole word, 2 the beginning of one, 1 anywhere, 0 not at all. A plural s does not count.
int within(const std::string &text, std::string_view word) {
    if (word.empty()) return 0;
    int best = 0;
    for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) {
        const bool begins = at == 0 || isWordEdge(text, at - 1);
        const bool ends = isWordEdge(text, at + word.size());
        best = std::max(best, begins && ends ? 3 : begins ? 2 : 1);
    }
    if (best == 0 && word.size() > 3 && word.back() == 's') return within(text, word.substr(0, word.size() - 1));
    return best;
}

struct NumberWord {
    double value = 0;
    std::string unit; ///< lower case, what stands behind the number
};

std::optional<NumberWord> numberOf(const std::string &word) {
    NumberWord out;
    std::string plain = word;
    std::replace(plain.begin(), plain.end(), ',', '.');
    const auto [end, error] = std::from_chars(plain.data(), plain.data() + plain.size(), out.value);
    if (error != std::errc()) return std::nullopt;
    out.unit = plain.substr(std::size_t(end - plain.data()));
    return out;
}

bool near(double a, double b, double by) { return std::abs(a - b) <= by; }

/// Whether a number with or without a unit is one of the type's own figures.
bool figureFits(const PartType &type, const NumberWord &n) {
    const auto unit = [&](std::initializer_list<const char *> units) {
        return n.unit.empty() || std::any_of(units.begin(), units.end(), [&](const char *u) { return n.unit == u; });
    };
    if (unit({"mm"})) {
        for (const auto *pattern : {type.mounting ? &*type.mounting : nullptr, type.carries ? &*type.carries : nullptr})
            if (pattern && near(pattern->size_mm, n.value, 0.05)) return true;
        if (type.propDiameter_mm && near(*type.propDiameter_mm, n.value, 1)) return true;
        if (type.fastener && near(type.fastener->length_mm, n.value, 0.01)) return true;
    }
    if (type.propDiameter_mm && unit({"in", "\"", "inch"}) && near(*type.propDiameter_mm, n.value * 25.4, 1))
        return true;
    if (type.electrical) {
        const Electrical &e = *type.electrical;
        if (e.cells && n.unit == "s" && near(*e.cells, n.value, 0.01)) return true;
        // A board is asked for by the pack that it takes.
        if (n.unit == "s" && !e.cells && e.supplyMax_V && *e.supplyMax_V >= 4.2 * n.value && *e.supplyMax_V > 6 &&
            e.supplyMin_V.value_or(0) <= 3.3 * n.value)
            return true;
        if (unit({"mah"}) && e.capacity_mAh && near(*e.capacity_mAh, n.value, 0.5)) return true;
        if (n.unit == "ah" && e.capacity_mAh && near(*e.capacity_mAh, n.value * 1000, 0.5)) return true;
        if (n.unit == "a" && e.continuous_A && near(*e.continuous_A, n.value, 0.05)) return true;
        if (n.unit == "v")
            for (const auto &out : e.outputs)
                if (near(out.voltage_V, n.value, 0.05)) return true;
    }
    const auto inBand = [&](double low, double high) {
        const double asGHz = n.value * 1000;
        if (n.unit == "ghz" || (n.unit.empty() && n.value < 10))
            return asGHz >= low - 50 && asGHz <= high + 50 && n.value != std::floor(n.value);
        return (n.unit == "mhz" || n.unit.empty()) && n.value >= low - 5 && n.value <= high + 5 && n.value > 100;
    };
    if (type.antenna && inBand(type.antenna->low_MHz, type.antenna->high_MHz)) return true;
    return std::any_of(type.radio.begin(), type.radio.end(),
                       [&](const RadioBand &band) { return inBand(band.low_MHz, band.high_MHz); });
}

int quality(const PartType &type, const std::string &word, const std::string &name, const std::string &id) {
    int best = 0;
    auto offer = [&](int value) { best = std::max(best, value); };
    if (const auto number = numberOf(word); number && figureFits(type, *number)) offer(8);
    offer(within(name, word) * 3);                                                    // 9, 6, 3
    if (const int hit = within(lower(kindName(type.kind)), word)) offer(hit * 4 - 2); // 10, 6, 2
    for (const auto synonym : kindSynonyms(type.kind))
        if (synonym == word) // the plain word for the thing: "battery" is a pack before it is a plug
            offer(12);
        else if (const int hit = within(std::string(synonym), word); hit >= 2)
            offer(hit * 3 - 2); // 7, 4
    if (within(std::string(familyName(familyOf(type.kind))), word) == 3) offer(3);
    if (within(lower(type.maker), word) >= 2) offer(5);
    if (within(id, word)) offer(1 + within(id, word));
    if (type.fastener && lower(type.fastener->thread) == word) offer(7);
    return best;
}

} // namespace

int matchQuality(const PartType &type, const std::vector<std::string> &words) {
    if (words.empty()) return 1;
    const std::string name = lower(type.name), id = lower(type.id);
    // Two words may be one term: "speed controller", "video transmitter".
    int sum = 0;
    for (const auto &word : words) {
        const int q = quality(type, lower(word), name, id);
        if (q == 0) return 0;
        sum += q;
    }
    // The words as they follow each other in the name mean that part, not a namesake with more to it.
    const std::string phrase = lower(fmt::format("{}", fmt::join(words, " ")));
    if (words.size() > 1 && within(name, phrase) == 3) sum += 4;
    return sum;
}

std::vector<const PartType *> findTypes(const TypeTable &types, const std::vector<std::string> &words) {
    std::vector<std::pair<int, const PartType *>> found;
    for (const auto &[id, type] : types)
        if (const int q = matchQuality(type, words)) found.emplace_back(q, &type);
    const auto order = [](const PartType *t) { return std::tuple(familyOf(t->kind), t->kind, t->name, t->id); };
    std::sort(found.begin(), found.end(), [&](const auto &a, const auto &b) {
        if (a.first != b.first) return a.first > b.first;
        // Of one kind the small ones first, as they lie in a drawer.
        const auto grams = [](const PartType *t) { return t->mass_g.value.value_or(0); };
        if (a.second->kind == b.second->kind && grams(a.second) != grams(b.second))
            return grams(a.second) < grams(b.second);
        return order(a.second) < order(b.second);
    });
    std::vector<const PartType *> out;
    for (const auto &[q, type] : found) out.push_back(type);
    return out;
}

} // namespace waxis
