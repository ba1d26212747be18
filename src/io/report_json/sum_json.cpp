#include "io/report_json/sum_json.h"

#include "io/json/parse.h"
#include "io/json/schema.h"

#include <cmath>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

namespace waxis::io {

using OrderedJson = nlohmann::ordered_json;

OrderedJson sumValueJson(const SumValue &value) {
    if (const auto *number = std::get_if<double>(&value.held))
        return std::isnan(*number) ? OrderedJson(nullptr) : OrderedJson(*number); // there is none
    if (const auto *truth = std::get_if<bool>(&value.held)) return *truth;
    if (const auto *text = std::get_if<std::string>(&value.held)) return *text;
    if (const auto *list = std::get_if<SumList>(&value.held)) {
        auto out = OrderedJson::array();
        for (const auto &item : *list) out.push_back(sumValueJson(item));
        return out;
    }
    auto out = OrderedJson::object();
    for (const auto &[key, item] : std::get<SumObject>(value.held)) out[key] = sumValueJson(item);
    return out;
}

SumValue sumValueFrom(const OrderedJson &json) {
    if (json.is_number()) return json.get<double>();
    if (json.is_boolean()) return json.get<bool>();
    if (json.is_string()) return json.get<std::string>();
    if (json.is_array()) {
        SumList list;
        for (const auto &item : json) list.push_back(sumValueFrom(item));
        return list;
    }
    if (json.is_object()) {
        SumObject object;
        for (const auto &[key, item] : json.items()) object.emplace_back(key, sumValueFrom(item));
        return object;
    }
    return std::string(); // null: text that no number input accepts
}

SumValue sumValueFromText(const std::string &text) {
    const auto parsed = parseJson(text);
    return parsed ? sumValueFrom(OrderedJson(*parsed)) : SumValue(text);
}

std::string sumValueText(const SumValue &value, int digits) {
    if (const auto *number = std::get_if<double>(&value.held)) {
        if (std::isnan(*number)) return "none";
        const double size = std::abs(*number);
        const int before = size >= 1 && size < 1e7 ? int(std::floor(std::log10(size))) + 1 : 0;
        return fmt::format("{:.{}g}", *number == 0 ? 0.0 : *number, std::max(digits, before));
    }
    if (const auto *truth = std::get_if<bool>(&value.held)) return *truth ? "yes" : "no";
    if (const auto *text = std::get_if<std::string>(&value.held)) return *text;
    if (const auto *list = std::get_if<SumList>(&value.held)) {
        std::string out;
        for (const auto &item : *list) out += (out.empty() ? "" : ", ") + sumValueText(item, digits);
        return "[" + out + "]";
    }
    return sumValueJson(value).dump();
}

Result<std::string, LoadError> runSumBatch(std::string_view text) {
    const auto batch = parseJson(text);
    if (!batch) return Failure{batch.error()};
    if (!batch->is_array())
        return Failure{LoadError{"/", "a list of {\"calc\", \"inputs\"}", describeValue(*batch), ""}};
    auto results = OrderedJson::array();
    for (std::size_t i = 0; i < batch->size(); ++i) {
        const auto &entry = (*batch)[i];
        OrderedJson result;
        auto fail = [&](const std::string &reason) { result["error"] = reason; };
        if (!entry.is_object() || !entry.contains("calc") || !entry["calc"].is_string()) {
            fail(fmt::format("/{}: expected an object with the text \"calc\", found {}", i, describeValue(entry)));
            results.push_back(result);
            continue;
        }
        const auto name = entry["calc"].get<std::string>();
        const nlohmann::json inputs = entry.contains("inputs") ? entry["inputs"] : nlohmann::json::object();
        result["calc"] = name;
        result["inputs"] = OrderedJson(inputs);
        const Sum *sum = findSum(name);
        if (!sum)
            fail(unknownSum(name).text());
        else if (!inputs.is_object())
            fail(fmt::format("/{}/inputs: expected an object, found {}", i, describeValue(inputs)));
        else {
            const auto outputs = calculate(*sum, std::get<SumObject>(sumValueFrom(OrderedJson(inputs)).held));
            if (outputs)
                result["outputs"] = sumValueJson(*outputs);
            else
                fail(outputs.error().text());
        }
        results.push_back(result);
    }
    return prettyJson(results);
}

std::string sumListJson() {
    auto all = OrderedJson::array();
    for (const auto &sum : sumRegistry()) {
        OrderedJson entry{{"calc", sum.name}, {"title", sum.title}, {"formula", sum.formula}, {"source", sum.source}};
        entry["inputs"] = OrderedJson::array();
        for (const auto &input : sum.inputs) {
            OrderedJson row{{"key", input.key}, {"title", input.title}, {"unit", input.unit}};
            if (input.standard) row["standard"] = sumValueJson(*input.standard);
            row["example"] = input.example;
            entry["inputs"].push_back(row);
        }
        entry["outputs"] = OrderedJson::array();
        for (const auto &output : sum.outputs)
            entry["outputs"].push_back({{"key", output.key}, {"title", output.title}, {"unit", output.unit}});
        all.push_back(entry);
    }
    return prettyJson(all);
}

} // namespace waxis::io
