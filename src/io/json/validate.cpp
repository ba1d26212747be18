// The only file that includes valijson: it takes long to compile.
#include "io/json/schema.h"

#include "core/base/text_match.h"

#include <fmt/format.h>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validation_results.hpp>
#include <valijson/validator.hpp>

namespace waxis::io {

using nlohmann::json;

namespace {

const valijson::Schema &compiled(SchemaKind kind) {
    static const auto compile = [](SchemaKind which) {
        auto schema = std::make_unique<valijson::Schema>();
        valijson::SchemaParser parser;
        parser.populateSchema(valijson::adapters::NlohmannJsonAdapter(schemaOf(which)), *schema);
        return schema;
    };
    static const auto build = compile(SchemaKind::build);
    static const auto parts = compile(SchemaKind::parts);
    static const auto practice = compile(SchemaKind::practice);
    switch (kind) {
    case SchemaKind::build: return *build;
    case SchemaKind::parts: return *parts;
    case SchemaKind::practice: return *practice;
    }
    return *build;
}

/// "[parts]" -> "parts"; the leading "<root>" is dropped.
std::vector<std::string> stepsOf(const std::vector<std::string> &context) {
    std::vector<std::string> steps;
    for (const auto &step : context)
        if (step.size() >= 2 && step.front() == '[') steps.push_back(step.substr(1, step.size() - 2));
    return steps;
}

struct Place {
    const json *value = nullptr;
    const json *schema = nullptr;
    std::string pointer;
};

Place follow(const json &document, const json &root, const std::vector<std::string> &steps) {
    auto resolve = [&](const json *node) {
        while (node && node->contains("$ref"))
            node = &root.at("definitions").at(node->at("$ref").get<std::string>().substr(14)); // after "#/definitions/"
        return node;
    };
    Place place{&document, &root, ""};
    for (const auto &step : steps) {
        const json *schema = nullptr;
        if (place.value->is_array()) {
            const auto index = std::stoul(step);
            if (index >= place.value->size()) break;
            place.value = &(*place.value)[index];
            if (place.schema && place.schema->contains("items")) schema = &place.schema->at("items");
        } else if (place.value->is_object() && place.value->contains(step)) {
            place.value = &place.value->at(step);
            if (place.schema && place.schema->contains("properties") && place.schema->at("properties").contains(step))
                schema = &place.schema->at("properties").at(step);
            else if (place.schema && place.schema->contains("additionalProperties"))
                schema = &place.schema->at("additionalProperties");
        } else {
            break;
        }
        place.schema = resolve(schema);
        place.pointer += "/" + step;
    }
    return place;
}

std::string typeInWords(const std::string &type) {
    if (type == "object") return "an object";
    if (type == "array") return "a list";
    if (type == "string") return "text";
    if (type == "integer") return "a whole number";
    if (type == "boolean") return "true or false";
    return "a number";
}

std::string expectation(const json &schema) {
    std::string text = schema.contains("type") ? typeInWords(schema["type"].get<std::string>()) : "something else";
    auto limit = [&](const char *key, const char *words) {
        if (schema.contains(key)) text += fmt::format(" {} {}", words, schema[key].dump());
    };
    if (schema.contains("enum")) {
        text = "one of";
        for (const auto &choice : schema["enum"]) text += " " + choice.dump();
    }
    limit("minimum", "from");
    limit("maximum", "up to");
    limit("minItems", "with at least");
    limit("maxItems", schema.contains("minItems") ? "and at most" : "with at most");
    limit("minLength", "no shorter than");
    limit("maxLength", "no longer than");
    if (schema.contains("pattern")) text += " of letters, digits, dot, dash and underscore";
    return text;
}

std::string suggestChoice(const json &schema, const json &value) {
    if (!schema.contains("enum") || !value.is_string()) return {};
    std::vector<std::string> choices;
    for (const auto &choice : schema["enum"])
        if (choice.is_string()) choices.push_back(choice.get<std::string>());
    const auto near = nearestWord(value.get<std::string>(), choices);
    return near.empty() ? "" : fmt::format("did you mean \"{}\"?", near);
}

} // namespace

std::optional<LoadError> validate(const json &document, SchemaKind kind) {
    if (auto fault = overlongPart(document, kind)) return fault;
    valijson::Validator validator;
    valijson::ValidationResults results;
    if (validator.validate(compiled(kind), valijson::adapters::NlohmannJsonAdapter(document), &results))
        return std::nullopt;
    // Faults are repeated for each parent; the deepest context is the place itself.
    valijson::ValidationResults::Error error, deepest;
    while (results.popError(error))
        if (error.context.size() > deepest.context.size()) deepest = error;
    const json &root = schemaOf(kind);
    const Place place = follow(document, root, stepsOf(deepest.context));

    if (place.schema && place.value->is_object() && place.schema->contains("required"))
        for (const auto &required : place.schema->at("required")) {
            const auto key = required.get<std::string>();
            if (place.value->contains(key)) continue;
            LoadError fault{place.pointer.empty() ? "/" : place.pointer, fmt::format("the key \"{}\"", key),
                            "no such key", ""};
            for (const auto &[present, value] : place.value->items())
                if (!place.schema->at("properties").contains(present) && nearestWord(present, {key}) == key)
                    fault.suggestion = fmt::format("did you mean \"{}\" by \"{}\"?", key, present);
            return fault;
        }
    LoadError fault{place.pointer.empty() ? "/" : place.pointer, deepest.description, describeValue(*place.value), ""};
    if (place.schema) {
        fault.expected = expectation(*place.schema);
        fault.suggestion = suggestChoice(*place.schema, *place.value);
    }
    return fault;
}

} // namespace waxis::io
