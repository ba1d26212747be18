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

/// Builds the document and watches what comes. (The parser's own callback looks through a whole list after each of its
/// objects: work by the square.)
class WatchedParser : public nlohmann::detail::json_sax_dom_parser<json> {
    using Base = nlohmann::detail::json_sax_dom_parser<json>;

public:
    explicit WatchedParser(json &document) : Base(document) {}

    bool null() { return count() && Base::null(); }
    bool boolean(bool value) { return count() && Base::boolean(value); }
    bool number_integer(number_integer_t value) { return count() && Base::number_integer(value); }
    bool number_unsigned(number_unsigned_t value) {
        count();
        // Whole numbers beyond 63 bits would turn negative in the schema's eyes: as a double they stay large.
        return value > std::uint64_t(std::numeric_limits<std::int64_t>::max()) ? Base::number_float(double(value), {})
                                                                               : Base::number_unsigned(value);
    }
    bool number_float(number_float_t value, const string_t &text) { return count() && Base::number_float(value, text); }
    bool string(string_t &value) { return count() && Base::string(value); }
    bool start_object(std::size_t size) {
        enter();
        keys_.emplace_back();
        return Base::start_object(size);
    }
    bool end_object() {
        --depth_;
        keys_.pop_back();
        return Base::end_object();
    }
    bool start_array(std::size_t size) {
        enter();
        return Base::start_array(size);
    }
    bool end_array() {
        --depth_;
        return Base::end_array();
    }
    bool key(string_t &name) {
        count();
        if (!keys_.back().insert(name).second)
            throw Refused{{"file", "each key once in an object", fmt::format("\"{}\" twice", name), ""}};
        return Base::key(name);
    }

private:
    bool count() {
        if (++things_ > kMostThings)
            throw Refused{{"file", fmt::format("at most {} keys, values and brackets", kMostThings), "more", ""}};
        return true;
    }
    void enter() {
        count();
        if (++depth_ > kDeepestNesting)
            throw Refused{{"file", fmt::format("at most {} levels of nesting", kDeepestNesting), "more", ""}};
    }

    std::vector<std::set<std::string>> keys_; ///< by level
    std::size_t things_ = 0;
    int depth_ = 0;
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
    try {
        json document;
        WatchedParser parser(document);
        json::sax_parse(text.begin(), text.end(), &parser);
        return document;
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
