#include "io/json/parse.h"

#include <algorithm>
#include <fmt/format.h>
#include <limits>
#include <set>

namespace waxis::io {

using nlohmann::json;

namespace {

struct Refused {
    LoadError error;
};

std::string lineAndColumn(std::string_view text, std::size_t byte) {
    const auto upTo = text.substr(0, std::min(byte, text.size()));
    const auto line = 1 + std::count(upTo.begin(), upTo.end(), '\n');
    const auto start = upTo.rfind('\n');
    const auto column = start == std::string_view::npos ? upTo.size() + 1 : upTo.size() - start;
    return fmt::format("line {}, column {}", line, column);
}

bool looksBinary(std::string_view text) { return text.substr(0, 4096).find('\0') != std::string_view::npos; }

std::string afterLastColon(const std::string &message) {
    const auto at = message.rfind("; ");
    return at == std::string::npos ? message : message.substr(0, at);
}

} // namespace

Result<json, LoadError> parseJson(std::string_view text) {
    if (text.size() > kLargestFile)
        return Failure{LoadError{"file", fmt::format("at most {} MB", kLargestFile >> 20),
                                 fmt::format("{} MB", text.size() >> 20), ""}};
    if (looksBinary(text)) return Failure{LoadError{"file", "JSON text", "binary data", ""}};
    if (text.find_first_not_of(" \t\r\n") == std::string_view::npos)
        return Failure{LoadError{"file", "JSON text", "an empty file", ""}};
    std::vector<std::set<std::string>> keysByLevel;
    std::size_t things = 0;
    auto watch = [&](int depth, json::parse_event_t event, json &parsed) {
        if (depth > kDeepestNesting)
            throw Refused{{"file", fmt::format("at most {} levels of nesting", kDeepestNesting), "more", ""}};
        if (++things > kMostThings)
            throw Refused{{"file", fmt::format("at most {} keys, values and brackets", kMostThings), "more", ""}};
        switch (event) {
        case json::parse_event_t::object_start: keysByLevel.emplace_back(); break;
        case json::parse_event_t::object_end: keysByLevel.pop_back(); break;
        case json::parse_event_t::key:
            if (!keysByLevel.back().insert(parsed.get<std::string>()).second)
                throw Refused{
                    {"file", "each key once in an object", fmt::format("\"{}\" twice", parsed.get<std::string>()), ""}};
            break;
        case json::parse_event_t::value:
            // Whole numbers beyond 63 bits would turn negative in the schema's eyes: as a double they stay large.
            if (parsed.is_number_unsigned() && parsed.get<std::uint64_t>() > std::numeric_limits<std::int64_t>::max())
                parsed = parsed.get<double>();
            break;
        case json::parse_event_t::array_start:
        case json::parse_event_t::array_end: break;
        }
        return true;
    };
    try {
        return json::parse(text.begin(), text.end(), watch);
    } catch (const Refused &refused) {
        return Failure{refused.error};
    } catch (const json::parse_error &error) {
        const std::string what = error.what();
        const auto start = what.find(": ");
        return Failure{LoadError{lineAndColumn(text, error.byte ? error.byte - 1 : 0), "valid JSON",
                                 afterLastColon(start == std::string::npos ? what : what.substr(start + 2)), ""}};
    } catch (const json::exception &error) {
        const std::string what = error.what(); // "[json.exception.out_of_range.406] number overflow parsing '1e999'"
        return Failure{LoadError{"file", "valid JSON", what.substr(what.find("] ") + 2), ""}};
    }
}

namespace {

using Ordered = nlohmann::ordered_json;
constexpr std::size_t kOneLine = 110;

std::string scalar(const Ordered &value) { return value.dump(-1, ' ', false, Ordered::error_handler_t::replace); }

bool hasNoStructure(const Ordered &value) {
    return std::none_of(value.begin(), value.end(), [](const Ordered &v) { return v.is_structured() && !v.empty(); });
}

bool isFlat(const Ordered &value) {
    return std::all_of(value.begin(), value.end(),
                       [](const Ordered &v) { return !v.is_structured() || (v.is_array() && hasNoStructure(v)); });
}

std::string oneLine(const Ordered &value) {
    if (!value.is_structured()) return scalar(value);
    std::string out;
    for (auto it = value.begin(); it != value.end(); ++it) {
        if (!out.empty()) out += ", ";
        if (value.is_object()) out += scalar(Ordered(it.key())) + ": ";
        out += oneLine(it.value());
    }
    return value.is_object() ? "{" + out + "}" : "[" + out + "]";
}

void write(const Ordered &value, int level, std::string &out) {
    if (!value.is_structured() || value.empty()) {
        out += oneLine(value);
        return;
    }
    if (isFlat(value)) {
        const auto line = oneLine(value);
        if (line.size() <= kOneLine || (value.is_array() && hasNoStructure(value))) {
            out += line;
            return;
        }
    }
    const bool object = value.is_object();
    out += object ? "{\n" : "[\n";
    for (auto it = value.begin(); it != value.end(); ++it) {
        if (it != value.begin()) out += ",\n";
        out.append(std::size_t(level) + 1, ' ');
        if (object) out += scalar(Ordered(it.key())) + ": ";
        write(it.value(), level + 1, out);
    }
    out += '\n';
    out.append(std::size_t(level), ' ');
    out += object ? '}' : ']';
}

} // namespace

Ordered orderedLike(const Ordered &model, const json &value) {
    if (value.is_object() && model.is_object()) {
        auto out = Ordered::object();
        for (const auto &[key, shape] : model.items())
            if (value.contains(key)) out[key] = orderedLike(shape, value[key]);
        for (const auto &[key, extra] : value.items())
            if (!model.contains(key)) out[key] = Ordered(extra);
        return out;
    }
    if (value.is_array() && model.is_array() && value.size() == model.size()) {
        auto out = Ordered::array();
        for (std::size_t i = 0; i < value.size(); ++i) out.push_back(orderedLike(model[i], value[i]));
        return out;
    }
    return Ordered(value);
}

std::string prettyJson(const Ordered &value) {
    std::string out;
    write(value, 0, out);
    out += '\n';
    return out;
}

} // namespace waxis::io
