#include "core/sums/sum.h"

#include "core/base/text_match.h"
#include "core/sums/read.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <optional>

namespace waxis {

const SumValue *findKey(const SumObject &object, const std::string &key) {
    const auto at = std::find_if(object.begin(), object.end(), [&](const auto &entry) { return entry.first == key; });
    return at == object.end() ? nullptr : &at->second;
}

namespace {

std::string kindInWords(SumInputKind kind) {
    switch (kind) {
    case SumInputKind::number: return "a number";
    case SumInputKind::numbers: return "a list of numbers, as [1, 2, 3]";
    case SumInputKind::points: return "a list of points, as [[1, 2], [3, 4]]";
    case SumInputKind::bodies: return "a list of bodies";
    case SumInputKind::text: return "text";
    case SumInputKind::truth: return "true or false";
    case SumInputKind::bands: return "a list of bands, as [[\"868\", 863, 870]]";
    case SumInputKind::gauge: return "a gauge from 0000 to 40";
    }
    return {};
}

bool isNumber(const SumValue &value) {
    const auto *n = std::get_if<double>(&value.held);
    return n && std::isfinite(*n);
}

bool isNumbers(const SumValue &value) {
    const auto *list = std::get_if<SumList>(&value.held);
    return list && std::all_of(list->begin(), list->end(), isNumber);
}

bool fits(const SumValue &value, SumInputKind kind) {
    const auto *list = std::get_if<SumList>(&value.held);
    switch (kind) {
    case SumInputKind::number: return isNumber(value);
    case SumInputKind::numbers: return isNumbers(value);
    case SumInputKind::points:
        return list && std::all_of(list->begin(), list->end(), [](const SumValue &p) {
                   return isNumbers(p) && std::get<SumList>(p.held).size() == 2;
               });
    case SumInputKind::bodies:
        return list && std::all_of(list->begin(), list->end(),
                                   [](const SumValue &b) { return std::holds_alternative<SumObject>(b.held); });
    case SumInputKind::text: return std::holds_alternative<std::string>(value.held);
    case SumInputKind::truth: return std::holds_alternative<bool>(value.held);
    case SumInputKind::bands:
        return list && std::all_of(list->begin(), list->end(), [](const SumValue &b) {
                   const auto *band = std::get_if<SumList>(&b.held);
                   return band && band->size() == 3 && std::holds_alternative<std::string>((*band)[0].held) &&
                          isNumber((*band)[1]) && isNumber((*band)[2]);
               });
    case SumInputKind::gauge: return sums::gaugeFrom(value).has_value();
    }
    return false;
}

/// The first number that is none any more.
std::optional<std::string> overflowIn(const SumValue &value, const std::string &key) {
    if (const auto *n = std::get_if<double>(&value.held))
        return std::isinf(*n) ? std::optional(key) : std::nullopt; // none at all is an answer: no screw fits
    if (const auto *list = std::get_if<SumList>(&value.held))
        for (const auto &entry : *list)
            if (auto found = overflowIn(entry, key)) return found;
    if (const auto *object = std::get_if<SumObject>(&value.held))
        for (const auto &[inner, entry] : *object)
            if (auto found = overflowIn(entry, inner)) return found;
    return std::nullopt;
}

} // namespace

SumResult calculate(const Sum &sum, const SumObject &inputs) {
    std::vector<std::string> known;
    for (const auto &input : sum.inputs) known.push_back(input.key);
    for (std::size_t i = 0; i < inputs.size(); ++i) {
        const auto &key = inputs[i].first;
        if (std::find(known.begin(), known.end(), key) == known.end()) {
            const auto near = nearestWord(key, known);
            return Failure{SumError{key, near.empty() ? fmt::format("{} takes no such input", sum.name)
                                                      : fmt::format("no such input; did you mean {}?", near)}};
        }
        for (std::size_t j = 0; j < i; ++j)
            if (inputs[j].first == key) return Failure{SumError{key, "given twice"}};
    }
    SumObject complete;
    for (const auto &input : sum.inputs) {
        const SumValue *given = findKey(inputs, input.key);
        if (!given && !input.standard)
            return Failure{SumError{input.key, fmt::format("missing: {} expected", kindInWords(input.kind))}};
        const SumValue &value = given ? *given : *input.standard;
        if (!fits(value, input.kind))
            return Failure{
                SumError{input.key, fmt::format("{} expected{}", kindInWords(input.kind),
                                                input.kind == SumInputKind::gauge ? "" : ", all of it finite")}};
        complete.emplace_back(input.key, value);
    }
    SumResult result = sum.compute(complete);
    if (result)
        for (const auto &[key, value] : *result)
            if (const auto beyond = overflowIn(value, key))
                return Failure{SumError{
                    "", fmt::format("{} is beyond all numbers with these inputs; are their units right?", *beyond)}};
    return result;
}

std::span<const Sum> sumRegistry() {
    static const std::vector<Sum> registry = [] {
        std::vector<Sum> all = sums::balanceSums();
        for (const auto &topic : {sums::mendingSums(), sums::attitudeSums(), sums::fastenerSums(), sums::screwSums(),
                                  sums::skySums(), sums::wireSums(), sums::powerSums(), sums::antennaSums(),
                                  sums::linkSums(), sums::magneticSums(), sums::vibrationSums(), sums::trialSums()})
            all.insert(all.end(), topic.begin(), topic.end());
        return all;
    }();
    return registry;
}

const Sum *findSum(const std::string &name) {
    const auto all = sumRegistry();
    const auto at = std::find_if(all.begin(), all.end(), [&](const Sum &s) { return s.name == name; });
    return at == all.end() ? nullptr : &*at;
}

SumError unknownSum(const std::string &name) {
    std::vector<std::string> names;
    for (const auto &sum : sumRegistry()) names.push_back(sum.name);
    const auto near = nearestWord(name, names);
    return {"", near.empty() ? fmt::format("there is no calculation \"{}\"", name)
                             : fmt::format("there is no calculation \"{}\"; did you mean {}?", name, near)};
}

namespace sums {

double number(const SumObject &inputs, const std::string &key) { return std::get<double>(findKey(inputs, key)->held); }

std::optional<int> gaugeFrom(const SumValue &value) {
    constexpr double kThickest = -3, kThinnest = 40;
    if (const auto *n = std::get_if<double>(&value.held))
        return *n >= kThickest && *n <= kThinnest && *n == std::floor(*n) ? std::optional(int(*n)) : std::nullopt;
    const auto *text = std::get_if<std::string>(&value.held);
    if (!text || text->empty() || text->size() > 4 || text->find_first_not_of('0') != std::string::npos)
        return std::nullopt;
    return 1 - int(text->size());
}

int gauge(const SumObject &inputs, const std::string &key) { return *gaugeFrom(*findKey(inputs, key)); }

std::optional<SumError> needsPositive(const SumObject &in, std::initializer_list<const char *> keys) {
    for (const char *key : keys)
        if (!(number(in, key) > 0)) return SumError{key, "must be more than zero"};
    return std::nullopt;
}

std::vector<double> numbers(const SumValue &value) {
    std::vector<double> result;
    for (const auto &item : std::get<SumList>(value.held)) result.push_back(std::get<double>(item.held));
    return result;
}

std::vector<Vec2> points(const SumObject &inputs, const std::string &key) {
    std::vector<Vec2> result;
    for (const auto &item : std::get<SumList>(findKey(inputs, key)->held)) {
        const auto xy = numbers(item);
        result.emplace_back(xy[0], xy[1]);
    }
    return result;
}

SumValue list(std::span<const double> values) { return SumList(values.begin(), values.end()); }

SumValue matrix(const Mat3 &m) {
    SumList rows;
    for (int i = 0; i < 3; ++i) rows.emplace_back(SumList{m(i, 0), m(i, 1), m(i, 2)});
    return rows;
}

} // namespace sums
} // namespace waxis
