#include "io/json/schema.h"

#include "core/base/text_match.h"

#include <fmt/format.h>
#include <set>

namespace waxis::io {

using nlohmann::json;

namespace {

constexpr std::string_view kForeignReference = "weightaxis-build.schema.json#/definitions/";
constexpr std::string_view kOwnReference = "#/definitions/";

void makeReferencesLocal(json &node) {
    for (auto &[key, value] : node.items()) {
        if (key == "$ref" && value.is_string()) {
            auto text = value.get<std::string>();
            if (text.starts_with(kForeignReference))
                value = std::string(kOwnReference) + text.substr(kForeignReference.size());
        } else if (value.is_structured()) {
            makeReferencesLocal(value);
        }
    }
}

const json &resolved(const json &node, const json &root) {
    const auto reference = node.find("$ref");
    if (reference == node.end()) return node;
    const auto name = reference->get<std::string>().substr(kOwnReference.size());
    return resolved(root.at("definitions").at(name), root);
}

/// The schema that governs a member of an object or an entry of a list; null when nothing governs it.
const json *memberSchema(const json &node, const std::string &key, const json &root) {
    const auto properties = node.find("properties");
    if (properties != node.end() && properties->contains(key)) return &resolved(properties->at(key), root);
    const auto additional = node.find("additionalProperties");
    return additional != node.end() && additional->is_object() ? &resolved(*additional, root) : nullptr;
}

const json *entrySchema(const json &node, const json &root) {
    const auto items = node.find("items");
    return items != node.end() ? &resolved(*items, root) : nullptr;
}

bool isFreeForm(const json &node) { return node.contains("additionalProperties"); }

std::vector<std::string> knownKeys(const json &node) {
    std::vector<std::string> keys;
    if (const auto properties = node.find("properties"); properties != node.end())
        for (const auto &[key, value] : properties->items()) keys.push_back(key);
    return keys;
}

std::string escaped(const std::string &key) {
    std::string out;
    for (char c : key) out += c == '~' ? "~0" : c == '/' ? "~1" : std::string(1, c);
    return out;
}

/// The first text that is longer than its schema allows.
std::optional<LoadError> overlong(const json &value, const json &schema, const json &root, const std::string &pointer) {
    if (value.is_string()) {
        const auto most = schema.find("maxLength");
        // Letters are at most four bytes; what is shorter than that many bytes may still be refused later.
        constexpr std::size_t kBytes = 4;
        const auto &text = value.get_ref<const std::string &>();
        if (most == schema.end() || text.size() <= kBytes * most->get<std::size_t>()) return std::nullopt;
        return LoadError{pointer, fmt::format("text no longer than {}", most->get<std::size_t>()),
                         fmt::format("text of {} letters", text.size()), ""};
    }
    if (value.is_object()) {
        for (const auto &[key, member] : value.items())
            if (const json *governed = memberSchema(schema, key, root))
                if (auto fault = overlong(member, *governed, root, pointer + "/" + escaped(key))) return fault;
    } else if (value.is_array()) {
        const auto most = schema.find("maxItems");
        if (most != schema.end() && !schema.contains("minItems") && value.size() > most->get<std::size_t>())
            return LoadError{pointer, fmt::format("a list with at most {}", most->get<std::size_t>()),
                             fmt::format("a list of {}", value.size()), ""};
        if (const json *entry = entrySchema(schema, root))
            for (std::size_t i = 0; i < value.size(); ++i)
                if (auto fault = overlong(value[i], *entry, root, fmt::format("{}/{}", pointer, i))) return fault;
    }
    return std::nullopt;
}

template <class Visit>
void visitUnknown(const json &document, const json &schema, const json &root, const std::string &pointer,
                  Visit &&visit) {
    if (document.is_object()) {
        for (const auto &[key, value] : document.items()) {
            if (const json *member = memberSchema(schema, key, root))
                visitUnknown(value, *member, root, pointer + "/" + escaped(key), visit);
            else if (!isFreeForm(schema))
                visit(pointer, key, schema);
        }
    } else if (document.is_array()) {
        if (const json *entry = entrySchema(schema, root))
            for (std::size_t i = 0; i < document.size(); ++i)
                visitUnknown(document[i], *entry, root, fmt::format("{}/{}", pointer, i), visit);
    }
}

const json *matchingEntry(const json &list, const json &entry, std::size_t index, std::size_t count) {
    if (entry.is_object() && entry.contains("id")) {
        for (const auto &candidate : list)
            if (candidate.is_object() && candidate.contains("id") && candidate["id"] == entry["id"]) return &candidate;
        return nullptr;
    }
    return list.size() == count ? &list[index] : nullptr;
}

void keepFrom(json &target, const json &original, const json &schema, const json &root) {
    if (target.is_object() && original.is_object()) {
        for (const auto &[key, value] : original.items()) {
            const json *member = memberSchema(schema, key, root);
            if (!member && !isFreeForm(schema))
                target[key] = value;
            else if (member && target.contains(key))
                keepFrom(target[key], value, *member, root);
        }
    } else if (target.is_array() && original.is_array()) {
        const json *entry = entrySchema(schema, root);
        if (!entry || !entry->contains("properties")) return; // rows of numbers carry no keys
        for (std::size_t i = 0; i < target.size(); ++i)
            if (const json *match = matchingEntry(original, target[i], i, target.size()))
                keepFrom(target[i], *match, *entry, root);
    }
}

} // namespace

const json &schemaOf(SchemaKind kind) {
    static const json build = json::parse(kBuildSchemaText);
    auto onBuild = [](const char *text) {
        json schema = json::parse(text);
        makeReferencesLocal(schema);
        schema["definitions"] = build["definitions"];
        return schema;
    };
    static const json parts = onBuild(kPartsSchemaText);
    static const json practice = onBuild(kPracticeSchemaText);
    switch (kind) {
    case SchemaKind::build: return build;
    case SchemaKind::parts: return parts;
    case SchemaKind::practice: return practice;
    }
    return build;
}

std::optional<LoadError> overlongPart(const json &document, SchemaKind kind) {
    const json &root = schemaOf(kind);
    return overlong(document, root, root, "");
}

std::vector<LoadWarning> unknownKeys(const json &document, SchemaKind kind) {
    std::vector<LoadWarning> warnings;
    const json &root = schemaOf(kind);
    visitUnknown(document, root, root, "", [&](const std::string &pointer, const std::string &key, const json &schema) {
        constexpr std::size_t kMostSaid = 200; // all are kept; beyond that nobody reads on
        if (warnings.size() >= kMostSaid) return;
        const auto near = nearestWord(key, knownKeys(schema));
        warnings.push_back({pointer + "/" + escaped(key),
                            near.empty() ? "unknown key, kept as it is"
                                         : fmt::format("unknown key, kept as it is; did you mean \"{}\"?", near)});
    });
    return warnings;
}

void keepUnknownKeys(json &target, const json &original, SchemaKind kind) {
    const json &root = schemaOf(kind);
    keepFrom(target, original, root, root);
}

std::string describeValue(const json &value) {
    constexpr std::size_t kShown = 40;
    switch (value.type()) {
    case json::value_t::null: return "nothing (null)";
    case json::value_t::boolean: return value.get<bool>() ? "true" : "false";
    case json::value_t::string: {
        auto text = value.get<std::string>();
        if (text.size() > kShown) text = text.substr(0, kShown) + "...";
        return fmt::format("the text \"{}\"", text);
    }
    case json::value_t::array: return fmt::format("a list of {}", value.size());
    case json::value_t::object: return fmt::format("an object with {} keys", value.size());
    case json::value_t::number_integer:
    case json::value_t::number_unsigned:
    case json::value_t::number_float: return "the number " + value.dump();
    case json::value_t::binary:
    case json::value_t::discarded: break;
    }
    return "something unreadable";
}

} // namespace waxis::io
